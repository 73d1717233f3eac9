'use client';

import type { Finding, FindingKind, Fix } from '@/core';
import { useGo } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { counted, dateTime, zoneName } from '@/interface/kit/format';
import { placedName } from '@/interface/kit/placed-name';

/** How findings are counted, by their kinds. */
export const FINDING_TITLES: Record<FindingKind, readonly [one: string, many: string]> = {
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

/** One finding: in words, where and when, with what ends it. */
export function FindingRow({
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
  const screenName = (id: string) => placedName(index, id);
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
