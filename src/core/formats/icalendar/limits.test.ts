import { emptyPlan, readPlan, type Patch } from '../../plan';
import { orThrow } from '../../refusal';
import { bookingsOf, readCalendar, writeCalendar } from '.';
import { timezoneLines } from './timezone';
import { clocksOf, dateOf, setsOf, toLocalTime, zoneTable } from '../../when';

const file = (...lines: string[]) => ['BEGIN:VCALENDAR', ...lines, 'END:VCALENDAR'].join('\r\n');
let uid = 0;
const event = (...lines: string[]) => ['BEGIN:VEVENT', `UID:${++uid}`, ...lines, 'END:VEVENT'];
const HOUR_LONG = ['DTSTART:20261205T080000', 'DTEND:20261205T090000'];

test('names: one line that can be seen, of a length that names have', () => {
  const named = (summary: string) =>
    readCalendar(file(...event(`SUMMARY:${summary}`, ...HOUR_LONG))).events[0]?.summary;
  expect(named('Drill\\, aft\\nall crew')).toBe('Drill, aft all crew');
  expect(named('  Drill ')).toBe('Drill');
  expect(named('\u200b')).toBe('Untitled event');
  expect(named('x'.repeat(200))).toBe('x'.repeat(120));
  expect(readCalendar(file(...event(...HOUR_LONG))).events[0]?.summary).toBe('Untitled event');
});

test('a file without end: so many events are read, the others told by their line', () => {
  const { events, problems } = readCalendar(file(...Array.from({ length: 5003 }, () => event(...HOUR_LONG)).flat()));
  expect(events).toHaveLength(5000);
  expect(problems).toEqual([{ line: 2 + 5000 * 5, message: expect.stringContaining('more than 5000 events') }]);
});

test('an event with single dates without end is left out and told, at their line', () => {
  const dates = (count: number) =>
    Array.from({ length: count }, (_, i) => `2026${String((i % 12) + 1).padStart(2, '0')}01T080000`);
  for (const name of ['RDATE', 'EXDATE']) {
    const { events, problems } = readCalendar(
      file(...event(...HOUR_LONG, `${name}:${dates(4001).join()}`), ...event(...HOUR_LONG)),
    );
    expect(events).toHaveLength(1);
    expect(problems).toEqual([{ line: 6, message: expect.stringContaining(`more than 4000 single dates (${name})`) }]);
    expect(readCalendar(file(...event(...HOUR_LONG, `${name}:${dates(4000).join()}`))).problems).toEqual([]);
  }
});

test('an event of a thousand years is one booking where it is of whole days, and left out where it is not', () => {
  expect(
    readCalendar(file(...event('DTSTART;VALUE=DATE:20000101', 'DTEND;VALUE=DATE:29990101'))).events.map(
      ({ when }) => when,
    ),
  ).toEqual([{ from: '2000-01-01', to: '2998-12-31' }]);
  for (const long of [
    ['DTSTART:20000101T080000', 'DTEND:29990101T090000'],
    ['DTSTART;VALUE=DATE:20000101', 'DTEND;VALUE=DATE:29990101', 'RRULE:FREQ=DAILY'],
    ['DTSTART;VALUE=DATE:20000101', 'DTEND;VALUE=DATE:29990101', 'EXDATE;VALUE=DATE:20010101'],
  ]) {
    const { events, problems } = readCalendar(file(...event(...long)));
    expect(events).toEqual([]);
    expect(problems).toEqual([{ line: 2, message: expect.stringContaining('lasts longer than 400 days') }]);
  }
  const added = readCalendar(file(...event(...HOUR_LONG, 'RDATE;VALUE=PERIOD:20270101T000000/29990101T090000')));
  expect([added.events.length, added.problems]).toEqual([
    1,
    [{ line: 2, message: expect.stringContaining('400 days') }],
  ]);
});

test('an event over midnights by hours is one window of up to eight days; a longer one is a booking for each day', () => {
  const whens = (end: string) =>
    readCalendar(file(...event('DTSTART:20261205T080000', `DTEND:${end}`))).events.map(({ when }) => when);
  expect(whens('20261208T000000')).toEqual([
    { from: '2026-12-05', to: '2026-12-05', windows: [['08:00', '24:00', 2]] },
  ]);
  expect(whens('20261213T000000')).toEqual([
    { from: '2026-12-05', to: '2026-12-05', windows: [['08:00', '24:00', 7]] },
  ]);
  const longer = whens('20261213T000001');
  expect([longer.length, longer[0], longer[1], longer[8]]).toEqual([
    9,
    { from: '2026-12-05', to: '2026-12-05', windows: [['08:00', '24:00']] },
    { from: '2026-12-06', to: '2026-12-06' },
    { from: '2026-12-13', to: '2026-12-13', windows: [['00:00', '00:00:01']] },
  ]);
});

