'use client';

import { group } from 'd3-array';
import { useRouter } from 'next/navigation';
import type { Finding, Instant } from '@/core';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { FINDING_TITLES, FindingRow } from '@/interface/forecast/finding-row';
import { counted } from '@/interface/kit/format';
import { pathTo } from '@/interface/kit/path-to';
import type { Fetches } from '@/services/editions';
import { Misfits, Unplayables } from './preflight-files';
import { PreflightPlayers } from './preflight-players';
import type { Fresh } from './use-fresh';

/**
 * What one wants to know before it is on the walls: what these changes make worse, apart from what was so before, each with its place
 * and what ends it; and what the players bring along.
 */
export function Preflight({
  screens,
  fetches,
  fresh: { before, after, findings, old },
  goesOut,
}: {
  screens: readonly string[];
  fetches: Fetches | undefined;
  fresh: Fresh;
  /** When it goes out; null for now, and where that differs by site. */
  goesOut: Instant | null;
}) {
  return (
    <section className="mt-6" aria-label="Preflight" aria-busy={findings === null}>
      <h2 className="text-lg">Preflight</h2>
      {findings === null ? (
        <p className="text-sm text-faint">Looking seven days ahead…</p>
      ) : (
        <p className="text-sm text-faint" role="status">
          {findings.length === 0
            ? 'These changes make nothing worse in the next seven days'
            : `${counted(findings.length, 'thing')} to look at that these changes bring, in the next seven days`}
          {old > 0 ? `; ${old} ${old === 1 ? 'was' : 'were'} there before.` : '.'}
        </p>
      )}
      {findings && <Findings findings={findings} />}
      <Misfits before={before} after={after} screens={screens} />
      <Unplayables before={before} after={after} screens={screens} />
      <PreflightPlayers screens={screens} fetches={fetches} goesOut={goesOut} />
    </section>
  );
}

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
