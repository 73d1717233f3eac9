import { parseDate, type LocalDate } from '../dates';
import type { When } from '../schema';
import { readWhen } from '.';

/**
 * Days, hours and dates in every order and with commas or without: each phrase is read as it is meant, or refused. None is taken for something else:
 * "weekends 10–16 from 1 to 20 December" was once read as the hours from 1 to midnight.
 */
const today = parseDate('2026-11-30') as LocalDate;

const DAYS: readonly (readonly [string, string | undefined])[] = [
  ['weekends', 'FREQ=WEEKLY;BYDAY=SA,SU'],
  ['Mon-Fri', 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR'],
  ['daily', undefined],
];
const HOURS = ['10–16', '10 to 16', 'from 10 to 16', '10am-4pm', 'between 10 and 16', '10.00-16.00', '1000-1600'];
const DATES = [
  ...['from 1 to 20 December', '1–20 Dec', 'between 1 and 20 December', 'December 1-20', 'Dec 1 to Dec 20'],
  ...[
    '1.12.-20.12.',
    '1/12-20/12',
    '2026-12-01 to 2026-12-20',
    '1st to 20th December 2026',
    'starting 1 Dec, ending 20 Dec',
  ],
];

const ORDERS: readonly ((day: string, hours: string, dates: string) => readonly string[])[] = [
  (day, hours, dates) => [day, hours, dates],
  (day, hours, dates) => [day, dates, hours],
  (day, hours, dates) => [hours, day, dates],
  (day, hours, dates) => [hours, dates, day],
  (day, hours, dates) => [dates, day, hours],
  (day, hours, dates) => [dates, hours, day],
];

test('in every order a phrase is read as it is meant, or refused', () => {
  const wrong: string[] = [];
  let understood = 0;
  let all = 0;
  for (const [day, repeat] of DAYS)
    for (const hours of HOURS)
      for (const dates of DATES)
        for (const order of ORDERS)
          for (const separator of [' ', ', ']) {
            const text = order(day, hours, dates).join(separator);
            const meant: When = {
              ...{ from: '2026-12-01', to: '2026-12-20' },
              ...(repeat === undefined ? {} : { repeat }),
              windows: [['10:00', '16:00']],
            };
            const read = readWhen(text, { today, time: 0, calendars: [] });
            all++;
            if (!read.ok) continue;
            if (JSON.stringify(read.value) === JSON.stringify(meant)) understood++;
            else wrong.push(`${text}: ${JSON.stringify(read.value)}`);
          }
  expect(wrong).toEqual([]);
  expect(understood / all).toBeGreaterThan(0.85);
});
