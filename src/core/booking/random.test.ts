import fc from 'fast-check';
import { DAY, MINUTE, type Instant } from '../instant';
import { placeOf, screenProgram } from '../forecast';
import { orThrow } from '../refusal';
import { readPlan, withPatches, type Booking, type Plan, type Patch, type Site } from '../plan';
import { randomPlan, type RandomPlan } from '../tests/random-plan';
import {
  MOST_DAYS,
  addDays,
  calendarDates,
  clocksOf,
  dateOfLocalTime,
  datesOf,
  occurrences,
  setsOf,
  startOfDate,
  toInstant,
  zoneTable,
  type LocalDate,
  type LocalTime,
} from '../when';
import { carried, copyDays, copyOccasion, reschedule, scopesOf, localOccasions, type LocalOccasion } from '.';
import { runs } from '../tests/runs';

/** What can be done with a booking's time by hand, on random plans: what one does is what becomes of it, and nothing else. */

const CREATED = '2026-12-31T00:00:00Z';

/** The site of screen `one`, with the dates that a range touches there. */
function wallOf({ plan, from, to }: RandomPlan): { site: Site; first: LocalDate; last: LocalDate } {
  const [site] = plan.sites as [Site, ...Site[]];
  return {
    site,
    first: dateOfLocalTime((from - DAY) as LocalTime),
    last: dateOfLocalTime((to + DAY) as LocalTime),
  };
}

/** A random plan with one occasion of one of its bookings that stands within the range. */
const occasion = randomPlan
  .chain((random) => {
    const { site, first, last } = wallOf(random);
    const all = localOccasions(random.plan, random.plan.bookings, site, first, last).filter(
      ({ date, start, end }) => date >= first && date <= last && end - start <= DAY && start >= startOfDate(first),
    );
    return fc.tuple(fc.constant(random), all.length === 0 ? fc.constant(null) : fc.constantFrom(...all));
  })
  .filter((pair): pair is [RandomPlan, LocalOccasion] => pair[1] !== null)
  .map(([random, localOccasion]) => ({
    random,
    localOccasion,
    booking: random.plan.bookings.find(({ id }) => id === localOccasion.booking) as Booking,
  }));

const made = (plan: Plan, edits: readonly Patch[]): Plan => {
  const read = readPlan(withPatches(plan, edits));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
};

/** Where a wall sees bookings, as text without their names. */
const seenOn = (plan: Plan, bookings: readonly Booking[], random: RandomPlan) => {
  const { site, first, last } = wallOf(random);
  return localOccasions(plan, bookings, site, first, last).map(({ start, end }) => `${start} ${end}`);
};

test('bars stand where the forecast has the occurrences, away from changes of clocks', () => {
  fc.assert(
    fc.property(randomPlan, (random) => {
      const { plan, from, to } = random;
      const { site, first, last } = wallOf(random);
      const zone = zoneTable(site.timeZone);
      const place = { ...placeOf(screenProgram(plan, 'one')), hours: site.hours };
      const inRange = ([a, b]: readonly [Instant, Instant]) => a < to && b > from;
      for (const booking of plan.bookings) {
        const clocks = [site.timeZone, ...clocksOf(booking.when)].map(zoneTable);
        const calm = ([a, b]: readonly [Instant, Instant]) =>
          !clocks.some(({ changes }) => changes.some((at) => at > a - DAY && at < b + DAY));
        // Windows of one start are one occurrence to the latest end; each has a bar of its own.
        const latest = new Map<number, number>();
        for (const { start, end } of localOccasions(plan, [booking], site, first, last)) {
          const [begins, ends] = [toInstant(zone, start), toInstant(zone, end)];
          latest.set(begins, Math.max(ends, latest.get(begins) ?? ends));
        }
        const bars = [...latest].filter((span) => inRange(span) && calm(span)).sort((x, y) => x[0] - y[0]);
        const real = occurrences(booking.when, place, from, to).map((one) => [one.from, one.to] as const);
        expect(bars).toEqual(real.filter(calm));
      }
    }),
    runs(60),
  );
});

