'use client';

import { memo, useCallback, useMemo, useState } from 'react';
import type { LocalOccasion } from '@/core/booking';
import { withPatches, type Booking, type Site } from '@/core/plan';
import type { Finding, Fix } from '@/core/preflight';
import { addDays, civil, dateOfLocalTime, startOfDate, toLocalTime, zoneTable, type LocalDate } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { Foot } from '../strata/foot';
import { layerOf, sightingKey, type Bar } from '../strata/layout';
import { useGesture } from '../gestures/use-gesture';
import { useSightings } from '../use-ahead';
import { dateWords } from '../site-clock-words';
import { Day } from './day';
import { drawnSpan, monthSpan, rareBookings } from '../gestures/carried';
import { useCarry } from '../gestures/use-carry';

const dates = (first: LocalDate, last: LocalDate) =>
  Array.from({ length: last - first + 1 }, (_, i) => addDays(first, i));

/** Weeks under each other: what is special to a day can be carried to another, and days be drawn for a new booking. */
export const MonthView = memo(function MonthView({
  bookings,
  site,
  date,
  today,
  findings,
  onDay,
  onOpen,
  onDrawn,
}: {
  bookings: readonly Booking[];
  site: Site;
  date: LocalDate;
  today: LocalDate;
  findings: readonly Finding[];
  onDay: (date: LocalDate) => void;
  onOpen: (booking: string) => void;
  onDrawn: (from: LocalDate, to: LocalDate) => void;
}) {
  const { draft } = useNetwork('draft');
  const [pickedKey, pick] = useState<string | null>(null);
  const [first, last] = monthSpan(date);
  const gesture = useGesture(draft, site, NOTHING_DRAWN);
  const { preview, held, choice } = gesture;
  const seen = useSightings(site, first, last, preview);
  const known = useMemo(() => new Set(draft.bookings.map(({ id }) => id)), [draft]);
  const bars = useMemo(() => {
    const plan = preview ? withPatches(draft, preview) : draft;
    const wanted = new Set(bookings.map(({ id }) => id));
    const shown = plan.bookings.filter(({ id }) => wanted.has(id) || !known.has(id));
    return barsOf(shown, seen ?? []);
  }, [draft, known, preview, bookings, seen]);
  const barsOn = useMemo(() => byDay(bars, first, last), [bars, first, last]);
  const carry = useCarry(gesture, [first, last], (key) => bars.find((bar) => bar.key === key), onDrawn);
  const days = dates(first, last);
  const zone = zoneTable(site.timeZone);
  const troubled = new Map<number, number>();
  for (const { times } of findings) {
    const dateAt = (at: number) => dateOfLocalTime(toLocalTime(zone, at));
    for (const day of new Set(times.flatMap(([from, to]) => dates(dateAt(from), dateAt(to - 1)))))
      troubled.set(day, (troubled.get(day) ?? 0) + 1);
  }
  const hand = held ?? choice?.held;
  const inHand = hand?.bar?.booking.id;
  const special = useMemo(
    () => new Set([...rareBookings(bars, last - first + 1), ...(inHand === undefined ? [] : [inHand])]),
    [bars, first, last, inHand],
  );
  const handDay = hand?.bar ? dateOfLocalTime(hand.start) : null;
  /** A booking that is being moved has a name of its own at its target: it is created by the change that is previewed. */
  const carried = useMemo(() => {
    const there = handDay === null ? [] : (barsOn.get(handDay) ?? []);
    return (there.find(({ booking }) => !known.has(booking.id)) ?? there.find(({ booking }) => booking.id === inHand))
      ?.key;
  }, [known, barsOn, handDay, inHand]);
  const [drawnFrom, drawnTo] = carry.drawn ? drawnSpan(carry.drawn) : [Infinity, -Infinity];
  const picked = bars.find((bar) => bar.key === pickedKey) ?? null;
  const aboutPicked = picked ? findings.filter(({ about }) => about.includes(picked.booking.id)) : [];
  const { wasPulled } = carry;
  const openDay = useCallback((day: LocalDate) => void (wasPulled() || onDay(day)), [wasPulled, onDay]);
  const open = useCallback((booking: string) => void (wasPulled() || onOpen(booking)), [wasPulled, onOpen]);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex min-h-0 flex-1 flex-col overflow-y-auto px-6 pb-3">
        <div aria-hidden className="sticky top-0 z-10 grid grid-cols-7 bg-paper py-1 text-sm text-faint">
          {Array.from({ length: 7 }, (_, i) => (
            <span key={i} className="pl-1.5">
              {dateWords(addDays(first, i)).slice(0, 3)}
            </span>
          ))}
        </div>
        <div
          ref={carry.grid}
          role="group"
          aria-label="Days of the month"
          className="grid flex-1 auto-rows-[minmax(min-content,1fr)] grid-cols-7 border-l border-t border-rule select-none"
          {...carry.on}
        >
          {days.map((day) => (
            <Day
              key={day}
              day={day}
              bars={barsOn.get(day) ?? NO_BARS}
              special={special}
              inMonth={civil(day).month === civil(date).month}
              isToday={day === today}
              picked={day === date}
              drawn={day >= drawnFrom && day <= drawnTo}
              trouble={troubled.get(day) ?? 0}
              carried={day === handDay ? (carried ?? null) : null}
              lines={days.length > MANY_DAYS ? 1 : 2}
              onOpenDay={openDay}
              onOpen={open}
              onPick={pick}
            />
          ))}
        </div>
      </div>
      <Foot
        gesture={gesture}
        picked={picked}
        findings={aboutPicked}
        asked={null}
        onOpen={onOpen}
        onFix={(one: Fix) => void gesture.make(one.edits, `${one.label}: done. Ctrl Z undoes it.`)}
        hint={
          carry.drawn
            ? `A new booking: ${[...new Set(drawnSpan(carry.drawn))].map(dateWords).join(' – ')}. Arrows extend it, Enter creates it, Esc cancels.`
            : HINT
        }
        heldKeys={HELD_KEYS}
      />
    </div>
  );
});

const HINT =
  'Drag a name to another day; with Alt it copies. Drag across days to book them. With keys: arrows move, Space picks up a name or starts a range, Enter opens.';

const HELD_KEYS = [
  ['← →', 'day'],
  ['↑ ↓', 'week'],
  ['c', 'copy'],
  ['Enter', 'down'],
  ['Esc', 'back'],
] as const;

/** A month of six weeks has less room for each. */
const MANY_DAYS = 35;

const NOTHING_DRAWN = () => undefined;

const NO_BARS: readonly Bar[] = [];

/** The bars that touch each day. */
function byDay(bars: readonly Bar[], first: LocalDate, last: LocalDate): Map<LocalDate, Bar[]> {
  const map = new Map<LocalDate, Bar[]>();
  for (const bar of bars) {
    const { start, end } = bar.localOccasion;
    for (let day = dateOfLocalTime(start); day <= last && startOfDate(day) < end; day = addDays(day, 1)) {
      const list = map.get(day);
      if (list) list.push(bar);
      else if (day >= first) map.set(day, [bar]);
    }
  }
  return map;
}

function barsOf(bookings: readonly Booking[], seen: readonly LocalOccasion[]): Bar[] {
  const byId = new Map(bookings.map((one) => [one.id, one]));
  return seen.flatMap((localOccasion) => {
    const booking = byId.get(localOccasion.booking);
    return booking
      ? [{ key: sightingKey(localOccasion), localOccasion, booking, layer: layerOf(booking), lane: 0, next: null }]
      : [];
  });
}
