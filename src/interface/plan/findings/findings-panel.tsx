'use client';

import { group } from 'd3-array';
import { X } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { Fix } from '@/core/preflight';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { FINDING_TITLES, FindingRow, MOST_WEIGHED } from '@/interface/forecast/finding-row';
import { Select } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { findingSpans } from './finding-spans';
import { NeverShows } from './never-shows';
import { useFindings } from '@/interface/forecast/use-findings';

/** What would be discovered on the wall, gathered by kind; each with its place, its time and its fixes. */
export function FindingsPanel({
  shown,
  zone,
  onOpen,
  onClose,
}: {
  /** The dates that the plan shows, as instants. */
  shown: readonly [number, number];
  zone: string;
  onOpen: (booking: string) => void;
  onClose: () => void;
}) {
  const { edit } = useNetwork('edit');
  const { now } = useMoment();
  // The first is what the plan shows, and moves along with it.
  const [chosen, choose] = useState(0);
  const spans = findingSpans(shown, now, zone);
  const { from, to, name } = spans[chosen] ?? { from: shown[0], to: shown[1], name: '' };
  const findings = useFindings(from, to);
  const kinds = useMemo(() => group(findings ?? [], (one) => one.kind), [findings]);
  const fix = ({ label, edits }: Fix) => void edit(edits, `${label}: done. Ctrl Z undoes it.`);
  return (
    <aside
      aria-label="Findings"
      className="flex w-96 shrink-0 flex-col border-l border-rule bg-sheet max-md:absolute max-md:inset-0 max-md:z-30 max-md:w-full max-md:border-l-0 print:hidden"
    >
      <header className="flex items-center gap-3 border-b border-rule px-5 py-3">
        <h2 className="text-lg whitespace-nowrap">Findings</h2>
        <Select
          aria-label="In"
          className="!w-auto min-w-0 text-sm"
          value={chosen}
          onChange={(event) => choose(Number(event.target.value))}
        >
          {spans.map((one, i) => (
            <option key={i} value={i}>
              {one.name}
            </option>
          ))}
        </Select>
        <button type="button" aria-label="Close" onClick={onClose} className="ml-auto p-1 hover:text-tide">
          <X size={18} aria-hidden />
        </button>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto px-5 py-3" aria-busy={findings === null}>
        {findings === null && <p className="text-faint">Computing…</p>}
        {findings?.length === 0 && (
          <p className="text-faint">No problems: no clash, no gap, nothing hidden in {name}.</p>
        )}
        {[...kinds].map(([kind, list]) => (
          <section key={kind} aria-label={kind} className="mb-4">
            <h3 className="text-base">{counted(list.length, FINDING_TITLES[kind][0], FINDING_TITLES[kind][1])}</h3>
            <ul>
              {list.map((finding, i) => (
                <FindingRow
                  key={finding.sentence + (finding.span?.[0] ?? '')}
                  finding={finding}
                  range={[from, to]}
                  weighed={i < MOST_WEIGHED}
                  zone={zone}
                  onOpen={onOpen}
                  onFix={fix}
                />
              ))}
            </ul>
          </section>
        ))}
        <NeverShows from={from} to={to} />
      </div>
    </aside>
  );
}
