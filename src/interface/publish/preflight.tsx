'use client';

import { group } from 'd3-array';
import { useRouter } from 'next/navigation';
import { useMemo, type ReactNode } from 'react';
import { DAY, HOUR, emptyPlan, newFindings, type Finding, type ObjectKey } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import type { NamedPlan } from '@/interface/data/state';
import { useZone } from '@/interface/data/zone';
import { FINDING_TITLES, FindingRow } from '@/interface/forecast/finding-row';
import { useFindingsOf } from '@/interface/forecast/use-findings';
import { counted, megabytes } from '@/interface/kit/format';
import { pathTo } from '@/interface/kit/path-to';
import type { Fetches } from '@/services/editions';
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
}: {
  screens: readonly string[];
  fetches: Fetches | undefined;
  /** Null for all changes. */
  chosen: readonly ObjectKey[] | null;
}) {
  const { published } = useNetwork('published');
  const { now } = useMoment();
  const from = Math.floor(now / HOUR) * HOUR;
  const before = useFindingsOf(published ?? NOTHING, from, from + AHEAD);
  const after = useFindingsOf(usePlanOf(chosen), from, from + AHEAD);
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
      <Players screens={screens} fetches={fetches} />
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

/** What the players of these screens have to do, and which of them can't for now. */
function Players({ screens, fetches }: { screens: readonly string[]; fetches: Fetches | undefined }) {
  const { statuses, draft } = useNetwork('statuses', 'draft');
  const sites = useMemo(() => new Map(draft.sites.map(({ id, name }) => [id, name])), [draft.sites]);
  const meant = new Set(screens);
  const named = draft.screens.filter(({ id }) => meant.has(id));
  const label = (id: string) => {
    const screen = named.find((one) => one.id === id);
    return screen ? `${sites.get(screen.site) ?? ''} · ${screen.name}` : id;
  };
  const of = (state: string) => screens.filter((id) => statuses.get(id)?.state === state);
  const troubled = screens.flatMap((id) => (statuses.get(id)?.troubles ?? []).map((text) => ({ id, text })));
  const without = named.filter(({ id }) => (statuses.get(id)?.state ?? 'unpaired') === 'unpaired').map(({ id }) => id);
  const lines: (readonly [string, ReactNode])[] = [
    ...(fetches && fetches.all > 0
      ? [
          [
            'fetch',
            `Players fetch at most ${megabytes(fetches.most)} each, ${megabytes(fetches.all)} together, and switch when they have it.`,
          ] as const,
        ]
      : []),
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
  if (lines.length === 0) return null;
  return (
    <ul className="mt-2 text-sm" aria-label="Players">
      {lines.map(([key, text]) => (
        <li key={key} className={`border-l-2 py-0.5 pl-3 ${key === 'fetch' ? 'border-rule' : 'border-dusk'}`}>
          {text}
        </li>
      ))}
    </ul>
  );
}

/** So many names are read; of more it is enough to know how many. */
const NAMES = 6;
const list = (names: readonly string[]) =>
  names.length <= NAMES
    ? names.join(', ')
    : `${names.slice(0, NAMES - 1).join(', ')} and ${names.length - NAMES + 1} more`;
