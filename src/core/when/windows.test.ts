import { DAY, HOUR, MINUTE } from '../instant';
import { dateOf } from './dates';
import { openingOf, windowsOf } from './windows';
import { parseClock, parseEdge } from './written';

test('a clock is written HH:MM or HH:MM:SS', () => {
  expect(['00:00', '23:59:59', '06:30'].map(parseClock)).toEqual([0, DAY - 1000, 6 * HOUR + 30 * MINUTE]);
  for (const wrong of ['24:00', '6:30', '06:60', '06:30:60', '06:30:1', '06', '', 'x06:30', '06:30x'])
    expect([wrong, parseClock(wrong)]).toEqual([wrong, null]);
});

test('an edge is a clock, or lies before or after opening and closing', () => {
  const read = (text: string, end = false) => parseEdge(text, end);
  expect(read('06:30')).toEqual({ from: 'midnight', offset: 6 * HOUR + 30 * MINUTE });
  expect([read('24:00'), read('24:00', true)]).toEqual([null, { from: 'midnight', offset: DAY }]);
  expect(read('opens')).toEqual({ from: 'opens', offset: 0 });
  expect(read('sunset-00:15')).toEqual({ from: 'sunset', offset: -15 * MINUTE });
  expect(read('closes-00:30')).toEqual({ from: 'closes', offset: -30 * MINUTE });
  expect(read('opens+01:00:05')).toEqual({ from: 'opens', offset: HOUR + 5000 });
  for (const wrong of ['opens+', 'opens 01:00', 'closes-1:00', 'noon', '', 'xopens', 'opensx', '6', 'sun', 'sunsets'])
    expect([wrong, read(wrong)]).toEqual([wrong, null]);
});

test('a site opens at its first hour and closes at its last, perhaps past midnight; a date of its own goes ahead', () => {
  const hours = {
    weekly: {
      TH: [
        ['13:00', '18:00'],
        ['09:00', '12:00'],
      ],
      FR: [['20:00', '02:00']],
      SA: [['00:00', '24:00']],
      MO: [['08:00', '08:00']],
    },
    dates: { '2026-12-24': [] },
  } as Parameters<typeof openingOf>[0];
  expect(openingOf(hours, dateOf(2026, 11, 26))).toEqual({ opens: 9 * HOUR, closes: 18 * HOUR });
  expect(openingOf(hours, dateOf(2026, 11, 27))).toEqual({ opens: 20 * HOUR, closes: 26 * HOUR });
  expect(openingOf(hours, dateOf(2026, 11, 28))).toEqual({ opens: 0, closes: DAY });
  expect(openingOf(hours, dateOf(2026, 11, 30))).toEqual({ opens: 8 * HOUR, closes: 32 * HOUR });
  expect(openingOf(hours, dateOf(2026, 11, 29))).toBeNull();
  expect(openingOf(hours, dateOf(2026, 12, 24))).toBeNull();
  expect(openingOf(undefined, dateOf(2026, 11, 26))).toBeNull();
});

test('without windows a day is whole; what is no window throws', () => {
  expect(windowsOf({})).toEqual([
    {
      start: { from: 'midnight', offset: 0 },
      end: { from: 'midnight', offset: DAY },
      days: null,
      passesMidnight: true,
    },
  ]);
  expect(windowsOf({ windows: [['opens', '24:00']] })).toEqual([
    { start: { from: 'opens', offset: 0 }, end: { from: 'midnight', offset: DAY }, days: null, passesMidnight: true },
  ]);
  expect(() => windowsOf({ windows: [['24:00', '06:00']] })).toThrow('“24:00” to “06:00” is not a window');
  expect(() => windowsOf({ windows: [['06:00', 'noon']] })).toThrow(RangeError);
});
