'use client';

import { useMemo, useRef, type KeyboardEvent } from 'react';
import {
  MONTH_WORDS,
  addDays,
  civil,
  dateOf,
  dateOfLocalTime,
  sightings,
  startOfDate,
  toLocalTime,
  weekdayIndex,
  zoneTable,
  type Booking,
  type Finding,
  type LocalDate,
  type Sighting,
  type Site,
} from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { counted } from '@/interface/kit/format';
import { LAYERS, layerOf } from './strata/layout';
import { dateWords } from './wall-words';

const HEIGHT = 64;
const DAY_MS = 86_400_000;
const NAMES_SHOWN = 3;

/** The first and last date of the weeks that hold a date's month. */
export function monthSpan(date: LocalDate): readonly [LocalDate, LocalDate] {
  const { year, month } = civil(date);
  const first = dateOf(year, month, 1);
  const end = addDays(dateOf(year + (month === 12 ? 1 : 0), (month % 12) + 1, 1), -1);
  return [addDays(first, -weekdayIndex(first)), addDays(end, 6 - weekdayIndex(end))];
}

/** Weeks under each other: a day is a small picture of its layers, with what is special to it by name. */
export function MonthView({
  bookings,
  site,
  date,
  findings,
  onDay,
}: {
  bookings: readonly Booking[];
  site: Site;
  date: LocalDate;
  findings: readonly Finding[];
  onDay: (date: LocalDate) => void;
}) {
  const { draft } = useNetwork();
  const { now } = useMoment();
  const grid = useRef<HTMLDivElement>(null);
  const [first, last] = monthSpan(date);
  const zone = zoneTable(site.timeZone);
  const seen = useMemo(() => sightings(draft, bookings, site, first, last), [draft, bookings, site, first, last]);
  const byId = useMemo(() => new Map(bookings.map((one) => [one.id, one])), [bookings]);
  const days = Array.from({ length: last - first + 1 }, (_, i) => addDays(first, i));
  const rare = useMemo(() => rareBookings(seen, days.length), [seen, days.length]);
  const troubled = new Map<number, number>();
  for (const { span, kind } of findings)
    if (span && kind !== 'change of clocks') {
      const day = dateOfLocalTime(toLocalTime(zone, span[0]));
      troubled.set(day, (troubled.get(day) ?? 0) + 1);
    }
  const today = dateOfLocalTime(toLocalTime(zone, now));
  const onKey = (day: LocalDate) => (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    grid.current?.querySelector<HTMLElement>(`[data-day="${day + by}"]`)?.focus();
  };
  return (
    <div className="min-h-0 flex-1 overflow-y-auto px-6 pb-6">
      <div aria-hidden className="sticky top-0 z-10 grid grid-cols-7 bg-paper py-1 text-sm text-faint">
        {Array.from({ length: 7 }, (_, i) => (
          <span key={i} className="pl-1.5">
            {dateWords(addDays(first, i)).slice(0, 3)}
          </span>
        ))}
      </div>
      <div ref={grid} className="grid grid-cols-7 border-l border-t border-rule">
        {days.map((day) => {
          const here = seen.filter(({ start, end }) => start < startOfDate(addDays(day, 1)) && end > startOfDate(day));
          const special = [...new Set(here.filter((one) => rare.has(one.booking)).map((one) => one.booking))];
          const { month, day: number } = civil(day);
          const trouble = troubled.get(day) ?? 0;
          return (
            <button
              key={day}
              type="button"
              data-day={day}
              tabIndex={day === date ? 0 : -1}
              onKeyDown={onKey(day)}
              onClick={() => onDay(day)}
              aria-label={`${dateWords(day)}: ${counted(new Set(here.map((one) => one.booking)).size, 'booking')}${trouble ? `, ${counted(trouble, 'finding')}` : ''}`}
              aria-current={day === today ? 'date' : undefined}
              className={`flex min-h-32 flex-col items-stretch gap-1 border-r border-b border-rule p-1.5 text-left hover:bg-well ${month === civil(date).month ? '' : 'bg-well/50 text-faint'} ${day === date ? 'outline-2 -outline-offset-2 outline-dusk' : ''}`}
            >
              <span className="flex items-baseline gap-1.5 text-sm">
                <span className={day === today ? 'border-b-2 border-lamp font-semibold' : ''}>
                  {number === 1 ? `1 ${MONTH_WORDS[month - 1] ?? ''}` : number}
                </span>
                {trouble > 0 && (
                  <span className="ml-auto bg-brick px-1 font-code text-[10px] text-paper" aria-hidden>
                    {trouble}
                  </span>
                )}
              </span>
              <DayPicture day={day} here={here} byId={byId} />
              {special.slice(0, NAMES_SHOWN).map((id) => (
                <span key={id} className="truncate text-xs leading-4">
                  {byId.get(id)?.name}
                </span>
              ))}
              {special.length > NAMES_SHOWN && (
                <span className="text-xs text-faint">and {special.length - NAMES_SHOWN} more</span>
              )}
            </button>
          );
        })}
      </div>
    </div>
  );
}

/** A day's layers over its 24 hours, the highest on top. */
function DayPicture({
  day,
  here,
  byId,
}: {
  day: LocalDate;
  here: readonly Sighting[];
  byId: ReadonlyMap<string, Booking>;
}) {
  const band = HEIGHT / LAYERS.length / 2;
  const x = (time: number) => Math.min(100, Math.max(0, ((time - startOfDate(day)) / DAY_MS) * 100));
  return (
    <svg viewBox={`0 0 100 ${HEIGHT / 2}`} preserveAspectRatio="none" className="h-9 w-full bg-well/60" aria-hidden>
      {here.map(({ booking: id, start, end, window, date }) => {
        const booking = byId.get(id);
        if (!booking || booking.onHold) return null;
        const layer = layerOf(booking);
        return (
          <rect
            key={`${id} ${date} ${window}`}
            x={x(start)}
            width={Math.max(0.8, x(end) - x(start))}
            y={LAYERS.indexOf(layer) * band + 0.4}
            height={band - 0.8}
            className={layer === 'takeover' ? 'fill-brick' : 'fill-dusk'}
            opacity={0.55}
          />
        );
      })}
    </svg>
  );
}

/** Bookings that do not show on most days: those that make a day special. */
function rareBookings(seen: readonly Sighting[], days: number): Set<string> {
  const dates = new Map<string, Set<number>>();
  for (const { booking, date } of seen) {
    const set = dates.get(booking) ?? new Set();
    dates.set(booking, set.add(date));
  }
  return new Set([...dates].filter(([, set]) => set.size <= days / 3).map(([id]) => id));
}