test('thousands of events of one name get numbers', () => {
  const { events } = readCalendar(
    file(...Array.from({ length: 3000 }, () => event('SUMMARY:Drill', ...HOUR_LONG)).flat()),
  );
  const made = bookingsOf(emptyPlan('N'), events, {
    ...{ content: { media: 'm' }, where: 'all', siteClock: false, created: '2026-01-01T00:00:00Z' },
  }) as (Patch<'booking'> & { add: { name: string } })[];
  expect([made[0], made[1], made[2999]].map((one) => one?.add.name)).toEqual(['Drill', 'Drill (2)', 'Drill (3000)']);
});

test('UNTIL lets an instance in that begins by then, in any place of the rule', () => {
  const until = (rule: string, start = '20261201T080000') =>
    readCalendar(file(...event(`DTSTART;TZID=Europe/Oslo:${start}`, 'DURATION:PT1H', `RRULE:${rule}`))).events.flatMap(
      ({ when }) => setsOf(when).map(({ repeat }) => repeat),
    )[0];
  expect(until('UNTIL=20261205T070000Z;FREQ=DAILY')).toBe('FREQ=DAILY;UNTIL=20261205');
  expect(until('FREQ=DAILY;UNTIL=20261205T065959Z;INTERVAL=2')).toBe('FREQ=DAILY;INTERVAL=2;UNTIL=20261204');
  expect(until('FREQ=DAILY;UNTIL=20261205')).toBe('FREQ=DAILY;UNTIL=20261205');
});

describe('siblings, as our own files write them', () => {
  const twins = (second: string[], first: string[] = []) =>
    readCalendar(
      file(
        ...['BEGIN:VEVENT', 'UID:a', 'SUMMARY:Drill', ...HOUR_LONG, ...first, 'END:VEVENT'],
        ...['BEGIN:VEVENT', 'UID:b', 'RELATED-TO;RELTYPE=SIBLING:a', ...second, 'END:VEVENT'],
      ),
    ).events.map(({ summary, when }) => [summary, ...setsOf(when).map(({ windows }) => windows)]);

  test('two windows of one booking', () => {
    expect(twins(['SUMMARY:Drill', 'DTSTART:20261205T100000', 'DURATION:PT1H'])).toEqual([
      [
        'Drill',
        [
          ['08:00', '09:00'],
          ['10:00', '11:00'],
        ],
      ],
    ]);
  });

  test.each([
    [
      'another name',
      ['SUMMARY:Other', 'DTSTART:20261205T100000', 'DURATION:PT1H'],
      [
        ['Drill', [['08:00', '09:00']]],
        ['Other', [['10:00', '11:00']]],
      ],
    ],
    [
      'other dates',
      ['SUMMARY:Drill', 'DTSTART:20261206T100000', 'DURATION:PT1H'],
      [['Drill', [['08:00', '09:00']], [['10:00', '11:00']]]],
    ],
  ])('%s: a booking, or a set of hours, of its own', (_, second, expected) => {
    expect(twins(second)).toEqual(expected);
  });
});

test('a zone that is written has its changes by name: summer is DAYLIGHT, and offsets have their sign', () => {
  const oslo = timezoneLines('Europe/Oslo', dateOf(2026, 1, 1));
  expect(oslo.filter((line) => line.startsWith('BEGIN'))).toEqual([
    'BEGIN:VTIMEZONE',
    'BEGIN:STANDARD',
    'BEGIN:DAYLIGHT',
    'BEGIN:STANDARD',
  ]);
  const summer = oslo.slice(oslo.indexOf('BEGIN:DAYLIGHT'), oslo.indexOf('END:DAYLIGHT'));
  expect(summer.slice(1, 4)).toEqual(['DTSTART:20250330T020000', 'TZOFFSETFROM:+0100', 'TZOFFSETTO:+0200']);
  expect(timezoneLines('America/St_Johns', dateOf(2026, 1, 1))).toContain('TZOFFSETTO:-0330');
  expect(timezoneLines('UTC', dateOf(2026, 1, 1))).toEqual([
    ...['BEGIN:VTIMEZONE', 'TZID:UTC', 'BEGIN:STANDARD', 'DTSTART:20241231T000000', 'TZOFFSETFROM:+0000'],
    ...['TZOFFSETTO:+0000', 'END:STANDARD', 'END:VTIMEZONE'],
  ]);
});

