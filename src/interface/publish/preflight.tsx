'use client';

import { group } from 'd3-array';
import { useRouter } from 'next/navigation';
import { DAY, HOUR, type Instant } from '@/core/instant';
import type { Finding } from '@/core/preflight';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { FINDING_TITLES, FindingRow } from '@/interface/forecast/finding-row';
import { counted } from '@/interface/kit/words/format';
import { pathTo } from '@/interface/kit/content/path-to';
import type { Fetches } from '@/services/editions';
import { Misfits, Unplayables } from './preflight-files';
import { PreflightPlayers } from './preflight-players';
import type { Fresh } from './use-fresh';

/**
 * What you want to know before it is on the screens: problems that these changes bring, apart from older ones, each with its place
 * and its fixes; and whether the players are ready.
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
        <p className="text-sm text-faint">Checking the next seven days…</p>
      ) : (
        <p className="text-sm text-faint" role="status">
          {findings.length === 0
            ? 'These changes cause no problems in the next seven days'
            : `${counted(findings.length, 'problem')} that these changes cause in the next seven days`}
          {old > 0 ? `; ${old} ${old === 1 ? 'was' : 'were'} there before.` : '.'}
        </p>
      )}
      {/* What can’t be played is listed below, whenever it shows, and by what players say too. */}
      {findings && <Findings findings={findings.filter(({ kind }) => kind !== 'can’t play it')} />}
      <Misfits before={before} after={after} screens={screens} />
      <Unplayables before={before} after={after} screens={screens} />
      <PreflightPlayers screens={screens} fetches={fetches} goesOut={goesOut} />
    </section>
  );
}

/** At most this many of one kind are listed at first. */
const MOST = 5;

function Findings({ findings }: { findings: readonly Finding[] }) {
  const { edit } = useNetwork('edit');
  const router = useRouter();
  const zone = useZone();
  const { now } = useMoment();
  const hour = Math.floor(now / HOUR) * HOUR;
  const row = (finding: Finding, i: number) => (
    <FindingRow
      key={finding.sentence + (finding.span?.[0] ?? '')}
      finding={finding}
      range={[hour, hour + 7 * DAY]}
      weighed={i < MOST}
      zone={zone}
      onOpen={(id) => router.push(pathTo({ kind: 'booking', id }))}
      onFix={({ label, edits }) => void edit(edits, `${label}: done. Ctrl Z undoes it.`)}
    />
  );
  return [...group(findings, (one) => one.kind)].map(([kind, list]) => (
    <section key={kind} aria-label={kind} className="mt-2">
      <h3 className="text-base">{counted(list.length, FINDING_TITLES[kind][0], FINDING_TITLES[kind][1])}</h3>
      <ul>{list.slice(0, MOST).map(row)}</ul>
      {list.length > MOST && (
        <details>
          <summary className="cursor-pointer py-1 text-sm text-tide">{list.length - MOST} more</summary>
          <ul>{list.slice(MOST).map((finding, i) => row(finding, MOST + i))}</ul>
        </details>
      )}
    </section>
  ));
}
