import fc from 'fast-check';
import { addDays, dateOfLocalTime, parseDate, toLocalTime, zoneTable, type LocalDate } from '../when';
import { randomPlan } from '../tests/random-plan';
import { bookingSchema, type Plan } from '../plan';
import { seasons, localOccasions } from '.';
import { runs } from '../tests/runs';

const date = (text: string) => parseDate(text) as LocalDate;
const site = { timeZone: 'Europe/Oslo' };
const empty = { calendars: [] } as unknown as Plan;
const on = (when: object) =>
  bookingSchema.parse({
    id: 'b',
    name: 'B',
    content: { media: 'm' },
    where: 'all',
    created: '2026-01-01T00:00:00Z',
    when,
  });
const spring = (when: object) => seasons(empty, [on(when)], site, date('2027-01-01'), date('2027-06-30'))[0]?.runs;

test('weekdays are one season, and what pauses for more than a week is two', () => {
  const weekdays = { repeat: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', from: '2027-03-01', to: '2027-03-31' };
  expect(spring(weekdays)).toEqual([{ from: date('2027-03-01'), to: date('2027-03-31'), days: 23 }]);
  expect(spring({ repeat: 'FREQ=MONTHLY;BYMONTHDAY=1,8,20', from: '2027-05-01', to: '2027-05-31' })).toEqual([
    { from: date('2027-05-01'), to: date('2027-05-08'), days: 2 },
    { from: date('2027-05-20'), to: date('2027-05-20'), days: 1 },
  ]);
  expect(spring({ from: '2027-12-01' })).toEqual([]);
});

test('seasons hold the dates of all occasions, no others, and lie more than a week apart', () => {
  fc.assert(
    fc.property(randomPlan, ({ plan, from }) => {
      const [place] = plan.sites;
      if (!place) return;
      const first = dateOfLocalTime(toLocalTime(zoneTable(place.timeZone), from));
      const last = addDays(first, 60);
      for (const { booking, runs: found } of seasons(plan, plan.bookings, place, first, last)) {
        const own = plan.bookings.filter((one) => one.id === booking);
        const dates = new Set(localOccasions(plan, own, place, first, last).map((one) => one.date));
        const within = [...dates].filter((one) => one >= first && one <= last);
        const inRun = (one: number) => found.filter((run) => one >= run.from && one <= run.to).length;
        expect(within.every((one) => inRun(one) === 1)).toBe(true);
        expect(found.reduce((sum, run) => sum + run.days, 0)).toBe(within.length);
        expect(found.every((run) => dates.has(run.from) && dates.has(run.to))).toBe(true);
        expect(found.every((run, i) => i === 0 || run.from - (found[i - 1]?.to ?? 0) > 7)).toBe(true);
      }
    }),
    runs(100),
  );
});