describe('a zone by a name of its own, with its clocks written out', () => {
  const zone = (standard: string, summer: string) => [
    ...['BEGIN:VTIMEZONE', 'TZID:Office'],
    ...['BEGIN:STANDARD', 'DTSTART:16011028T040000', 'RRULE:FREQ=YEARLY;BYDAY=-1SU;BYMONTH=10'],
    ...[`TZOFFSETFROM:${summer}`, `TZOFFSETTO:${standard}`, 'END:STANDARD'],
    ...['BEGIN:DAYLIGHT', 'DTSTART:16010325T030000', 'RRULE:FREQ=YEARLY;BYDAY=-1SU;BYMONTH=3'],
    ...[`TZOFFSETFROM:${standard}`, `TZOFFSETTO:${summer}`, 'END:DAYLIGHT', 'END:VTIMEZONE'],
  ];
  const read = (standard: string, summer: string) =>
    readCalendar(file(...zone(standard, summer), ...event('DTSTART;TZID=Office:20261205T080000', 'DURATION:PT1H')));

  test('becomes a zone whose clocks read the same, winter and summer', () => {
    const { events, problems } = read('+0200', '+0300');
    expect(problems).toEqual([]);
    const clock = zoneTable(clocksOf(events[0]?.when ?? {})[0] ?? '');
    const helsinki = zoneTable('Europe/Helsinki');
    for (let month = 0; month < 60; month++) {
      const noon = Date.UTC(2024, month, 1, 12);
      expect(toLocalTime(clock, noon)).toBe(toLocalTime(helsinki, noon));
    }
  });

  test('one that no place on Earth has is told, at the line that names it', () => {
    const { events, problems } = read('+0123', '+0223');
    expect(events).toEqual([]);
    expect(problems).toEqual([{ line: 19, message: expect.stringContaining('“Office” is unknown and not defined') }]);
  });
});

test('windows on opening hours are written for a year from the day that is asked for, no date before it and none behind', () => {
  const plan = orThrow(
    readPlan({
      ...emptyPlan('N'),
      sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo', hours: { weekly: { TH: [['08:00', '12:00']] } } }],
      media: [{ id: 'm', name: 'M', kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' }],
      bookings: [
        {
          ...{ id: 'b', name: 'B', content: { media: 'm' }, where: 'all', created: '2026-01-01T00:00:00Z' },
          when: { windows: [['opens', 'closes']], clock: 'site' },
        },
      ],
    }),
  );
  const dates = (site?: (typeof plan.sites)[0]) => {
    const text = writeCalendar(plan, plan.bookings, {
      name: 'N',
      from: dateOf(2026, 11, 26),
      stamp: 0,
      ...(site && { site }),
    });
    return [...text.replaceAll('\r\n ', '').matchAll(/(?:DTSTART|RDATE)[^:]*:(\S+)/g)]
      .flatMap(([line, list = '']) => (line.includes('TZID') ? list.split(',') : []))
      .map((time) => time.slice(0, 8));
  };
  const written = dates(plan.sites[0]);
  // The 26th is a Thursday itself.
  expect([written[0], written.at(-1), new Set(written).size]).toEqual(['20261126', '20271125', 53]);
  expect(dates()).toEqual([]);
});

test('what is told of a time stands at its own line', () => {
  const wrong = (...lines: string[]) => readCalendar(file(...event(...lines))).problems[0];
  expect(wrong('SUMMARY:A', 'DTEND;TZID=Mars/One:20261205T090000', 'DTSTART:20261205T080000')).toMatchObject({
    line: 5,
  });
  expect(wrong('SUMMARY:A', 'DTSTART;TZID=Mars/One:20261205T080000', 'DURATION:PT1H')).toMatchObject({ line: 5 });
  expect(wrong(...HOUR_LONG, 'RDATE;TZID=Mars/One:20261206T080000')).toMatchObject({ line: 6 });
});
