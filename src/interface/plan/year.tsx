'use client';

import { useMemo, useRef } from 'react';
import { MONTH_WORDS, dateOf, describeWhen, sightings, type Booking, type LocalDate, type Site } from '@/core';
import { useNetwork } from '@/interface/data/provider';
import { counted } from '@/interface/kit/format';
import { useWidth } from '@/interface/kit/use-width';
import { LAYERS, layerName, layerOf } from './strata/layout';
import { dateWords } from './wall-words';

const NAME_WIDTH = 208;
/** Dates that are no further apart stand in one run: weekdays are a season, not fifty stripes. */
const JOINED_DAYS = 7;

interface Run {
  readonly from: LocalDate;
  readonly to: LocalDate;
  readonly days: number;
}

/** A year across: the runs of days on which each booking shows, for seasons. */
export function YearStrip({
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
  const { draft } = useNetwork();
  const track = useRef<HTMLDivElement>(null);
  const width = useWidth(track, 1000);
  const [first, end] = [dateOf(year, 1, 1), dateOf(year + 1, 1, 1)];
  const rows = useMemo(
    () =>
      [...bookings]
        .sort((a, b) => LAYERS.indexOf(layerOf(a)) - LAYERS.indexOf(layerOf(b)) || a.name.localeCompare(b.name))
        .map((booking) => ({
          booking,
          runs: runsOf(
            sightings(draft, [booking], site, first, (end - 1) as LocalDate).map((one) => one.date),
            first,
            end,
          ),
        })),
    [bookings, draft, site, first, end],
  );
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
      {rows.map(({ booking, runs }) => (
        <div
          key={booking.id}
          className={`flex items-center border-b border-rule/60 ${booking.onHold ? 'text-faint' : ''}`}
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
            {MONTH_WORDS.map((name, i) => (
              <span
                key={name}
                className="absolute inset-y-0 border-l border-rule/50"
                style={{ left: x(dateOf(year, i + 1, 1)) }}
              />
            ))}
            {runs.map((run) => {
              const whole = run.days === run.to - run.from + 1;
              return (
                <span
                  key={run.from}
                  title={`${dateWords(run.from)} to ${dateWords(run.to)}: ${counted(run.days, 'day')}`}
                  className={`absolute inset-y-1 border border-dusk ${whole ? 'bg-dusk/30' : 'hatch bg-dusk/10 text-dusk'} ${booking.onHold ? 'opacity-40' : ''}`}
                  style={{ left: x(run.from), width: Math.max(3, x(run.to + 1) - x(run.from)) }}
                />
              );
            })}
            {today >= first && today < end && (
              <span className="absolute inset-y-0 z-10 w-0.5 bg-lamp" style={{ left: x(today) }} />
            )}
          </div>
        </div>
      ))}
      <p className="pt-3 text-sm text-faint">Full: every day. Hatched: some days of each week, as weekdays.</p>
    </div>
  );
}

function runsOf(dates: readonly LocalDate[], first: LocalDate, end: LocalDate): Run[] {
  const runs: Run[] = [];
  const within = [...new Set(dates)].filter((date) => date >= first && date < end).sort((a, b) => a - b);
  for (const date of within) {
    const last = runs.at(-1);
    if (last && date - last.to <= JOINED_DAYS) runs[runs.length - 1] = { ...last, to: date, days: last.days + 1 };
    else runs.push({ from: date, to: date, days: 1 });
  }
  return runs;
}
