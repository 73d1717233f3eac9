import fc from 'fast-check';
import { DateTime } from 'luxon';
import { runs } from '../tests/runs';
import {
  addDays,
  calendarDates,
  civil,
  dateOf,
  dateOfLocalTime,
  daysInMonth,
  daysInYear,
  formatDate,
  formatLocalTime,
  parseDate,
  startOfDate,
  weekOfYear,
  weekdayIndex,
  type LocalDate,
  type LocalTime,
} from './dates';

/** Any date of some thousand years around ours. */
const date = fc.integer({ min: -200_000, max: 400_000 }) as fc.Arbitrary<LocalDate>;
const theirs = (one: LocalDate) => DateTime.fromMillis(one * 86_400_000, { zone: 'utc' });

test('dates, weekdays, months and ISO weeks are those of luxon', () => {
  fc.assert(
    fc.property(date, (one) => {
      const there = theirs(one);
      expect(civil(one)).toEqual({ year: there.year, month: there.month, day: there.day });
      expect(dateOf(there.year, there.month, there.day)).toBe(one);
      expect(weekdayIndex(one)).toBe(there.weekday - 1);
      expect(daysInMonth(there.year, there.month)).toBe(there.daysInMonth);
      expect(daysInYear(there.year)).toBe(there.daysInYear);
      expect(weekOfYear(one, 0)).toEqual({ week: there.weekNumber, weeks: there.weeksInWeekYear });
      expect(formatDate(one)).toBe(there.toISODate());
    }),
    runs(500),
  );
});

test('a date is written in full, and exists', () => {
  expect(parseDate('2026-11-26')).toBe(dateOf(2026, 11, 26));
  expect(parseDate('2024-02-29')).toBe(dateOf(2024, 2, 29));
  for (const wrong of [
    ...['2026-00-10', '2026-13-10', '2026-11-00', '2026-11-31', '2026-02-29', '2026-1-1', 'x2026-11-26', '2026-11-26x'],
    ...['', '26-11-2026', '2026-11-26T00:00', ' 2026-11-26'],
  ])
    expect([wrong, parseDate(wrong)]).toEqual([wrong, null]);
});

test('weeks that begin on another day: week 1 has four days of its year', () => {
  // 1 January 2023 was a Sunday: with weeks from Sunday on it begins week 1, with weeks from Monday on it ends week 52.
  expect(weekOfYear(dateOf(2023, 1, 1), 6)).toEqual({ week: 1, weeks: 52 });
  expect(weekOfYear(dateOf(2023, 1, 1), 0)).toEqual({ week: 52, weeks: 52 });
  expect(weekOfYear(dateOf(2020, 12, 31), 0)).toEqual({ week: 53, weeks: 53 });
});

test('walls: midnight, the date of a time, and the clock as it is written', () => {
  const day = dateOf(2026, 11, 26);
  expect(dateOfLocalTime(startOfDate(day))).toBe(day);
  expect(dateOfLocalTime((startOfDate(day) - 1) as LocalTime)).toBe(addDays(day, -1));
  expect(formatLocalTime((startOfDate(day) + 6 * 3_600_000) as LocalTime)).toBe('06:00');
  expect(formatLocalTime((startOfDate(day) + 1000) as LocalTime)).toBe('00:00:01');
});

test('a calendar: single dates, and spans with both their ends', () => {
  const days = [...calendarDates(['2026-12-31', ['2027-01-02', '2027-01-04']])].map(formatDate);
  expect(days).toEqual(['2026-12-31', '2027-01-02', '2027-01-03', '2027-01-04']);
});
