'use client';

import { memo, useState, type CSSProperties, type KeyboardEvent } from 'react';
import type { OutcomeRow, OutcomeSpan } from '@/core/forecast';
import type { Plan } from '@/core/plan';
import type { LocalTime } from '@/core/when';
import { useIndex } from '@/interface/data/provider';
import { counted } from '@/interface/kit/words/format';
import { spanWords } from '../site-clock-words';
import type { OutcomeAnswer } from '@/interface/forecast/messages';
import { fitted } from './label';
import type { TimeScale } from './scale';

/** Spans at least this wide, in pixels, show their name. */
const SHORTEST_NAMED = 40;

const LOOKS: Record<OutcomeSpan['source'], string> = {
  takeover: 'hatch border-brick bg-sheet text-ink',
  booking: 'border-dusk bg-dusk/15',
  backdrop: 'border-rule bg-transparent text-faint',
  'lights-out': 'border-transparent bg-glass text-[#c6cbd6]',
  nothing: 'hatch border-brick text-brick',
};

/** What the looks of times mean that have no room for their names. */
export function Legend({ hasAbove }: { hasAbove: boolean }) {
  return (
    <ul aria-label="Legend" className="flex flex-wrap gap-x-4 text-xs text-faint">
      {(
        [
          ['takeover', 'takeover'],
          ['backdrop', 'backdrop'],
          ['lights-out', 'lights out'],
          ['nothing', 'nothing'],
        ] as const
      ).map(([source, words]) => (
        <li key={source} className="flex items-center gap-1.5">
          <span aria-hidden className={`h-3 w-5 border ${LOOKS[source]}`} /> {words}
        </li>
      ))}
      {hasAbove && (
        <li className="flex items-center gap-1.5">
          <span aria-hidden className="h-[3px] w-5 bg-lamp" /> over whatever plays
        </li>
      )}
    </ul>
  );
}

/** What shows: a line for each group of screens that see the same, on their sites' own clocks. */
export const OutcomeRows = memo(function OutcomeRows({
  outcome,
  all,
  onAll,
  plan,
  scale,
  pictures,
  shades,
  gutter,
  onWhy,
  onDigit,
}: {
  outcome: OutcomeAnswer;
  /** Whether all groups were asked for. */
  all: boolean;
  /** All groups are wanted, or only the largest again. */
  onAll: (all: boolean) => void;
  plan: Plan;
  scale: TimeScale;
  /** Addresses of pictures of what bookings show, and the colours of these. */
  pictures: ReadonlyMap<string, string | undefined>;
  shades: ReadonlyMap<string, string>;
  gutter: number;
  onWhy: (row: OutcomeRow, time: LocalTime) => void;
  /** A digit was pressed on what shows: for the fixes that were told. */
  onDigit: (digit: number) => void;
}) {
  const index = useIndex(plan);
  const { rows, groups } = outcome;
  const [open, setOpen] = useState<string | null>(null);
  const name = ({ source, id }: OutcomeSpan) =>
    source === 'lights-out'
      ? 'lights out'
      : source === 'nothing'
        ? 'nothing'
        : source === 'backdrop'
          ? `Backdrop (${id ?? ''})`
          : (index.bookings.get(id ?? '')?.name ?? 'the new booking');
  return (
    <>
      {rows.map((row) => {
        const key = row.screens[0] ?? '';
        const screen = index.screens.get(key);
        const site = index.sites.get(screen?.site ?? '');
        return (
          <div key={key} className="border-b border-rule/50">
            <div className="flex items-stretch" data-outcome={row.screens.join(' ')}>
              <button
                type="button"
                aria-expanded={open === key}
                onClick={() => setOpen(open === key ? null : key)}
                onKeyDown={walk}
                className="shrink-0 truncate pr-2 text-left text-[13px] hover:text-tide"
                style={{ width: gutter }}
                title={row.screens.map((id) => index.screens.get(id)?.name).join(', ')}
              >
                {row.screens.length > 1 && (
                  <span className="font-semibold">{counted(row.screens.length, 'screen')} </span>
                )}
                <span className={row.screens.length > 1 ? 'text-faint' : ''}>
                  {screen?.name}, {site?.name}
                </span>
              </button>
              <div className="relative h-6 min-w-0 flex-1 overflow-hidden">
                {row.spans.map((span) => {
                  const left = Math.max(0, scale.x(span.from));
                  const width = Math.max(1.5, scale.x(span.to) - left);
                  const shade = span.source === 'booking' ? shades.get(pictures.get(span.id ?? '') ?? '') : undefined;
                  return (
                    <button
                      key={span.from}
                      type="button"
                      tabIndex={-1}
                      data-source={span.source}
                      title={`${name(span)}: ${spanWords(span.from, span.to)}`}
                      onKeyDown={(event) => {
                        if (/^[1-9]$/.test(event.key)) onDigit(Number(event.key));
                        else walk(event);
                      }}
                      onClick={(event) => {
                        // The keyboard presses no place, so the beginning is taken.
                        const box = event.currentTarget.parentElement?.getBoundingClientRect();
                        const pressed = scale.time(event.clientX - (box?.left ?? 0));
                        onWhy(row, event.detail === 0 ? (Math.max(span.from, scale.time(0)) as LocalTime) : pressed);
                      }}
                      className={`absolute inset-y-0.5 border-l text-left text-[12px] leading-5 whitespace-nowrap ${width > SHORTEST_NAMED ? 'pl-1' : ''} ${shade ? 'shade border-dusk' : LOOKS[span.source]}`}
                      style={{ left, width, ...(shade ? { '--shade': shade } : {}) } as CSSProperties}
                    >
                      {width > SHORTEST_NAMED && fitted(name(span), width - 6)}
                    </button>
                  );
                })}
                {row.above.map(({ from, to, id }) => {
                  const left = Math.max(0, scale.x(from));
                  const words = `${index.bookings.get(id)?.name ?? 'the new booking'}, over whatever plays: ${spanWords(from, to)}`;
                  return (
                    <span
                      key={`${id} ${from}`}
                      role="img"
                      data-above={id}
                      aria-label={words}
                      title={words}
                      className="absolute top-0 h-[3px] bg-lamp"
                      style={{ left, width: Math.max(1.5, scale.x(to) - left) }}
                    />
                  );
                })}
              </div>
            </div>
            {open === key && (
              <p className="py-1 text-sm text-faint" style={{ paddingLeft: gutter }}>
                {row.screens
                  .map((id) => {
                    const one = index.screens.get(id);
                    return `${one?.name ?? id}, ${index.sites.get(one?.site ?? '')?.name ?? ''}`;
                  })
                  .join(' · ')}
              </p>
            )}
          </div>
        );
      })}
      {(groups > rows.length || all) && (
        <button type="button" onClick={() => onAll(!all)} className="py-1 text-sm text-tide hover:underline">
          {all ? 'Fewer' : `${counted(groups - rows.length, 'more group')} of screens`}
        </button>
      )}
    </>
  );
});

/** Arrows lead from a group's name through what it shows, and back. */
function walk(event: KeyboardEvent<HTMLElement>): void {
  const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
  if (step === undefined) return;
  const row = event.currentTarget.closest('[data-outcome]');
  const stops = [...(row?.querySelectorAll<HTMLElement>('button') ?? [])];
  const next = stops[stops.indexOf(event.currentTarget) + step];
  if (!next) return;
  event.preventDefault();
  next.focus();
}