test('a day alone is changed: its occasion stands where it was put, and every other day as before', () => {
  fc.assert(
    fc.property(occasion, fc.integer({ min: -600, max: 600 }), ({ random, localOccasion, booking }, minutes) => {
      const { plan } = random;
      // Where a booking has but one day, that day is all of it; a pinned clock reads another day elsewhere.
      fc.pre(clocksOf(booking.when).length === 0 && scopesOf(plan, booking, localOccasion).length > 1);
      const { site, first, last } = wallOf(random);
      const by = minutes * MINUTE;
      const [start, end] = [localOccasion.start + by, localOccasion.end + by] as [LocalTime, LocalTime];
      const change = carried(booking, localOccasion, start, end, site);
      const after = made(plan, orThrow(reschedule(plan, booking, localOccasion, change, 'this day', CREATED)));
      const mine = after.bookings.filter(({ id }) => id === booking.id || !plan.bookings.some((one) => one.id === id));
      const seen = localOccasions(after, mine, site, addDays(first, -2), addDays(last, 2));
      expect(seen).toContainEqual(expect.objectContaining({ start, end: Math.min(end, start + MOST_DAYS * DAY) }));
      const others = (list: readonly LocalOccasion[]) =>
        list
          .filter(({ date }) => date !== localOccasion.date && date !== (change.date ?? localOccasion.date))
          .map((one) => `${one.start} ${one.end}`)
          .sort();
      const before = localOccasions(plan, [booking], site, addDays(first, -2), addDays(last, 2));
      expect(others(seen)).toEqual(others(before));
      expect(after.bookings.filter((one) => !mine.includes(one))).toEqual(
        plan.bookings.filter(({ id }) => id !== booking.id),
      );
    }),
    runs(60),
  );
});

test('a copy leaves all that was, and adds one occasion', () => {
  fc.assert(
    fc.property(occasion, fc.integer({ min: -2, max: 2 }), ({ random, localOccasion, booking }, days) => {
      const { plan } = random;
      const { site } = wallOf(random);
      const shift = days * DAY;
      const change = carried(
        booking,
        localOccasion,
        (localOccasion.start + shift) as LocalTime,
        (localOccasion.end + shift) as LocalTime,
        site,
      );
      const after = made(plan, [copyOccasion(plan, booking, localOccasion, change, CREATED)]);
      expect(after.bookings.slice(0, plan.bookings.length)).toEqual(plan.bookings);
      const copy = after.bookings.slice(plan.bookings.length);
      expect(
        copy.map(({ when }) => setsOf(when).every(({ from, to, repeat }) => from === to && repeat === undefined)),
      ).toEqual([true]);
      expect(seenOn(after, copy, random).length).toBeLessThanOrEqual(1);
    }),
    runs(60),
  );
});

test('days copied on to others, in place of what is there: the same is booked on both', () => {
  fc.assert(
    fc.property(randomPlan, fc.integer({ min: 1, max: 9 }), (random, ahead) => {
      const { plan } = random;
      const { first } = wallOf(random);
      const target = addDays(first, ahead);
      const after = made(plan, copyDays(plan, first, 1, [target], { replace: true, created: CREATED }));
      const on = (of: Plan, day: LocalDate) => {
        const calendar = (id: string) => calendarDates(of.calendars.find((one) => one.id === id)?.dates ?? []);
        return of.bookings
          .filter(({ onHold }) => !onHold)
          .flatMap(({ content, where, priority, takeover, when }) =>
            setsOf(when)
              .filter((set) => datesOf(set, { calendar }, day, day).length > 0)
              .map(({ windows, clock }) => JSON.stringify({ content, where, priority, takeover, windows, clock })),
          )
          .sort();
      };
      expect(on(after, target)).toEqual(on(plan, first));
      expect(on(after, first)).toEqual(on(plan, first));
    }),
    runs(60),
  );
});
