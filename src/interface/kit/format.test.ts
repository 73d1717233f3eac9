import { clockTime, counted, duration, megabytes, timeNear, zoneName } from './format';

const at = Date.UTC(2026, 10, 25, 5, 30);

test('times stand on the zone that is asked for, with seconds only where there are any', () => {
  expect([clockTime(at, 'Europe/Oslo'), clockTime(at + 7000, 'Europe/Oslo'), clockTime(at, 'Asia/Kathmandu')]).toEqual([
    '06:30',
    '06:30:07',
    '11:15',
  ]);
  expect([timeNear(at, at, 'UTC'), timeNear(at + 86_400_000, at, 'UTC')]).toEqual(['05:30', 'Thu 26 Nov 05:30']);
  expect(zoneName('America/Argentina/Buenos_Aires')).toBe('Buenos Aires');
});

test('durations, sizes and counts read as people write them', () => {
  expect([0, 9500, 61_000, 3_661_000].map(duration)).toEqual(['0:00', '0:09.5', '1:01', '1:01:01']);
  expect([300, 812_345, 5_250_000, 23_456_789].map(megabytes)).toEqual(['1 kB', '812 kB', '5.3 MB', '23 MB']);
  expect([counted(1, 'screen'), counted(1200, 'screen')]).toEqual(['1 screen', '1,200 screens']);
});
