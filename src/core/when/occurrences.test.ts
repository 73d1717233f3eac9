import { formatInstant } from '../instant';
import type { When } from '../plan';
import {
  clockChanges,
  formatDate,
  describeWhen,
  occurrenceMemo,
  occurrences,
  parseDate,
  whenSchema,
  zoneTable,
  type LocalDate,
  type Place,
} from '.';
import { readRows } from '../tests/rows';

const place = (zone: string, hours?: Place['hours'], calendars: Record<string, string[]> = {}): Place => ({
  zone: zoneTable(zone),
  hours,
  zoneTable,
  calendar: (id) => new Set((calendars[id] ?? []).map((text) => parseDate(text) as LocalDate)),
});

const list = (when: object, at: Place, from: string, to: string) =>
  occurrences(whenSchema.parse(when) as When, at, Date.parse(from), Date.parse(to)).map(
    (one) => `${formatInstant(one.from).slice(5, 16)} ${formatInstant(one.to).slice(5, 16)}`,
  );

const oslo = place('Europe/Oslo', {
  weekly: {
    FR: [['18:00', '01:00']],
    SA: [
      ['09:00', '12:00'],
      ['13:00', '18:30'],
    ],
  },
  dates: { '2026-12-25': [] },
});

test('a window over midnight belongs to the date on which it starts', () => {
  expect(
    list(
      { from: '2026-12-01', to: '2026-12-01', windows: [['22:00', '02:00']] },
      oslo,
      '2026-11-28T00:00Z',
      '2026-12-05T00:00Z',
    ),
  ).toEqual(['12-01T21:00 12-02T01:00']);
});

test('equal ends are 24 hours', () => {
  expect(
    list(
      { also: ['2026-12-01'], to: '2000-01-01', windows: [['06:00', '06:00']] },
      oslo,
      '2026-11-28T00:00Z',
      '2026-12-05T00:00Z',
    ),
  ).toEqual(['12-01T05:00 12-02T05:00']);
});

test('opens and closes follow the site, past midnight too, and make no window on closed days', () => {
  const when = { from: '2026-12-18', to: '2026-12-27', windows: [['opens-00:30', 'closes+00:15']] };
  expect(list(when, oslo, '2026-12-01T00:00Z', '2027-01-05T00:00Z')).toEqual([
    '12-18T16:30 12-19T00:15',
    '12-19T07:30 12-19T17:45',
    '12-26T07:30 12-26T17:45',
  ]);
});

test('a pinned clock is the same instants everywhere', () => {
  const when = { clock: 'Asia/Kathmandu', from: '2026-12-05', to: '2026-12-05', windows: [['04:00', '11:30']] };
  expect(list(when, oslo, '2026-12-01T00:00Z', '2026-12-10T00:00Z')).toEqual(['12-04T22:15 12-05T05:45']);
});

test('a window inside the skipped hour is empty, and does not exist', () => {
  // Both ends are read with the offset before the gap: 02:10 and 02:50 become 01:10Z and 01:50Z, and 03:00 is 01:00Z.
  expect(
    list(
      { from: '2026-03-29', to: '2026-03-29', windows: [['02:10', '03:00']] },
      oslo,
      '2026-03-28T00:00Z',
      '2026-03-30T00:00Z',
    ),
  ).toEqual([]);
  expect(
    list(
      { from: '2026-03-29', to: '2026-03-29', windows: [['00:00', '24:00']] },
      oslo,
      '2026-03-28T00:00Z',
      '2026-03-30T00:00Z',
    ),
  ).toEqual(['03-28T23:00 03-29T22:00']);
});

test('dates: rule within its bounds, then also, except, only and not', () => {
  const at = place('UTC', undefined, { storm: ['2026-12-03'], fair: ['2026-12-01', '2026-12-03', '2026-12-20'] });
  const dates = (when: object) =>
    list(when, at, '2026-11-01T00:00Z', '2027-01-01T00:00Z').map((text) => text.slice(0, 5));
  const week = { from: '2026-12-01', to: '2026-12-05' };
  expect(dates({ ...week, also: ['2026-12-20'], except: ['2026-12-02'] })).toEqual([
    '12-01',
    '12-03',
    '12-04',
    '12-05',
    '12-20',
  ]);
  expect(dates({ ...week, only: ['fair'], not: ['storm'] })).toEqual(['12-01']);
});

