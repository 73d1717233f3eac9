import { Observer, SearchRiseSet, Body } from 'astronomy-engine';
import fc from 'fast-check';
import { DAY, HOUR, MINUTE } from '../instant';
import { dateOf, formatLocalTime, startOfDate, type LocalDate } from './dates';
import { localOccurrences } from './occurrences';
import { sunAt, type Coordinates } from './sun';
import { toInstant, zoneTable } from './zone';

const at = (latitude: number, longitude: number, zone: string) => sunAt({ latitude, longitude }, zoneTable(zone));
const clock = (time: number, date: LocalDate) => (time - startOfDate(date)) / MINUTE;
const minutes = (text: string) => Number(text.slice(0, 2)) * 60 + Number(text.slice(3));

/** Tables of sunrise and sunset as almanacs print them for these cities; values from memory, to the minute. */
test.each<[city: string, month: number, coordinates: [number, number], zone: string, rises: string, sets: string]>([
  ['London', 6, [51.5, -0.13], 'Europe/London', '04:43', '21:21'],
  ['London', 12, [51.5, -0.13], 'Europe/London', '08:04', '15:53'],
  ['New York', 6, [40.71, -74.01], 'America/New_York', '05:25', '20:31'],
  ['New York', 12, [40.71, -74.01], 'America/New_York', '07:17', '16:32'],
  ['Oslo', 6, [59.91, 10.75], 'Europe/Oslo', '03:54', '22:44'],
  ['Oslo', 12, [59.91, 10.75], 'Europe/Oslo', '09:18', '15:12'],
  ['Sydney', 12, [-33.87, 151.21], 'Australia/Sydney', '05:41', '20:05'],
])('%s: on the 21st of month %i the sun rises and sets when the almanac says', (...row) => {
  const [, month, [latitude, longitude], zone, rises, sets] = row;
  const date = dateOf(2026, month, 21);
  const { sunrise, sunset } = at(latitude, longitude, zone)(date);
  expect(Math.abs(clock(sunrise, date) - minutes(rises))).toBeLessThanOrEqual(1);
  expect(Math.abs(clock(sunset, date) - minutes(sets))).toBeLessThanOrEqual(1);
});

test('up to 65 degrees north and south it is within a minute of another computation (astronomy-engine)', () => {
  const place = fc.record({
    latitude: fc.double({ min: -65, max: 65, noNaN: true }),
    longitude: fc.double({ min: -180, max: 180, noNaN: true }),
    day: fc.integer({ min: dateOf(2025, 1, 1), max: dateOf(2045, 1, 1) }),
  });
  fc.assert(
    fc.property(place, ({ latitude, longitude, day }) => {
      const date = day as LocalDate;
      // Noon by the sun, whatever the clock there: the zone of this test is the meridian's own.
      const noon = startOfDate(date) + 12 * HOUR - (longitude / 15) * HOUR;
      const observer = new Observer(latitude, longitude, 0);
      const rises = SearchRiseSet(Body.Sun, observer, 1, new Date(noon - 12 * HOUR), 0.5);
      const sets = SearchRiseSet(Body.Sun, observer, -1, new Date(noon), 0.5);
      const meridian = {
        name: 'local',
        changes: [],
        offsets: [Math.round(((longitude / 15) * HOUR) / MINUTE) * MINUTE],
      };
      const { sunrise, sunset } = sunAt({ latitude, longitude }, meridian)(date);
      expect(Math.abs(toInstant(meridian, sunrise) - (rises?.date.getTime() ?? 0))).toBeLessThan(1.5 * MINUTE);
      expect(Math.abs(toInstant(meridian, sunset) - (sets?.date.getTime() ?? 0))).toBeLessThan(1.5 * MINUTE);
    }),
    { numRuns: 300 },
  );
});

const tromso = { latitude: 69.65, longitude: 18.96 };
const oslo = { latitude: 59.91, longitude: 10.75 };

/** When windows are on a date, in hours and minutes after its midnight. */
function windowsOn(coordinates: Coordinates | null, date: LocalDate, ...windows: [string, string][]): string[] {
  const zone = zoneTable('Europe/Oslo');
  const place = { calendar: () => new Set<LocalDate>(), ...(coordinates ? { sun: sunAt(coordinates, zone) } : {}) };
  return localOccurrences({ windows }, place, date, date)
    .filter((one) => one.date === date)
    .map(({ start, end }) =>
      [start, end].map((time) => (time === startOfDate(date) + DAY ? '24:00' : formatLocalTime(time))).join(' '),
    );
}

const [midsummer, midwinter] = [dateOf(2026, 6, 21), dateOf(2026, 12, 21)];

test.each<[windows: [string, string], summer: string[], winter: string[]]>([
  [['sunset', '24:00'], ['22:44 24:00'], ['15:12 24:00']],
  [['sunset-00:30', 'sunset+01:00'], ['22:14 23:44'], ['14:42 16:12']],
  [['sunset', 'sunrise'], ['22:44 03:54'], ['15:12 09:19']],
  [['sunset', '02:00'], ['22:44 02:00'], ['15:12 02:00']],
  // By then the sun has not set, or is up already: that day there is no such time.
  [['sunset', '20:00'], [], ['15:12 20:00']],
  [['16:00', 'sunset'], ['16:00 22:44'], []],
  [['sunrise', '08:00'], ['03:54 08:00'], []],
  [['06:00', 'sunrise'], [], ['06:00 09:18']],
  [['22:00', 'sunrise'], ['22:00 03:54'], ['22:00 09:19']],
  [['sunrise+06:00', 'sunset-06:00'], ['09:54 16:44'], []],
])('%j at Oslo', (window, summer, winter) => {
  expect([windowsOn(oslo, midsummer, window), windowsOn(oslo, midwinter, window)]).toEqual([summer, winter]);
});

test('where the sun does not set or does not rise, days and nights are whole', () => {
  expect(windowsOn(tromso, midsummer, ['sunrise', 'sunset'])).toEqual(['00:46 00:46']);
  expect(windowsOn(tromso, midsummer, ['sunset', 'sunrise'], ['sunset', '24:00'])).toEqual([]);
  expect(windowsOn(tromso, midwinter, ['sunset', 'sunrise'])).toEqual(['11:42 11:43']);
  expect(windowsOn(tromso, midwinter, ['sunrise', 'sunset'])).toEqual([]);
});

test('where a site is must be known', () => {
  expect(windowsOn(null, midsummer, ['sunset', '24:00'], ['10:00', '11:00'])).toEqual(['10:00 11:00']);
});
