'use client';

import { useState } from 'react';
import { KINDS, keyText, type ObjectKey } from '@/core/plan';
import { answered } from '@/interface/data/answered';
import { Only, useMay } from '@/interface/data/may';
import { useRequests } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input } from '@/interface/kit/controls/field';
import { counted, dateTime } from '@/interface/kit/words/format';
import type { DocketEntry, PublishRequest } from '@/services/editions';
import { sendBackAction, withdrawRequestAction } from '@/web/actions';
import { useAct } from './use-act';

/** So many changes of a request are named. */
const MOST_NAMED = 6;

/**
 * Requests to publish: those that wait, for who may publish; and one's own, with what became of them. `onChoose` takes exactly the changes of a
 * request into the choice below, with its note.
 */
export function Requests({
  entries,
  onChoose,
}: {
  entries: readonly DocketEntry[];
  onChoose: (entries: readonly DocketEntry[], note: string) => void;
}) {
  const { list: all } = useRequests();
  const mayPublish = useMay('publish');
  const shown = all.filter(({ yours, answer }) => yours || (mayPublish && answer === null));
  if (shown.length === 0) return null;
  return (
    <section aria-label="Requests to publish" className="mt-4 mb-6 space-y-2">
      {shown.map((request) => (
        <RequestRow key={request.id} request={request} entries={entries} onChoose={onChoose} />
      ))}
    </section>
  );
}

function RequestRow({
  request: { id, person, yours, askedAt, note, chosen, answer },
  entries,
  onChoose,
}: {
  request: PublishRequest;
  entries: readonly DocketEntry[];
  onChoose: (entries: readonly DocketEntry[], note: string) => void;
}) {
  const zone = useZone();
  const { busy, act } = useAct();
  const [sending, setSending] = useState(false);
  const waiting = waitingOf(chosen, entries);
  const away = () =>
    void act(answered(withdrawRequestAction(id)), () =>
      answer === null ? 'Your request is withdrawn. Your changes stay in the draft.' : 'Put away.',
    );
  return (
    <article
      aria-label={yours ? 'Your request' : `Request by ${person}`}
      className={`border border-l-4 bg-sheet px-4 py-3 ${answer?.kind === 'sent-back' ? 'border-brick' : 'border-rule border-l-dusk'}`}
    >
      <p>
        <strong>{yours ? 'You asked' : `${person} asks you`} to publish</strong>{' '}
        <span className="text-sm text-faint">{dateTime(Date.parse(askedAt), zone)}</span>
      </p>
      {note && <p className="break-words">“{note}”</p>}
      {answer === null ? (
        <p className="text-sm text-faint">
          {waiting.length === 0
            ? 'None of these changes is still waiting.'
            : `${counted(waiting.length, 'change')}: ${namesOf(waiting)}`}
          {waiting.length > 0 && waiting.length < chosen.length && '. The others no longer wait.'}
        </p>
      ) : (
        <p className={answer.kind === 'sent-back' ? 'break-words' : 'text-sm'}>{answerWords(answer, zone)}</p>
      )}
      <p className="mt-2 flex flex-wrap gap-2">
        {answer === null && !yours && (
          <>
            {waiting.length > 0 && <Button onClick={() => onChoose(waiting, note)}>Choose only these changes</Button>}
            <Only needs="publish">
              <Button variant="quiet" aria-expanded={sending} onClick={() => setSending(!sending)}>
                Send back…
              </Button>
            </Only>
          </>
        )}
        {yours && (
          <Button variant="quiet" disabled={busy} onClick={away}>
            {answer === null ? 'Withdraw it' : 'Put away'}
          </Button>
        )}
      </p>
      {sending && answer === null && <SendBack id={id} person={person} onDone={() => setSending(false)} />}
    </article>
  );
}

/** Those of a request's changes that still wait. */
export function waitingOf(chosen: readonly ObjectKey[], entries: readonly DocketEntry[]): DocketEntry[] {
  const asked = new Set(chosen.map(keyText));
  return entries.filter((entry) => asked.has(keyText(entry)));
}

function namesOf(entries: readonly DocketEntry[]): string {
  const named = entries.slice(0, MOST_NAMED).map(({ kind, name }) => `${KINDS[kind].noun} “${name}”`);
  const more = entries.length - named.length;
  return more > 0 ? `${named.join(', ')} and ${more} more` : named.join(', ');
}

/** What became of a request, as whoever asked reads it. */
export function answerWords(answer: NonNullable<PublishRequest['answer']>, zone: string): string {
  const by = answer.by ?? 'Someone who is no longer here';
  if (answer.kind === 'sent-back') return `${by} sent it back: “${answer.word}”`;
  if (answer.number !== null) return `${by} published it with edition ${answer.number}.`;
  if (answer.plannedFor !== null) return `${by} planned it for ${dateTime(Date.parse(answer.plannedFor), zone)}.`;
  return `${by} gave it to some screens first, or published it in an edition that is no longer kept.`;
}

function SendBack({ id, person, onDone }: { id: string; person: string; onDone: () => void }) {
  const { busy, act } = useAct();
  const [word, setWord] = useState('');
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void act(answered(sendBackAction(id, word)), () => `Sent back to ${person}.`).then((done) => done && onDone());
      }}
    >
      <Field label={`Why, for ${person}`} className="min-w-0 flex-1 basis-60">
        {/* eslint-disable-next-line jsx-a11y/no-autofocus -- one asked for this field */}
        <Input autoFocus value={word} maxLength={500} onChange={({ target }) => setWord(target.value)} />
      </Field>
      <Button type="submit" disabled={busy || word.trim() === ''}>
        Send back
      </Button>
    </form>
  );
}
