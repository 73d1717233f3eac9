import { datesOf, isAlways, isZone, parseDate, trimZone, whenSchema, zoneTable, type LocalDate } from '.';
import { parseRule } from './rule';

describe('always', () => {
  test.each([
    [{}, true],
    [{ clock: 'Europe/Oslo' }, true],
    [{ windows: [['08:00', '09:00'] as [string, string]] }, false],
    [{ clock: 'Europe/Oslo', from: '2026-11-01' }, false],
  ])('%j', (when, always) => {
    expect(isAlways(when)).toBe(always);
  });
});

describe('calendars that a when names', () => {
  const days = ['2026-12-01', '2026-12-02', '2026-12-03', '2026-12-04'].map((text) => parseDate(text) as LocalDate);
  const calendars: Record<string, ReadonlySet<LocalDate>> = {
    a: new Set(days.slice(0, 2)),
    b: new Set(days.slice(1, 3)),
  };
  const place = { calendar: (id: string) => calendars[id] ?? new Set<LocalDate>() };
  const dates = (when: object) =>
    datesOf({ from: '2026-12-01', to: '2026-12-04', ...when }, place, days[0] as LocalDate, days[3] as LocalDate).map(
      (date) => days.indexOf(date) + 1,
    );
  test.each([
    [{}, [1, 2, 3, 4]],
    [{ only: ['a'] }, [1, 2]],
    [{ only: ['a', 'b'] }, [1, 2, 3]],
    [{ not: ['a'] }, [3, 4]],
    [{ not: ['a', 'b'] }, [4]],
    [{ only: ['a'], not: ['b'] }, [1]],
    [{ only: ['nowhere'] }, []],
  ])('%j', (when, expected) => {
    expect(dates(when)).toEqual(expected);
  });
});

describe('what is written as a window, a rule, a zone', () => {
  const windows = (start: string, end: string) =>
    (whenSchema.safeParse({ windows: [[start, end]] }).error?.issues ?? []).map(({ path }) => path.at(-1));
  test.each([
    ['08:00', '24:00', []],
    ['24:00', '08:00', [0]],
    ['8', '9', [0, 1]],
    ['opens-00:30', 'closes+01:00', []],
  ])('from %s to %s', (start, end, wrong) => {
    expect(windows(start, end)).toEqual(wrong);
  });

  test.each([
    ['FREQ=MONTHLY;BYMONTHDAY=1', true],
    ['FREQ=MONTHLY;BYMONTHDAY=-1', true],
    ['FREQ=MONTHLY;BYMONTHDAY=+31', true],
    ['FREQ=MONTHLY;BYMONTHDAY=32', false],
    ['FREQ=MONTHLY;BYMONTHDAY=0', false],
    ['FREQ=MONTHLY;BYMONTHDAY=x1', false],
    ['FREQ=MONTHLY;BYMONTHDAY=1x', false],
    ['FREQ=YEARLY;BYMONTH=-1', false],
  ])('%s', (rule, ok) => {
    expect(parseRule(rule).ok).toBe(ok);
  });

  test.each([
    ['Europe/Oslo', true],
    ['Etc/GMT+5', true],
    ['1Europe/Oslo', false],
    [' Europe/Oslo', false],
    ['Europe/Oslo ', false],
    ['Europe/Nowhere', false],
    ['+02:00', false],
  ])('the zone %s', (name, ok) => {
    expect(isZone(name)).toBe(ok);
  });
});

test('a part of a zone has the changes from its first instant up to its last, and one offset more', () => {
  const table = zoneTable('Europe/Oslo');
  const [a, b, c] = table.changes.slice(10, 13) as [number, number, number];
  const offsets = (from: number) => table.offsets.slice(from);
  expect(trimZone(table, a, c)).toEqual({ name: 'Europe/Oslo', changes: [a, b], offsets: offsets(10).slice(0, 3) });
  expect(trimZone(table, a + 1, c + 1)).toMatchObject({ changes: [b, c], offsets: offsets(11).slice(0, 3) });
  expect(trimZone(table, Infinity, Infinity)).toEqual({
    name: 'Europe/Oslo',
    changes: [],
    offsets: table.offsets.slice(-1),
  });
  expect(trimZone(table, -Infinity, table.changes[0] ?? 0)).toMatchObject({
    changes: [],
    offsets: table.offsets.slice(0, 1),
  });
});