test('windows of one start are one occurrence, to the latest end', () => {
  expect(
    list(
      {
        from: '2026-12-01',
        to: '2026-12-01',
        windows: [
          ['08:00', '09:00'],
          ['08:00', '11:00'],
        ],
      },
      place('UTC'),
      '2026-12-01T00:00Z',
      '2026-12-02T00:00Z',
    ),
  ).toEqual(['12-01T08:00 12-01T11:00']);
});

test('a When reads as people say it', () => {
  const words = (when: object) => describeWhen(whenSchema.parse(when));
  expect(words({})).toBe('always');
  expect(
    words({
      from: '2026-12-01',
      to: '2027-02-28',
      repeat: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR',
      windows: [['05:30', '10:00']],
      not: ['storm-days'],
    }),
  ).toBe('weekdays 05:30–10:00, 1 Dec 2026 to 28 Feb 2027, not on storm-days');
  expect(words({ from: '2026-01-01', repeat: 'FREQ=DAILY;BYMONTH=11,12,1', windows: [['10:00', '11:30']] })).toBe(
    'daily in Nov, Dec, Jan 10:00–11:30, from 1 Jan 2026',
  );
  expect(words({ windows: [['16:30', '18:00']], clock: 'Europe/Oslo' })).toBe('daily 16:30–18:00, Europe/Oslo time');
});

test('what is remembered for one range is given again, and for no other range', () => {
  const day = Date.UTC(2026, 10, 26);
  const when = whenSchema.parse({ windows: [['06:00', '08:00']] }) as When;
  const at = { ...oslo, ...occurrenceMemo(day, day + 86_400_000) };
  const first = occurrences(when, at, day, day + 86_400_000);
  expect(first).toHaveLength(1);
  expect(occurrences(when, at, day, day + 86_400_000)).toBe(first);
  expect(occurrences(when, at, day, day + 2 * 86_400_000)).toHaveLength(2);
  expect(occurrences(when, at, day - 86_400_000, day + 86_400_000)).toHaveLength(2);
  expect(occurrences(when, oslo, day, day + 86_400_000)).not.toBe(first);
});

test.each<[object, string]>(readRows('when/described.jsonl'))('%j in words: %s', (when, words) => {
  expect(describeWhen(whenSchema.parse(when) as When)).toMatch(words);
});

test('each rule that words do not tell is told as it is written', () => {
  expect(describeWhen({ from: '2026-01-05', repeat: 'FREQ=WEEKLY' })).toBe('by the rule FREQ=WEEKLY, from 5 Jan 2026');
  expect(describeWhen({ repeat: 'no rule' })).toBe('no rule');
});

describe('windows that a change of clocks makes shorter, longer, or takes away', () => {
  const changed = (windows: [string, string][], from: string, to: string, more: object = {}) =>
    clockChanges(whenSchema.parse({ windows, ...more }) as When, oslo, Date.parse(from), Date.parse(to)).map(
      ({ date, writtenMs, lastsMs }) => [formatDate(date), writtenMs / 60_000, lastsMs / 60_000],
    );
  const [spring, autumn] = [
    ['2026-03-28T00:00:00Z', '2026-03-30T00:00:00Z'],
    ['2026-10-24T00:00:00Z', '2026-10-26T00:00:00Z'],
  ] as const;

  test('in spring an hour is skipped: 02:00 to 03:00', () => {
    expect(changed([['01:00', '04:00']], ...spring)).toEqual([['2026-03-29', 180, 120]]);
    expect(changed([['02:15', '02:45']], ...spring)).toEqual([]);
    expect(changed([['02:30', '03:00']], ...spring)).toEqual([['2026-03-29', 30, 0]]);
    expect(changed([['22:00', '04:00']], ...spring)).toEqual([['2026-03-28', 360, 300]]);
  });

  test('in autumn one comes twice', () => {
    expect(changed([['01:00', '04:00']], ...autumn)).toEqual([['2026-10-25', 180, 240]]);
  });

  test('what does not touch the change, or lies on other days or clocks, is as it is written', () => {
    expect(changed([['06:00', '08:00']], ...spring)).toEqual([]);
    expect(changed([['01:00', '04:00']], '2026-03-30T00:00:00Z', '2026-05-01T00:00:00Z')).toEqual([]);
    expect(changed([['01:00', '04:00']], ...spring, { from: '2026-04-01' })).toEqual([]);
    expect(changed([['01:00', '04:00']], ...spring, { clock: 'UTC' })).toEqual([]);
    expect(
      changed([['01:00', '04:00']], '2026-03-08T00:00:00Z', '2026-03-09T00:00:00Z', { clock: 'America/New_York' }),
    ).toEqual([['2026-03-08', 180, 120]]);
  });
});
