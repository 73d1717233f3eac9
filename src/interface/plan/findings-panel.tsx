'use client';

import { group } from 'd3-array';
import { X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { type Finding, type FindingKind, type Fix } from '@/core';
import { useGo, useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { Select } from '@/interface/kit/field';
import { counted, dateTime, zoneName } from '@/interface/kit/format';
import { findingSpans } from './finding-spans';
import { NeverShows } from './never-shows';
import { useFindings } from './use-findings';

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
  const fix = ({ label, edits }: Fix) => void edit(edits, `${label}: done. Ctrl Z takes it back.`);
  return (
    <aside
      aria-label="To look at"
      className="flex w-96 shrink-0 flex-col border-l border-rule bg-sheet max-md:absolute max-md:inset-0 max-md:z-30 max-md:w-full max-md:border-l-0 print:hidden"
    >
      <header className="flex items-center gap-3 border-b border-rule px-5 py-3">
        <h2 className="text-lg whitespace-nowrap">To look at</h2>
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
        {findings?.length === 0 && <p className="text-faint">Nothing: no clash, no gap, nothing hidden in {name}.</p>}
        {[...kinds].map(([kind, list]) => (
          <section key={kind} aria-label={kind} className="mb-4">
            <h3 className="text-base">{counted(list.length, TITLES[kind][0], TITLES[kind][1])}</h3>
            <ul>
              {list.map((finding) => (
                <FindingRow
                  key={finding.sentence + (finding.span?.[0] ?? '')}
                  finding={finding}
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

const TITLES: Record<FindingKind, readonly [one: string, many: string]> = {
  clash: ['clash', 'clashes'],
  gap: ['gap', 'gaps'],
  hidden: ['hidden booking', 'hidden bookings'],
  'unreached item': ['unreached item', 'unreached items'],
  'no screen': ['booking without a screen', 'bookings without a screen'],
  'nothing for this screen': ['booking with nothing for some screens', 'bookings with nothing for some screens'],
  expired: ['expired booking', 'expired bookings'],
  'not yet begun': ['booking that begins later', 'bookings that begin later'],
  'lights-out hides': ['booking in lights-out hours', 'bookings in lights-out hours'],
  'on and off exchanged': ['lights-out that looks exchanged', 'lights-outs that look exchanged'],
  'meets no loop': ['booking that is woven in and has no turn', 'bookings that are woven in and have no turn'],
  'promised too much': [
    'time in which more is woven in than there is',
    'times in which more is woven in than there is',
  ],
  'two sounds at once': ['film that sounds beside music', 'films that sound beside music'],
  'change of clocks': ['window that a change of clocks alters', 'windows that a change of clocks alters'],
};

function FindingRow({
  finding,
  zone,
  onOpen,
  onFix,
}: {
  finding: Finding;
  zone: string;
  onOpen: (booking: string) => void;
  onFix: (fix: Fix) => void;
}) {
  const go = useGo();
  const { draft } = useNetwork('draft');
  const index = useIndex(draft);
  const { sentence, span, screens, fixes, severity, about } = finding;
  // Two screens may have one name: they are told apart by their sites.
  const screenName = (id: string) => {
    const screen = index.screens.get(id);
    return screen ? `${index.sites.get(screen.site)?.name ?? ''} · ${screen.name}` : id;
  };
  const bookings = about.filter((id) => index.bookings.has(id));
  return (
    <li
      data-finding={finding.kind}
      className={`border-l-2 py-1.5 pl-3 text-sm ${severity === 'error' ? 'border-brick' : severity === 'warning' ? 'border-dusk' : 'border-rule'}`}
    >
      <p>{sentence}</p>
      <p className="text-faint">
        {span && (
          <button type="button" onClick={() => go(Math.max(span[0], 0))} className="text-tide hover:underline">
            {dateTime(span[0], zone)} {zoneName(zone)}
          </button>
        )}
        {span && screens.length > 0 && ', '}
        {screens.length > 0 &&
          (screens.length > 2
            ? `on ${counted(screens.length, 'screen')}`
            : `on ${screens.map(screenName).join(' and ')}`)}
      </p>
      <p className="mt-1 flex flex-wrap gap-1.5">
        {fixes.map((fix) => (
          <button
            key={fix.label}
            type="button"
            onClick={() => onFix(fix)}
            className="border border-rule bg-paper px-1.5 hover:border-ink"
          >
            {fix.label}
          </button>
        ))}
        {bookings.map((id) => (
          <button key={id} type="button" onClick={() => onOpen(id)} className="px-1 text-tide hover:underline">
            Open {bookings.length > 1 ? `"${index.bookings.get(id)?.name ?? id}"` : 'it'}
          </button>
        ))}
      </p>
      {fixes.length === 0 && <p className="text-faint">{finding.advice}</p>}
    </li>
  );
}
