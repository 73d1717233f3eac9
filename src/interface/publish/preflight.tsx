'use client';

import { group } from 'd3-array';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, type ReactNode } from 'react';
import {
  DAY,
  HOUR,
  MINUTE,
  emptyPlan,
  isShown,
  newFindings,
  newMisfits,
  type Finding,
  type Instant,
  type Misfit,
  type ObjectKey,
} from '@/core';
import { useMoment } from '@/interface/data/moment';
import { thumbnailOf, useIndex, useNetwork } from '@/interface/data/provider';
import { useLines } from '@/interface/data/queries';
import type { NamedPlan } from '@/interface/data/state';
import { useZone } from '@/interface/data/zone';
import { ask, useNewest } from '@/interface/forecast/client';
import { FINDING_TITLES, FindingRow } from '@/interface/forecast/finding-row';
import { useFindingsOf } from '@/interface/forecast/use-findings';
import { FitDrawing } from '@/interface/kit/fit-drawing';
import { counted, megabytes, timeNear } from '@/interface/kit/format';
import { FIT_WORDS } from '@/interface/kit/media-words';
import { pathTo } from '@/interface/kit/path-to';
import { placedName } from '@/interface/kit/placed-name';
import { standingWords } from '@/interface/library/fit';
import type { Fetches } from '@/services/editions';
import { readiness, readyWords } from './readiness';
import { usePlanOf } from './use-plan-of';

/** How far ahead it is looked. */
const AHEAD = 7 * DAY;

const NOTHING: NamedPlan = { key: 'nothing', plan: emptyPlan('') };

/**
 * What one wants to know before it is on the walls: what these changes make worse, apart from what was so before, each with its place
 * and what ends it; and what the players bring along.
 */
export function Preflight({
  screens,
  fetches,
  chosen,
  goesOut,
}: {
  screens: readonly string[];
  fetches: Fetches | undefined;
  /** Null for all changes. */
  chosen: readonly ObjectKey[] | null;
  /** When it goes out; null for now, and where that differs by site. */
  goesOut: Instant | null;
}) {
  const { published } = useNetwork('published');
  const { now } = useMoment();
  const from = Math.floor(now / HOUR) * HOUR;
  const before = useFindingsOf(published ?? NOTHING, from, from + AHEAD);
  const plan = usePlanOf(chosen);
  const after = useFindingsOf(plan, from, from + AHEAD);
  const fresh = useMemo(() => before && after && sorted(newFindings(before, after)), [before, after]);
  const old = after && fresh ? after.length - fresh.length : 0;
  return (
    <section className="mt-6" aria-label="Preflight" aria-busy={fresh === null}>
      <h2 className="text-lg">Preflight</h2>
      {fresh === null ? (
        <p className="text-sm text-faint">Looking seven days ahead…</p>
      ) : (
        <p className="text-sm text-faint" role="status">
          {fresh.length === 0
            ? 'These changes make nothing worse in the next seven days'
            : `${counted(fresh.length, 'thing')} to look at that these changes bring, in the next seven days`}
          {old > 0 ? `; ${old} ${old === 1 ? 'was' : 'were'} there before.` : '.'}
        </p>
      )}
      {fresh && <Findings findings={fresh} />}
      <Misfits before={published ?? NOTHING} after={plan} screens={screens} />
      <Players screens={screens} fetches={fetches} goesOut={goesOut} />
    </section>
  );
}

const SEVERITIES: readonly Finding['severity'][] = ['error', 'warning', 'notice'];
const sorted = (list: readonly Finding[]) =>
  list.toSorted((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity));

/** So many of one kind are told at first. */
const MOST = 5;

function Findings({ findings }: { findings: readonly Finding[] }) {
  const { edit } = useNetwork('edit');
  const router = useRouter();
  const zone = useZone();
  const row = (finding: Finding) => (
    <FindingRow
      key={finding.sentence + (finding.span?.[0] ?? '')}
      finding={finding}
      zone={zone}
      onOpen={(id) => router.push(pathTo({ kind: 'booking', id }))}
      onFix={({ label, edits }) => void edit(edits, `${label}: done. Ctrl Z takes it back.`)}
    />
  );
  return [...group(findings, (one) => one.kind)].map(([kind, list]) => (
    <section key={kind} aria-label={kind} className="mt-2">
      <h3 className="text-base">{counted(list.length, FINDING_TITLES[kind][0], FINDING_TITLES[kind][1])}</h3>
      <ul>{list.slice(0, MOST).map(row)}</ul>
      {list.length > MOST && (
        <details>
          <summary className="cursor-pointer py-1 text-sm text-tide">{list.length - MOST} more</summary>
          <ul>{list.slice(MOST).map(row)}</ul>
        </details>
      )}
    </section>
  ));
}

/** The longer side of a drawn screen, in pixels. */
const DRAWN = 72;

