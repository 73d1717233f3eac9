'use client';

import { useState } from 'react';
import type { Besides, Finding, FindingKind, Fix } from '@/core/preflight';
import { useGo } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { counted, dateTime, zoneName } from '@/interface/kit/words/format';
import { placedName } from '@/interface/kit/words/placed-name';
import { besidesWords, leastOf } from './besides';
import { ask, useAnswer } from './client';

/** So many findings of a kind are weighed from the start. */
export const MOST_WEIGHED = 5;

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
  'unknown to the site': [
    'booking whose site has no opening hours or no place',
    'bookings whose sites have no opening hours or no place',
  ],
  'lights-out hides': ['booking in lights-out hours', 'bookings in lights-out hours'],
  'on and off swapped': ['lights-out that looks swapped', 'lights-outs that look swapped'],
  'meets no loop': ['booking that is woven in and has no turn', 'bookings that are woven in and have no turn'],
  'promised too much': [
    'time in which more is woven in than there is',
    'times in which more is woven in than there is',
  ],
  'two sounds at once': ['video with sound over music', 'videos with sound over music'],
  'can’t play it': ['file that some displays can’t play', 'files that some displays can’t play'],
  'empty zone': ['empty zone', 'empty zones'],
  'no such input': ['input that displays don’t have', 'inputs that displays don’t have'],
  'cue without a booking': ['cue without a booking', 'cues without a booking'],
  'change of clocks': ['window that a change of clocks alters', 'windows that a change of clocks alters'],
};

/** One finding: in words, where and when, with what ends it. */
export function FindingRow({
  finding,
  range,
  weighed,
  zone,
  onOpen,
  onFix,
}: {
  finding: Finding;
  /** In which time it is looked what else a fix changes. */
  range: readonly [from: number, to: number];
  /** Whether the effects of its fixes are shown from the start: each needs a forecast. */
  weighed: boolean;
  zone: string;
  onOpen: (booking: string) => void;
  onFix: (fix: Fix) => void;
}) {
  const go = useGo();
  const { draft } = useNetwork('draft');
  const index = useIndex(draft);
  const { sentence, span, screens, fixes, severity, about } = finding;
  // Two screens may have the same name, so their sites are named too.
  const screenName = (id: string) => placedName(index, id);
  const bookings = about.filter((id) => index.bookings.has(id));
  const [asked, askFor] = useState(weighed);
  const besides = useBesides(finding, range, asked && fixes.length > 1);
  const least = besides && leastOf(besides);
  const isNone = besides?.every(({ screens: others }) => others === 0) ?? false;
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
        {fixes.map((fix, i) => (
          <button
            key={fix.label}
            type="button"
            onClick={() => onFix(fix)}
            className={`border bg-paper px-1.5 hover:border-ink ${least === i ? 'border-ink' : 'border-rule'}`}
          >
            {fix.label}
          </button>
        ))}
        {bookings.map((id) => (
          <button key={id} type="button" onClick={() => onOpen(id)} className="px-1 text-tide hover:underline">
            Open {bookings.length > 1 ? `“${index.bookings.get(id)?.name ?? id}”` : 'it'}
          </button>
        ))}
      </p>
      {fixes.length > 1 && !asked && (
        <button type="button" onClick={() => askFor(true)} className="mt-1 text-xs text-tide hover:underline">
          What else do they change?
        </button>
      )}
      {fixes.length > 1 && asked && (
        <ul data-testid="besides" className="mt-1 text-xs text-faint">
          {isNone && <li>They change nothing else.</li>}
          {!besides && <li>Checking what else they change…</li>}
          {(isNone ? [] : (besides ?? [])).map((one, i) => (
            <li key={fixes[i]?.label}>
              {fixes[i]?.label}: {besidesWords(one)}
              {least === i && <strong className="font-semibold text-ink"> This changes the least.</strong>}
            </li>
          ))}
        </ul>
      )}
      {fixes.length === 0 && <p className="text-faint">{finding.advice}</p>}
    </li>
  );
}

/** What else the fixes of a finding change; null until it is wanted and known. */
function useBesides(
  finding: Finding,
  [from, to]: readonly [number, number],
  wanted: boolean,
): readonly Besides[] | null {
  const { drafted } = useNetwork('drafted');
  const { screens, times, fixes } = finding;
  return useAnswer<readonly Besides[] | null>(
    async () => (wanted ? ask(drafted, { kind: 'besides', finding: { screens, times }, fixes, from, to }) : null),
    [drafted, finding, from, to, wanted],
    null,
  );
}
