'use client';

import { memo } from 'react';
import { DAY } from '@/core/instant';
import { MONTH_WORDS, civil, startOfDate, type LocalDate } from '@/core/when';
import { counted } from '@/interface/kit/words/format';
import { LAYERS, type Bar, type Layer } from '../strata/layout';
import { dateWords } from '../site-clock-words';

const HEIGHT = 32;
/** One day of the month: a small picture of its layers, and what is special to it by name, to be carried. */
export const Day = memo(function Day({
  day,
  bars,
  special,
  inMonth,
  isToday,
  picked,
  drawn,
  trouble,
  carried,
  lines,
  onOpenDay,
  onOpen,
  onPick,
}: {
  day: LocalDate;
  /** What touches this day. */
  bars: readonly Bar[];
  /** The bookings that are listed by name. */
  special: ReadonlySet<string>;
  inMonth: boolean;
  isToday: boolean;
  /** Whether it is the day that is looked at. */
  picked: boolean;
  /** Whether it is being drawn for a new booking. */
  drawn: boolean;
  /** How many findings begin on this day. */
  trouble: number;
  /** The occasion in hand, where it is carried to this day. */
  carried: string | null;
  /** Lines for names, which every day has room for: days stay where they are while a name is carried over them. */
  lines: 1 | 2;
  onOpenDay: (day: LocalDate) => void;
  onOpen: (booking: string) => void;
  /** The bar that has the focus, by its key. */
  onPick: (bar: string | null) => void;
}) {
  const { month, day: number } = civil(day);
  const first = new Map([...bars].reverse().map((bar) => [bar.booking.id, bar]));
  const told = bars.filter((bar) => special.has(bar.booking.id) && first.get(bar.booking.id) === bar);
  // What is in hand is seen first wherever it is carried, also to a day that has no room for all its names.
  const names = carried ? [...told].sort((a, b) => Number(b.key === carried) - Number(a.key === carried)) : told;
  const shown = names.length > lines ? names.slice(0, 1) : names;
  const more = names.length - shown.length;
  return (
    <div
      data-day={day}
      data-drawn={drawn || undefined}
      className={`relative flex ${lines === 1 ? 'min-h-20' : 'min-h-26.5'} flex-col gap-0.5 border-r border-b border-rule px-1.5 py-1 ${drawn || carried ? 'bg-dusk/15' : inMonth ? 'hover:bg-well' : 'bg-well/50 text-faint'} ${picked ? 'outline-2 -outline-offset-2 outline-dusk' : ''}`}
    >
      <button
        type="button"
        data-open-day={day}
        tabIndex={picked ? 0 : -1}
        onClick={() => onOpenDay(day)}
        onFocus={() => onPick(null)}
        aria-label={`${dateWords(day)}: ${counted(first.size, 'booking')}${trouble ? `, ${counted(trouble, 'finding')}` : ''}`}
        aria-current={isToday ? 'date' : undefined}
        className="absolute inset-0"
      />
      <span aria-hidden className="pointer-events-none flex items-baseline gap-1.5 text-sm">
        <span className={isToday ? 'border-b-2 border-lamp font-semibold' : ''}>
          {number === 1 ? `1 ${MONTH_WORDS[month - 1] ?? ''}` : number}
        </span>
        {trouble > 0 && <span className="ml-auto bg-brick px-1 font-code text-[10px] text-paper">{trouble}</span>}
      </span>
      <DayPicture day={day} bars={bars} />
      {shown.map((bar) => (
        <button
          key={bar.key}
          type="button"
          data-carry={bar.key}
          tabIndex={picked ? 0 : -1}
          onClick={() => onOpen(bar.booking.id)}
          onFocus={() => onPick(bar.key)}
          className={`relative cursor-grab touch-none truncate border-l-2 pl-1 text-left text-xs leading-6 hover:bg-paper hover:text-tide ${bar.layer === 'takeover' ? 'border-brick' : 'border-dusk'} ${bar.key === carried ? 'font-semibold' : ''}`}
        >
          {bar.booking.name}
        </button>
      ))}
      {more > 0 && (
        <span className={`pointer-events-none text-xs text-faint ${lines === 1 ? 'absolute top-1.5 left-10' : ''}`}>
          and {more} more
        </span>
      )}
    </div>
  );
});

/** A day's layers over its 24 hours, the highest on top. */
function DayPicture({ day, bars }: { day: LocalDate; bars: readonly Bar[] }) {
  const band = HEIGHT / LAYERS.length;
  const x = (time: number) => Math.min(100, Math.max(0, ((time - startOfDate(day)) / DAY) * 100));
  return (
    <svg
      viewBox={`0 0 100 ${HEIGHT}`}
      preserveAspectRatio="none"
      className="pointer-events-none relative h-5 w-full bg-well/60"
      aria-hidden
    >
      {LAYERS.flatMap((layer, i) =>
        covered(bars, layer).map(([start, end]) => (
          <rect
            key={`${layer} ${start}`}
            x={x(start)}
            width={Math.max(0.8, x(end) - x(start))}
            y={i * band + 0.4}
            height={band - 0.8}
            className={layer === 'takeover' ? 'fill-brick' : 'fill-dusk'}
            opacity={0.55}
          />
        )),
      )}
    </svg>
  );
}

/** The times that the bookings of a layer cover together, in order. */
function covered(bars: readonly Bar[], layer: Layer): [start: number, end: number][] {
  const here = bars
    .filter((bar) => bar.layer === layer && !bar.booking.onHold)
    .map(({ localOccasion }) => localOccasion);
  const spans: [number, number][] = [];
  for (const { start, end } of here.sort((a, b) => a.start - b.start)) {
    const last = spans.at(-1);
    if (last && start <= last[1]) last[1] = Math.max(last[1], end);
    else spans.push([start, end]);
  }
  return spans;
}
