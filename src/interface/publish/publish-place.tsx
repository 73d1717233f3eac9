'use client';

import Link from 'next/link';
import { useState } from 'react';
import { KINDS } from '@/core';
import { answered } from '@/interface/data/answered';
import { publishAction, publishAgainAction } from '@/web/actions';
import { useDocket, useEditions, useKept } from '@/interface/data/queries';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/button';
import { counted, dateTime } from '@/interface/kit/format';
import type { DocketEntry, Edition } from '@/services/editions';
import { Progress } from './progress';
import { Touched } from './touched';

/** The docket: what was changed, what looks different on the glass, and the one deliberate act. */
export function PublishPlace() {
  const { notify, draft } = useNetwork('notify', 'draft');
  const docket = useDocket();
  const editions = useEditions();
  const kept = useKept();
  const index = useIndex(draft);
  const [busy, setBusy] = useState(false);
  if (!docket || !editions) return <p className="px-6 py-5 text-faint">Counting what was changed…</p>;
  const { entries, screens, problems, change } = docket;
  const next = (editions[0]?.number ?? 0) + 1;
  const open = entries.length > 0 || screens.length > 0;

  const act = async (work: Promise<{ ok: true; value: { number: number } } | { ok: false; message: string }>) => {
    setBusy(true);
    const result = await work;
    setBusy(false);
    notify(result.ok ? `Edition ${result.value.number} is published.` : result.message, !result.ok);
  };

  return (
    <div className="mx-auto grid max-w-6xl grid-cols-1 gap-10 px-3 py-5 sm:px-6 lg:grid-cols-[1fr_20rem]">
      <div className="min-w-0">
        <h1 className="text-2xl">
          {open
            ? `${counted(entries.length, 'change')} since ${editions[0] ? `edition ${editions[0].number}` : 'the beginning'}`
            : 'Nothing waits to be published'}
        </h1>
        {open ? (
          <>
            <ul className="mt-3 border-y border-rule">
              {entries.map((entry) => (
                <Entry key={`${entry.kind}-${entry.id}`} entry={entry} />
              ))}
            </ul>
            {problems.map((problem) => (
              <p key={problem.path} role="alert" className="mt-3 text-brick">
                {problem.message}
              </p>
            ))}
            <Touched screens={screens} />
            <Button
              variant="main"
              className="mt-6 text-lg"
              disabled={busy || problems.length > 0}
              onClick={() => void act(answered(publishAction(change)))}
            >
              {busy ? 'Publishing…' : `Publish edition ${next} to ${counted(screens.length, 'screen')}`}
            </Button>
          </>
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
              onAgain={() => void act(answered(publishAgainAction(edition.number)))}
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

function Entry({ entry }: { entry: DocketEntry }) {
  const { what, kind, name, sentences, people, at } = entry;
  const zone = useZone();
  return (
    <li
      className="flex flex-wrap items-baseline gap-x-3 border-b border-rule/60 py-2 last:border-b-0"
      data-testid="change"
    >
      <span className={`text-sm md:w-20 ${what === 'removed' ? 'text-brick' : 'text-tide'}`}>{what}</span>
      <span className="text-sm text-faint md:w-24">{KINDS[kind].noun}</span>
      <div className="min-w-0 flex-1 max-md:w-full max-md:flex-none">
        <p className="font-semibold">{name}</p>
        {sentences.length > 0 && (
          <ul className="text-sm text-faint">
            {sentences.map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </ul>
        )}
      </div>
      <span className="text-sm text-faint">
        {people.join(', ')} · {dateTime(Date.parse(at), zone)}
      </span>
    </li>
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
  const { number, publishedAt, person, again, touched } = edition;
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
      </p>
    </li>
  );
}
