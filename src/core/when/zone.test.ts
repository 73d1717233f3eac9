import { DateTime } from 'luxon';
import { runs } from '../tests/runs';
import { DAY, HOUR, MINUTE } from '../instant';
import {
  adoptZones,
  dateOf,
  startOfDate,
  toInstant,
  toLocalTime,
  trimZone,
  zoneTable,
  isZone,
  type LocalTime,
} from '.';

const local = (year: number, month: number, day: number, hour: number, minute = 0) =>
  (startOfDate(dateOf(year, month, day)) + hour * HOUR + minute * MINUTE) as LocalTime;

describe('RFC 5545 section 3.3.5: a local time that does not exist, or exists twice', () => {
  test('in a gap, the offset before it holds', () => {
    // Europe/Oslo skips 02:00 to 03:00 on 2026-03-29.
    expect(new Date(toInstant(zoneTable('Europe/Oslo'), local(2026, 3, 29, 2, 30))).toISOString()).toBe(
      '2026-03-29T01:30:00.000Z',
    );
  });

  test('what exists twice is the first', () => {
    // America/New_York has 01:00 to 02:00 twice on 2026-11-01.
    expect(new Date(toInstant(zoneTable('America/New_York'), local(2026, 11, 1, 1, 30))).toISOString()).toBe(
      '2026-11-01T05:30:00.000Z',
    );
  });

  test('a change of half an hour (Lord Howe) and an offset of 45 minutes (Chatham)', () => {
    expect(new Date(toInstant(zoneTable('Australia/Lord_Howe'), local(2026, 10, 4, 2, 15))).toISOString()).toBe(
      '2026-10-03T15:45:00.000Z',
    );
    expect(new Date(toInstant(zoneTable('Pacific/Chatham'), local(2026, 6, 1, 12))).toISOString()).toBe(
      '2026-05-31T23:15:00.000Z',
    );
  });
});

/** Against luxon, which reads the zones in its own way; both rest on the runtime's IANA data. */
test('wall clocks of every zone agree with luxon around every change from 2020 to 2035', () => {
  const [from, to] = [Date.UTC(2020, 0, 1), Date.UTC(2035, 0, 1)];
  const wrong: string[] = [];
  const names = Intl.supportedValuesOf('timeZone');
  const every = Math.max(1, Math.round(names.length / runs(names.length).numRuns));
  for (const name of names.filter((_, i) => i % every === 0)) {
    const zone = zoneTable(name);
    const changes = zone.changes.filter((at) => at >= from && at < to);
    for (const change of [...changes, Date.UTC(2027, 4, 5)])
      for (const distance of [-3 * HOUR, -MINUTE, 0, MINUTE, 3 * HOUR]) {
        const instant = change + distance;
        const theirs = DateTime.fromMillis(instant, { zone: name });
        const wall = toLocalTime(zone, instant);
        if (wall !== instant + theirs.offset * MINUTE) wrong.push(`${name} ${theirs.toISO()}`);
        const back = toInstant(zone, wall);
        if (back > instant || toLocalTime(zone, back) !== wall) wrong.push(`${name} back ${theirs.toISO()}`);
      }
  }
  expect(wrong).toEqual([]);
});

test('a trimmed table answers the same inside its years', () => {
  const whole = zoneTable('Europe/London');
  const part = trimZone(whole, Date.UTC(2026, 0, 1), Date.UTC(2028, 0, 1));
  expect(part.changes).toHaveLength(4);
  for (let at = Date.UTC(2026, 0, 2); at < Date.UTC(2027, 11, 30); at += 5 * DAY + 7 * HOUR)
    expect(toLocalTime(part, at)).toBe(toLocalTime(whole, at));
});

test('zone data from elsewhere hold in place of the own', () => {
  const own = zoneTable('Pacific/Apia');
  adoptZones([{ ...own, changes: [], offsets: [HOUR] }]);
  expect(toInstant(zoneTable('Pacific/Apia'), local(2026, 6, 1, 12))).toBe(Date.UTC(2026, 5, 1, 11));
  adoptZones([own]);
  expect(zoneTable('Pacific/Apia')).toBe(own);
});

test('only IANA names are zones', () => {
  expect(['Europe/Oslo', 'UTC', 'Europe/Nowhere', '+02:00', ''].map(isZone)).toEqual([true, true, false, false, false]);
});
