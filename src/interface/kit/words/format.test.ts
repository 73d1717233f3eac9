import { clockTime, counted, dateTime, duration, megabytes, spell, timeNear, timeOnClocks, zoneName } from './format';

const at = Date.UTC(2026, 10, 25, 5, 30);

beforeEach(() => jest.useFakeTimers({ now: at }));
afterEach(() => jest.useRealTimers());

test('times stand on the zone that is asked for, with seconds only where there are any', () => {
  expect([clockTime(at, 'Europe/Oslo'), clockTime(at + 7000, 'Europe/Oslo'), clockTime(at, 'Asia/Kathmandu')]).toEqual([
    '06:30',
    '06:30:07',
    '11:15',
  ]);
  expect([timeNear(at, at, 'UTC'), timeNear(at + 86_400_000, at, 'UTC')]).toEqual(['05:30', 'Thu 26 Nov 05:30']);
  expect(zoneName('America/Argentina/Buenos_Aires')).toBe('Buenos Aires');
});

test.each([
  [36_400, '36 s'],
  [12 * 60_000, '12 min'],
  [3_600_000, '1 h'],
  [3 * 3_600_000 + 12 * 60_000, '3 h 12 min'],
  [86_400_000 - 1, '1 d'],
  [52 * 3_600_000, '2 d 4 h'],
])('%d ms is %s', (ms, words) => {
  expect(spell(ms)).toBe(words);
});

test('a day of another year has its year, on the clock that is asked for', () => {
  const newYear = Date.UTC(2026, 11, 31, 23, 30);
  expect([dateTime(newYear, 'UTC'), dateTime(newYear, 'Europe/Oslo')]).toEqual([
    'Thu 31 Dec, 23:30',
    'Fri 1 Jan 2027, 00:30',
  ]);
  expect(dateTime(Date.UTC(2025, 10, 25), 'UTC')).toBe('Tue 25 Nov 2025, 00:00');
});

test('each clock says whose it is where two differ', () => {
  const on = (own: string, ...others: string[]) => timeOnClocks(at, at, own, others);
  expect(on('Europe/Oslo', 'Europe/Oslo', 'Europe/Stockholm')).toBe('06:30');
  expect(on('UTC', 'Europe/Oslo')).toBe('05:30 your time, 06:30 in Oslo');
  expect(on('UTC', 'Europe/Oslo', 'Europe/Stockholm', 'Europe/Helsinki')).toBe(
    '05:30 your time, 06:30 in Oslo and Stockholm, 07:30 in Helsinki',
  );
  expect(timeOnClocks(at, at, 'UTC', ['Pacific/Auckland'])).toBe('05:30 your time, 18:30 in Auckland');
  const evening = Date.UTC(2026, 10, 25, 21, 0);
  expect(timeOnClocks(evening, at, 'UTC', ['Asia/Tokyo'])).toBe('21:00 your time, Thu 26 Nov 06:00 in Tokyo');
});

test('durations, sizes and counts read as people write them', () => {
  expect([0, 9500, 61_000, 3_661_000].map(duration)).toEqual(['0:00', '0:09.5', '1:01', '1:01:01']);
  expect([300, 812_345, 5_250_000, 23_456_789].map(megabytes)).toEqual(['1 kB', '812 kB', '5.3 MB', '23 MB']);
  expect([counted(1, 'screen'), counted(1200, 'screen')]).toEqual(['1 screen', '1,200 screens']);
});
