import { HOUR } from '@/core/instant';
import { bookingSchema } from '@/core/plan';
import { addDays, formatDate, parseDate, startOfDate, type LocalDate, type LocalTime } from '@/core/when';
import type { Bar } from '../strata/layout';
import { carriedBy, drawnSpan, monthSpan, rareBookings } from './carried';

const date = (text: string) => parseDate(text) as LocalDate;

function bar(id: string, on: LocalDate, start = 22, end = 26): Bar {
  const booking = bookingSchema.parse({
    ...{ id, name: id, content: { media: 'm' }, where: 'all', created: '2026-01-01T00:00:00Z', when: {} },
  });
  const at = (hours: number) => (startOfDate(on) + hours * HOUR) as LocalTime;
  const localOccasion = { booking: id, date: on, set: 0, window: 0, start: at(start), end: at(end) };
  return { key: `${id} ${on} 0`, booking, localOccasion, layer: 3, lane: 0, next: null };
}

test.each([
  ['2026-11-25', '2026-10-26', '2026-12-06'],
  ['2026-12-01', '2026-11-30', '2027-01-03'],
  ['2027-02-10', '2027-02-01', '2027-02-28'],
])('the weeks of the month of %s run from %s to %s', (day, first, last) => {
  expect(monthSpan(date(day)).map(formatDate)).toEqual([first, last]);
});

test('carried to another day, its times of day stay, over midnight too', () => {
  const own = bar('a', date('2026-11-26'));
  const held = carriedBy(own, -2, true);
  expect(held).toMatchObject({ bar: own, layer: 3, copy: true });
  expect(held.start).toBe(startOfDate(date('2026-11-24')) + 22 * HOUR);
  expect(held.end).toBe(startOfDate(date('2026-11-25')) + 2 * HOUR);
});

test('days are drawn either way', () => {
  const [a, b] = [date('2026-11-24'), date('2026-11-27')];
  expect(drawnSpan({ anchor: a, to: b })).toEqual([a, b]);
  expect(drawnSpan({ anchor: b, to: a })).toEqual([a, b]);
  expect(drawnSpan({ anchor: a, to: a })).toEqual([a, a]);
});

test('special is what shows on a third of the days at most, however often a day', () => {
  const first = date('2026-11-02');
  const days = (id: string, count: number) => Array.from({ length: count }, (_, i) => bar(id, addDays(first, i)));
  const twice = [...days('weekly', 5), ...days('weekly', 5)];
  expect([...rareBookings([...twice, ...days('daily', 30), ...days('half', 11)], 30)]).toEqual(['weekly']);
});
