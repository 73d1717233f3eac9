'use client';

import { useState } from 'react';
import type { ObjectKey, Result } from '@/core';
import { answered } from '@/interface/data/answered';
import { publishAction, publishAgainAction, takeBackAction } from '@/web/actions';
import { useDocket, useEditions } from '@/interface/data/queries';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/button';
import { Field, Input } from '@/interface/kit/field';
import { counted } from '@/interface/kit/format';
import type { Docket, Publishing } from '@/services/editions';
import { DocketList, chosenWords } from './docket-list';
import { Editions } from './editions';
import { EditionsCompared, type Compared } from './editions-compared';
import { OnTheGlass } from './on-the-glass';
import { Preflight } from './preflight';
import { Progress } from './progress';
import { useChoice } from './use-choice';

/** The docket: what was changed, what looks different on the glass, and the one deliberate act. */
export function PublishPlace() {
  const { notify, draft } = useNetwork('notify', 'draft');
  const docket = useDocket();
  const editions = useEditions();
  const index = useIndex(draft);
  const [busy, setBusy] = useState(false);
  const [compared, setCompared] = useState<Compared | null>(null);
  if (!docket || !editions) return <p className="px-6 py-5 text-faint">Counting what was changed…</p>;
  const { entries, screens } = docket;
  const open = entries.length > 0 || screens.length > 0;

  const act = async <T,>(work: Promise<Result<T>>, said: (value: T) => string) => {
    setBusy(true);
    const result = await work;
    setBusy(false);
    notify(result.ok ? said(result.value) : result.message, !result.ok);
    return result.ok;
  };
  const isOut = ({ number }: { number: number }) => `Edition ${number} is published.`;

  return (
    <div className="mx-auto grid max-w-6xl grid-cols-1 gap-10 px-3 py-5 sm:px-6 lg:grid-cols-[1fr_20rem]">
      <div className="min-w-0">
        {compared && <EditionsCompared editions={editions} compared={compared} onChange={setCompared} />}
        <h1 className="text-2xl">
          {open
            ? `${counted(entries.length, 'change')} since ${editions[0] ? `edition ${editions[0].number}` : 'the beginning'}`
            : 'Nothing waits to be published'}
        </h1>
        {open ? (
          <Waiting
            docket={docket}
            next={(editions[0]?.number ?? 0) + 1}
            busy={busy}
            onPublish={(how) => act(answered(publishAction(docket.change, how)), isOut)}
            onTakeBack={(chosen) =>
              void act(
                answered(takeBackAction(docket.change, chosen, '')),
                ({ ids }) => `Taken back: ${counted(ids.length, 'change')}. Undo brings them again.`,
              )
            }
          />
        ) : (
          <p className="mt-2 text-faint">
            {editions[0]
              ? 'What you change from here on is kept as a draft, and counted here until you publish it.'
              : 'Add sites, screens and media first: then the first edition goes out from here.'}
          </p>
        )}
        <Progress index={index} />
      </div>
      <Editions
        editions={editions}
        busy={busy}
        onCompare={(number) => setCompared([number, editions[0]?.number ?? number])}
        onAgain={(number) => void act(answered(publishAgainAction(number)), isOut)}
      />
    </div>
  );
}

/** What waits, what of it is chosen and looks different, and the two things to do with it. */
function Waiting({
  docket,
  next,
  busy,
  onPublish,
  onTakeBack,
}: {
  docket: Docket;
  next: number;
  busy: boolean;
  /** Whether it was published. */
  onPublish: (how: Publishing) => Promise<boolean>;
  onTakeBack: (chosen: readonly ObjectKey[]) => void;
}) {
  const { entries, edition } = docket;
  const choice = useChoice(docket);
  const [note, setNote] = useState('');
  const { chosen, isWhole, screens, problems } = choice;
  const { statuses } = useNetwork('statuses');
  const hasNewPlayer = chosen.some(
    ({ kind, id, what }) =>
      kind === 'screen' && what === 'added' && (statuses.get(id)?.state ?? 'unpaired') !== 'unpaired',
  );
  const keys = chosen.map(({ kind, id }) => ({ kind, id }));
  const stays = entries.length - chosen.length - choice.along.size;
  const isReady = !busy && problems.length === 0 && screens !== undefined && (isWhole || chosen.length > 0);
  const words = screens === undefined ? '' : ` to ${counted(screens.length, 'screen')}`;
  const publish = async () => {
    if (!(await onPublish({ note, ...(isWhole ? {} : { chosen: keys }) }))) return;
    setNote('');
    // What somebody makes of these later is another change: it is not chosen with them.
    if (!isWhole) choice.choose([]);
  };
  return (
    <>
      <DocketList entries={entries} choice={choice} />
      {problems.map((problem) => (
        <p key={problem.path} role="alert" className="mt-3 text-brick">
          {problem.message}
        </p>
      ))}
      {chosen.length === 0 && entries.length > 0 ? (
        <p className="mt-4 text-faint">Choose what goes out: what you leave stays here.</p>
      ) : (
        screens && (
          <>
            <OnTheGlass screens={screens} chosen={isWhole ? null : keys} />
            <Preflight screens={screens} fetches={choice.fetches} chosen={isWhole ? null : keys} />
          </>
        )
      )}
      {(isWhole || chosen.length > 0) && (
        <div className="mt-6 max-w-md">
          <Field label="Note" hint="What this edition is for: it stands in the list of editions.">
            <Input value={note} maxLength={500} onChange={({ target }) => setNote(target.value)} />
          </Field>
        </div>
      )}
      <div className="sticky bottom-0 z-10 mt-4 flex flex-wrap items-center gap-3 border-t border-rule bg-paper py-3">
        <Button variant="main" className="text-lg" disabled={!isReady} onClick={() => void publish()}>
          {busy
            ? 'Publishing…'
            : isWhole
              ? `Publish edition ${next}${words}`
              : `Publish ${chosenWords(choice, entries.length)} as edition ${next}${words}`}
        </Button>
        {edition && chosen.length > 0 && (
          <Button variant="grave" disabled={busy} onClick={() => onTakeBack(keys)}>
            Take {isWhole && entries.length > 1 ? `all ${chosen.length}` : chosen.length} back
          </Button>
        )}
      </div>
      {edition && hasNewPlayer && (
        <p className="text-sm text-faint">
          To take back a screen that was added ends the pairing of its player: undo brings the screen again, not the
          pairing.
        </p>
      )}
      {!isWhole && stays > 0 && chosen.length > 0 && (
        <p className="mt-2 text-sm text-faint" role="status">
          {counted(stays, 'change')} {stays === 1 ? 'stays' : 'stay'} here, and on no screen.
        </p>
      )}
    </>
  );
}
