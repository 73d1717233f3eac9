'use client';

import { DAY, MONTH_WORDS, civil, startOfDate, type LocalDate } from '@/core';
import { counted } from '@/interface/kit/format';
import { LAYERS, type Bar } from '../strata/layout';
import { dateWords } from '../wall-words';

const HEIGHT = 32;
const NAMES_SHOWN = 3;

/** One day of the month: a small picture of its layers, and what is special to it by name, to be carried. */
export function Day({
  day,
  bars,
  isSpecial,
  looks,
  trouble,
  carried,
  onOpenDay,
  onOpen,
  onPick,
}: {
  day: LocalDate;
  /** What touches this day. */
  bars: readonly Bar[];
  isSpecial: (booking: string) => boolean;
  looks: { readonly month: boolean; readonly today: boolean; readonly picked: boolean; readonly drawn: boolean };
  /** How many findings begin on this day. */
  trouble: number;
  /** The occasion in hand, where it is carried to this day. */
  carried: string | null;
  onOpenDay: () => void;
  onOpen: (booking: string) => void;
  onPick: (bar: Bar | null) => void;
}) {
  const { month, day: number } = civil(day);
  const special = bars.filter(
    ({ booking }, i) => isSpecial(booking.id) && bars.findIndex((other) => other.booking.id === booking.id) === i,
  );
  // What is in hand is seen first wherever it is carried, also to a day that has no room for all its names.
  const names = carried
    ? [...special].sort((a, b) => Number(b.key === carried) - Number(a.key === carried))
    : special;
  const count = new Set(bars.map((one) => one.booking.id)).size;
  return (
    <div
      data-day={day}
      data-drawn={looks.drawn || undefined}
      className={`relative flex min-h-24 flex-col gap-0.5 border-r border-b border-rule p-1.5 ${looks.drawn || carried ? 'bg-dusk/15' : looks.month ? 'hover:bg-well' : 'bg-well/50 text-faint'} ${looks.picked ? 'outline-2 -outline-offset-2 outline-dusk' : ''}`}
    >
      <button
        type="button"
        data-open-day={day}
        tabIndex={looks.picked ? 0 : -1}
        onClick={onOpenDay}
        onFocus={() => onPick(null)}
        aria-label={`${dateWords(day)}: ${counted(count, 'booking')}${trouble ? `, ${counted(trouble, 'finding')}` : ''}`}
        aria-current={looks.today ? 'date' : undefined}
        className="absolute inset-0"
      />
      <span aria-hidden className="pointer-events-none flex items-baseline gap-1.5 text-sm">
        <span className={looks.today ? 'border-b-2 border-lamp font-semibold' : ''}>
          {number === 1 ? `1 ${MONTH_WORDS[month - 1] ?? ''}` : number}
        </span>
        {trouble > 0 && <span className="ml-auto bg-brick px-1 font-code text-[10px] text-paper">{trouble}</span>}
      </span>
      <DayPicture day={day} bars={bars} />
      {names.slice(0, NAMES_SHOWN).map((bar) => (
        <button
          key={bar.key}
          type="button"
          data-carry={bar.key}
          tabIndex={looks.picked ? 0 : -1}
          onClick={() => onOpen(bar.booking.id)}
          onFocus={() => onPick(bar)}
          className={`relative cursor-grab touch-none truncate border-l-2 pl-1 text-left text-xs leading-4 hover:bg-paper hover:text-tide ${bar.layer === 'takeover' ? 'border-brick' : 'border-dusk'} ${bar.key === carried ? 'font-semibold' : ''}`}
        >
          {bar.booking.name}
        </button>
      ))}
      {special.length > NAMES_SHOWN && (
        <span className="pointer-events-none text-xs text-faint">and {special.length - NAMES_SHOWN} more</span>
      )}
    </div>
  );
}

/** A day's layers over its 24 hours, the highest on top. */
function DayPicture({ day, bars }: { day: LocalDate; bars: readonly Bar[] }) {
  const band = HEIGHT / LAYERS.length;
  const x = (time: number) => Math.min(100, Math.max(0, ((time - startOfDate(day)) / DAY) * 100));
  return (
    <svg
      viewBox={`0 0 100 ${HEIGHT}`}
      preserveAspectRatio="none"
      className="pointer-events-none relative mb-0.5 h-7 w-full bg-well/60"
      aria-hidden
    >
      {bars
        .filter(({ booking }) => !booking.onHold)
        .map(({ key, layer, sighting: { start, end } }) => (
          <rect
            key={key}
            x={x(start)}
            width={Math.max(0.8, x(end) - x(start))}
            y={LAYERS.indexOf(layer) * band + 0.4}
            height={band - 0.8}
            className={layer === 'takeover' ? 'fill-brick' : 'fill-dusk'}
            opacity={0.55}
          />
        ))}
    </svg>
  );
}