/** What does not fit on the screens that show it, each drawn: what these changes bring alone. */
function Misfits({ before, after, screens }: { before: NamedPlan; after: NamedPlan; screens: readonly string[] }) {
  const index = useIndex(after.plan);
  const question = { kind: 'misfits', screens } as const;
  const found = useNewest(
    async () => newMisfits(await ask(before, question), await ask(after, question)),
    [before, after, screens.join()],
  );
  if (!found || found.length === 0) return null;
  const row = ({ media, fit, size, standing, screens: where }: Misfit) => {
    const file = index.media.get(media);
    if (!file || !isShown(file)) return null;
    return (
      <li key={`${media} ${fit} ${size.width} ${size.height}`} className="flex items-center gap-3 py-1.5">
        <span className="flex w-18 shrink-0 justify-center">
          <FitDrawing file={file} src={thumbnailOf(file)} screen={size} fit={fit} longest={DRAWN} />
        </span>
        <p className="min-w-0 text-sm">
          <Link href={pathTo({ kind: 'media', id: media })} className="text-tide underline underline-offset-2">
            {file.name}
          </Link>{' '}
          {standingWords(standing)}
          <span className="block text-faint">
            {file.width} × {file.height}, {FIT_WORDS[fit]}, on {size.width} × {size.height}:{' '}
            {where.length > 2
              ? counted(where.length, 'screen')
              : where.map((id) => placedName(index, id)).join(' and ')}
          </span>
        </p>
      </li>
    );
  };
  return (
    <section aria-label="Sizes that do not match" className="mt-2">
      <h3 className="text-base">
        {counted(found.length, 'picture that does not match its screens', 'pictures that do not match their screens')}
      </h3>
      <ul>{found.slice(0, MOST).map(row)}</ul>
      {found.length > MOST && (
        <details>
          <summary className="cursor-pointer py-1 text-sm text-tide">{found.length - MOST} more</summary>
          <ul>{found.slice(MOST).map(row)}</ul>
        </details>
      )}
    </section>
  );
}

/** What the players of these screens have to do, and which of them can't for now. */
function Players({
  screens,
  fetches,
  goesOut,
}: {
  screens: readonly string[];
  fetches: Fetches | undefined;
  goesOut: Instant | null;
}) {
  const { statuses, draft } = useNetwork('statuses', 'draft');
  const index = useIndex(draft);
  const zone = useZone();
  const lines = useLines();
  const { now } = useMoment();
  // In whole minutes: how long it takes does not change with each second.
  const minute = Math.floor(now / MINUTE) * MINUTE;
  const meant = new Set(screens);
  const named = draft.screens.filter(({ id }) => meant.has(id));
  const label = (id: string) => placedName(index, id);
  const heard = new Set(
    screens.filter((id) => ['lit', 'behind', 'resting'].includes(statuses.get(id)?.state ?? 'unpaired')),
  );
  const when = fetches && lines && readiness(fetches, new Map(lines.map((line) => [line.id, line])), heard, minute);
  const ready = when && readyWords(when, minute, label, (at) => timeNear(at, minute, zone));
  const late = goesOut === null || !when ? [] : when.ready.filter(({ at }) => at > goesOut).map(({ screen }) => screen);
  const of = (state: string) => screens.filter((id) => statuses.get(id)?.state === state);
  const troubled = screens.flatMap((id) => (statuses.get(id)?.troubles ?? []).map((text) => ({ id, text })));
  const without = named.filter(({ id }) => (statuses.get(id)?.state ?? 'unpaired') === 'unpaired').map(({ id }) => id);
  const rows: (readonly [string, ReactNode])[] = [
    ...(fetches && fetches.all > 0
      ? [
          [
            'fetch',
            `Players fetch at most ${megabytes(fetches.most)} each, ${megabytes(fetches.all)} together, and switch when they have it.`,
          ] as const,
        ]
      : []),
    ...(ready ? [['ready', ready] as const] : []),
    ...(when && when.unknown.length > 0
      ? [
          [
            'unknown',
            `${list(when.unknown.map(label))}: how soon is not known; a line is measured with the first larger file.`,
          ] as const,
        ]
      : []),
    ...(late.length > 0
      ? [['late', `${list(late.map(label))}: not ready by the time it goes out, and switched when they are.`] as const]
      : []),
    ...(when?.short ?? []).map(
      ({ screen, bytes }) =>
        [`short ${screen}`, `${label(screen)}: storage ${megabytes(bytes)} short for it.`] as const,
    ),
    ...(of('dark').length > 0
      ? [
          [
            'dark',
            `${list(of('dark').map(label))}: not heard from. What is published reaches them when they are back.`,
          ] as const,
        ]
      : []),
    ...(without.length > 0
      ? [['unpaired', `${list(without.map(label))}: no player is paired, so nothing shows there.`] as const]
      : []),
    ...troubled.map(({ id, text }) => [`${id} ${text}`, `${label(id)}: ${text}`] as const),
  ];
  if (rows.length === 0) return null;
  return (
    <ul className="mt-2 text-sm" aria-label="Players">
      {rows.map(([key, text]) => (
        <li key={key} className={`border-l-2 py-0.5 pl-3 ${QUIET.has(key) ? 'border-rule' : 'border-dusk'}`}>
          {text}
        </li>
      ))}
    </ul>
  );
}

/** What is told, and is no fault. */
const QUIET: ReadonlySet<string> = new Set(['fetch', 'ready', 'unknown']);

/** So many names are read; of more it is enough to know how many. */
const NAMES = 6;
const list = (names: readonly string[]) =>
  names.length <= NAMES
    ? names.join(', ')
    : `${names.slice(0, NAMES - 1).join(', ')} and ${names.length - NAMES + 1} more`;
