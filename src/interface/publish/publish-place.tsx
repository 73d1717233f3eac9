'use client';

import Link from 'next/link';
import { useState } from 'react';
import type { ObjectKey, Result } from '@/core';
import { answered } from '@/interface/data/answered';
import { publishAction, publishAgainAction, takeBackAction } from '@/web/actions';
import { useDocket, useEditions, useKept } from '@/interface/data/queries';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/button';
import { counted, dateTime } from '@/interface/kit/format';
import type { Docket, Edition } from '@/services/editions';
import { DocketList, chosenWords } from './docket-list';
import { OnTheGlass } from './on-the-glass';
import { Preflight } from './preflight';
import { Progress } from './progress';
import { useChoice } from './use-choice';

/** The docket: what was changed, what looks different on the glass, and the one deliberate act. */
export function PublishPlace() {
  const { notify, draft } = useNetwork('notify', 'draft');
  const docket = useDocket();
  const editions = useEditions();
  const kept = useKept();
  const index = useIndex(draft);
  const [busy, setBusy] = useState(false);
  if (!docket || !editions) return <p className="px-6 py-5 text-faint">Counting what was changed…</p>;
  const { entries, screens } = docket;
  const open = entries.length > 0 || screens.length > 0;

  const act = async <T,>(work: Promise<Result<T>>, said: (value: T) => string) => {
    setBusy(true);
    const result = await work;
    setBusy(false);
    notify(result.ok ? said(result.value) : result.message, !result.ok);
  };
  const isOut = ({ number }: { number: number }) => `Edition ${number} is published.`;

  return (
    <div className="mx-auto grid max-w-6xl grid-cols-1 gap-10 px-3 py-5 sm:px-6 lg:grid-cols-[1fr_20rem]">
      <div className="min-w-0">
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
            onPublish={(chosen) => void act(answered(publishAction(docket.change, chosen)), isOut)}
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
      <aside aria-label="Editions">
        <h2 className="text-lg">Editions</h2>
        <ol className="mt-2">
          {editions.map((edition, i) => (
            <EditionRow
              key={edition.number}
              edition={edition}
              newest={i === 0}
              busy={busy}
              onAgain={() => void act(answered(publishAgainAction(edition.number)), isOut)}
            />
          ))}
          {editions.length === 0 && <li className="text-faint">None yet.</li>}
        </ol>
        {kept && (
          <p className="mt-3 text-sm text-faint">
            Kept: the {counted(kept.editions, 'newest edition', 'newest editions')}, and all of the last{' '}
            {counted(kept.days, 'day')}.{' '}
            <Link href="/network" className="inline-block py-1 text-tide underline underline-offset-2">
              Change that
            </Link>
          </p>
        )}
      </aside>
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
  /** Undefined for all of it. */
  onPublish: (chosen: readonly ObjectKey[] | undefined) => void;
  onTakeBack: (chosen: readonly ObjectKey[]) => void;
}) {
  const { entries, edition } = docket;
  const choice = useChoice(docket);
  const { chosen, isWhole, screens, problems } = choice;
  const keys = chosen.map(({ kind, id }) => ({ kind, id }));
  const stays = entries.length - chosen.length - choice.along.size;
  const isReady = !busy && problems.length === 0 && screens !== undefined && (isWhole || chosen.length > 0);
  const words = screens === undefined ? '' : ` to ${counted(screens.length, 'screen')}`;
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
      <div className="sticky bottom-0 z-10 mt-4 flex flex-wrap items-center gap-3 border-t border-rule bg-paper py-3">
        <Button
          variant="main"
          className="text-lg"
          disabled={!isReady}
          onClick={() => onPublish(isWhole ? undefined : keys)}
        >
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
      {!isWhole && stays > 0 && chosen.length > 0 && (
        <p className="mt-2 text-sm text-faint" role="status">
          {counted(stays, 'change')} {stays === 1 ? 'stays' : 'stay'} here, and on no screen.
        </p>
      )}
    </>
  );
}

function EditionRow({
  edition,
  newest,
  busy,
  onAgain,
}: {
  edition: Edition;
  newest: boolean;
  busy: boolean;
  onAgain: () => void;
}) {
  const { number, publishedAt, person, again, whole, touched } = edition;
  const zone = useZone();
  return (
    <li className="border-t border-rule py-2">
      <p className="flex items-baseline justify-between">
        <span className="font-heading text-lg font-bold">
          {number}
          {newest && <span className="ml-2 font-text text-sm font-normal text-lamp-ink">on the glass</span>}
        </span>
        {!newest && (
          <Button variant="quiet" disabled={busy} onClick={onAgain}>
            Publish again
          </Button>
        )}
      </p>
      <p className="text-sm text-faint">
        {dateTime(Date.parse(publishedAt), zone)}, {person ?? 'somebody'}; {counted(touched, 'screen')} changed
        {again !== null && `; edition ${again} again`}
        {!whole && '; a choice of what waited'}
      </p>
    </li>
  );
}
