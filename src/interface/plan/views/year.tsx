'use client';

import { memo, useMemo, useRef } from 'react';
import type { Run, Season } from '@/core/booking';
import type { Booking, Site } from '@/core/plan';
import { MONTH_WORDS, addDays, dateOf, describeWhen, type LocalDate } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { ask, useAnswer } from '@/interface/forecast/client';
import { counted } from '@/interface/kit/words/format';
import { useWidth } from '@/interface/kit/page/use-width';
import { LAYERS, layerName, layerOf } from '../strata/layout';
import { dateWords } from '../site-clock-words';

const NAME_WIDTH = 208;
const NO_RUNS: readonly Run[] = [];
/** A year across: the runs of days on which each booking shows, for seasons. */
export const YearStrip = memo(function YearStrip({
  bookings,
  site,
  year,
  today,
  onDay,
  onOpen,
}: {
  bookings: readonly Booking[];
  site: Site;
  year: number;
  today: LocalDate;
  onDay: (date: LocalDate) => void;
  onOpen: (booking: string) => void;
}) {
  const { drafted } = useNetwork('drafted');
  const track = useRef<HTMLDivElement>(null);
  const width = useWidth(track, 1000);
  const [first, end] = [dateOf(year, 1, 1), dateOf(year + 1, 1, 1)];
  const seasons = useAnswer<readonly Season[]>(
    () => ask(drafted, { kind: 'seasons', site, first, last: addDays(end, -1) }),
    [drafted, site, first, end],
    [],
  );
  const rows = useMemo(() => {
    const runs = new Map(seasons.map((one) => [one.booking, one.runs]));
    return [...bookings]
      .sort((a, b) => LAYERS.indexOf(layerOf(a)) - LAYERS.indexOf(layerOf(b)) || a.name.localeCompare(b.name))
      .map((booking) => ({ booking, runs: runs.get(booking.id) ?? NO_RUNS }));
  }, [bookings, seasons]);
  const x = (date: number) => ((date - first) / (end - first)) * width;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto px-6 pb-6">
      <div className="sticky top-0 z-10 flex border-b border-rule bg-paper">
        <div style={{ width: NAME_WIDTH }} className="shrink-0" />
        <div ref={track} className="relative h-7 flex-1">
          {MONTH_WORDS.map((name, i) => (
            <button
              key={name}
              type="button"
              onClick={() => onDay(dateOf(year, i + 1, 1))}
              className="absolute top-0 h-7 border-l border-rule pl-1.5 text-sm hover:text-tide"
              style={{ left: x(dateOf(year, i + 1, 1)) }}
            >
              {name}
            </button>
          ))}
        </div>
      </div>
      <div className="relative">
        <div aria-hidden className="pointer-events-none absolute inset-y-0 right-0" style={{ left: NAME_WIDTH }}>
          {MONTH_WORDS.map((name, i) => (
            <span
              key={name}
              className="absolute inset-y-0 border-l border-rule/50"
              style={{ left: x(dateOf(year, i + 1, 1)) }}
            />
          ))}
          {today >= first && today < end && (
            <span className="absolute inset-y-0 z-10 w-0.5 bg-lamp" style={{ left: x(today) }} />
          )}
        </div>
        {rows.map(({ booking, runs }) => (
          <YearRow
            key={booking.id}
            booking={booking}
            runs={runs}
            first={first}
            perDay={width / (end - first)}
            onOpen={onOpen}
          />
        ))}
      </div>
      <p className="pt-3 text-sm text-faint">Full: every day. Hatched: some days of each week, as weekdays.</p>
    </div>
  );
});

const YearRow = memo(function YearRow({
  booking,
  runs,
  first,
  perDay,
  onOpen,
}: {
  booking: Booking;
  runs: readonly Run[];
  first: LocalDate;
  /** Pixels of a day. */
  perDay: number;
  onOpen: (booking: string) => void;
}) {
  return (
    <div
      className={`flex h-8 items-center border-b border-rule/60 [contain-intrinsic-size:auto_2rem] [content-visibility:auto] ${booking.onHold ? 'text-faint' : ''}`}
    >
      <button
        type="button"
        onClick={() => onOpen(booking.id)}
        title={`${describeWhen(booking.when)}, ${layerName(layerOf(booking))}`}
        className="shrink-0 truncate py-1 pr-3 text-left hover:text-tide"
        style={{ width: NAME_WIDTH }}
      >
        {booking.name}
        {booking.onHold && ' (on hold)'}
      </button>
      <div className="relative h-6 flex-1">
        {runs.map((run) => {
          const whole = run.days === run.to - run.from + 1;
          return (
            <span
              key={run.from}
              title={`${dateWords(run.from)} to ${dateWords(run.to)}: ${counted(run.days, 'day')}`}
              className={`absolute inset-y-1 border border-dusk ${whole ? 'bg-dusk/30' : 'hatch bg-dusk/10 text-dusk'} ${booking.onHold ? 'opacity-40' : ''}`}
              style={{
                left: (run.from - first) * perDay,
                width: Math.max(3, (run.to + 1 - run.from) * perDay),
              }}
            />
          );
        })}
      </div>
    </div>
  );
});
