import { orThrow } from '@/core/refusal';
import { dateOf } from '@/core/when';
import { datesText, inRuns, readDates as readIn } from './date-list';

const readDates = (text: string) =>
  readIn(text, { today: dateOf(2026, 11, 26), time: 0, calendars: [], zones: ['Europe/Oslo'] });

test('dates are written a line each, runs by their first and last, and read back', () => {
  const dates = ['2026-12-05', ['2026-12-24', '2026-12-26']] as ['2026-12-05', [string, string]];
  expect(datesText(dates)).toBe('2026-12-05\n2026-12-24 to 2026-12-26');
  expect(orThrow(readDates(datesText(dates)))).toEqual(dates);
  expect(orThrow(readDates(' 2026-12-05, 2026-12-24 to 2026-12-26 ;\n\n'))).toEqual(dates);
  expect(orThrow(readDates(''))).toEqual([]);
});

test.each([
  ['soon', '“soon” isn’t a date.'],
  ['2026-02-30', '“2026-02-30” isn’t a date.'],
  ['2026-12-26 to 2026-12-24', 'the last date comes before the first'],
  ['2026-12-24 to', '“2026-12-24 to” isn’t a date.'],
])('"%s" is told', (text, error) => {
  expect(readDates(text)).toMatchObject({ ok: false, message: expect.stringContaining(error) as string });
});

test.each<[string, unknown]>([
  ['24 Dec', ['2026-12-24']],
  ['24-26 Dec', [['2026-12-24', '2026-12-26']]],
  ['24 Dec to 26 Dec\n1 Jan', [['2026-12-24', '2026-12-26'], '2027-01-01']],
  ['Christmas Day; 31.12.', ['2026-12-25', '2026-12-31']],
])('"%s" is said in words', (text, dates) => {
  expect(orThrow(readDates(text))).toEqual(dates);
});

test.each(['24 Dec 10-12', 'Mondays', 'from 24 Dec'])('"%s" “2026-12-24 to” isn’t a date. alone', (text) => {
  expect(readDates(text).ok).toBe(false);
});

test('days that follow on each other are one run', () => {
  expect(inRuns(['2026-12-26', '2026-12-24', '2026-12-25', '2026-12-25', '2027-01-01'])).toEqual([
    ['2026-12-24', '2026-12-26'],
    '2027-01-01',
  ]);
});
