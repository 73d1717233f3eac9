import fc from 'fast-check';
import ICAL from 'ical.js';
import { DAY, parseInstant, type Instant } from '../../instant';
import { placeOf, screenProgram } from '../../forecast';
import { nameSchema, readPlan, withPatches, type Booking, type Patch, type Plan, type When } from '../../plan';
import { randomPlan } from '../../tests/random-plan';
import {
  clocksOf,
  followsHours,
  followsSun,
  occurrences,
  parseDate,
  setsOf,
  toInstant,
  union,
  zoneTable,
  type LocalDate,
  type LocalTime,
  type SetOfHours,
  type WrittenWindow,
} from '../../when';
import { bookingsOf, datesOfEvents, readCalendar, writeCalendar } from '.';
import { runs } from '../../tests/runs';
import { smallPlan } from '../../tests/small-plan';
import { readRows } from '../../tests/rows';

/** What a patch adds. */
function added(patch: Patch<'booking'>): Booking {
  if (!('add' in patch)) throw new Error('adds nothing');
  return { id: 'new', priority: 3, when: {}, ...patch.add };
}

const at = (text: string) => parseInstant(text) as Instant;
const from = parseDate('2026-11-25') as LocalDate;
const stamp = at('2026-11-25T10:00:00Z');
const [begin, end] = [at('2026-11-26T06:00:00Z'), at('2027-04-20T00:00:00Z')];

const HOURS = { weekly: { MO: [['05:30', '22:00']], TU: [['05:30', '22:00']], SA: [['08:00', '01:00']] } };

const location = { latitude: 62.1, longitude: 5.4 };

function plan(...bookings: object[]): Plan {
  return smallPlan({
    calendars: [{ id: 'storm', name: 'Storm', dates: ['2026-12-05', ['2026-12-24', '2026-12-26'], '2027-03-28'] }],
    sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo', hours: HOURS, location, tags: ['quay'] }],
    screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 2, height: 1, tags: ['hall'] }],
    media: [{ id: 'm', name: 'M', kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' }],
    playlists: [{ id: 'loop', name: 'Loop', items: [{ media: 'm' }] }],
    bookings: bookings.map((one, i) => ({
      id: `b${i}`,
      name: `B${i}`,
      content: { playlist: 'loop' },
      where: 'quay and hall',
      ...one,
    })),
  });
}

const written = (of: Plan, atSite = true) =>
  writeCalendar(of, of.bookings, { name: 'Quay', from, stamp, ...(atSite ? { site: of.sites[0] } : {}) });

/** Every instance of a file's events in the range, as `ical.js` makes them: an independent reader. */
function instances(file: string): string[] {
  const calendar = new ICAL.Component(ICAL.parse(file) as unknown[]);
  for (const zone of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(new ICAL.Timezone(zone));
  return calendar
    .getAllSubcomponents('vevent')
    .flatMap((component) => {
      const event = new ICAL.Event(component);
      const found: string[] = [];
      const iterator = event.iterator();
      for (let next = iterator.next(); next; next = iterator.next()) {
        const { startDate, endDate } = event.getOccurrenceDetails(next);
        const [a, b] = [instantOf(startDate), instantOf(endDate)];
        if (a >= end) break;
        if (b > begin) found.push(`${new Date(a).toISOString()} ${new Date(b).toISOString()}`);
      }
      return found;
    })
    .sort();
}

/** An all-day event is read on Oslo's clock, as everything of this site is. */
function instantOf(time: ICAL.Time): Instant {
  if (!time.isDate) return time.toUnixTime() * 1000;
  const zone = ICAL.TimezoneService.get('Europe/Oslo') ?? ICAL.Timezone.utcTimezone;
  return time.toUnixTime() * 1000 - zone.utcOffset(time) * 1000;
}

function shown(of: Plan): string[] {
  const place = placeOf(screenProgram(of, 'hall'));
  return of.bookings
    .flatMap(({ when }) => occurrences(when, { ...place, hours: of.sites[0]?.hours }, begin, end))
    .map(({ from: a, to: b }) => `${new Date(a).toISOString()} ${new Date(b).toISOString()}`)
    .sort();
}

const windows: WrittenWindow[][] = [
  [['18:00', '06:00', 3]],
  [['00:00', '24:00', 1]],
  [['05:30', '10:00']],
  [
    ['05:30', '10:00'],
    ['22:00', '02:00'],
  ],
  [['06:00', '06:00']],
  [['12:15:30', '24:00']],
];
const WHENS: SetOfHours[] = [
  { from: '2026-12-01', to: '2027-02-28', repeat: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', not: ['storm'] },
  { from: '2026-11-26', repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,SA' },
  { from: '2026-11-26', to: '2026-12-20', repeat: 'FREQ=DAILY;COUNT=50' },
  { from: '2026-12-01', repeat: 'FREQ=DAILY;UNTIL=20261211' },
  { from: '2026-12-01', repeat: 'FREQ=MONTHLY;BYDAY=1MO,-1FR', also: ['2026-12-02'], except: ['2027-01-04'] },
  { from: '2026-12-05', to: '2026-12-05' },
  { to: '2026-12-03' },
  { only: ['storm'] },
  { from: '2026-12-01', to: '2026-12-10', also: ['2026-12-20', '2026-12-04'], except: ['2026-12-01', '2026-12-20'] },
  { from: '2027-01-01', repeat: 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29', also: ['2026-12-31'] },
];
const cases: { when: When }[] = [
  ...WHENS.flatMap((when) => windows.map((list) => ({ when: { ...when, windows: list } }))),
  {
    when: {
      any: [
        { from: '2026-12-01', repeat: 'FREQ=WEEKLY;BYDAY=MO,TU', windows: [['07:00', '10:00']] },
        {
          from: '2026-12-01',
          repeat: 'FREQ=WEEKLY;BYDAY=SA',
          windows: [
            ['10:00', '16:00'],
            ['18:00', '20:00'],
          ],
        },
        { from: '2026-12-24', to: '2026-12-24', windows: [['18:00', '06:00', 3]] },
      ],
    },
  },
];

test.each(cases)('read back by ical.js, $when is what shows', ({ when }) => {
  const own = plan({ when });
  // Where clocks change inside a window, DTSTART and DTEND give every instance the first one's exact length (section 3.8.5.3).
  const plainDays = (list: string[]) => list.filter((line) => !/2027-03-2[78]T/.test(line));
  expect(plainDays(instances(written(own)))).toEqual(plainDays(shown(own)));
});

test.each(cases)('what was written is read again: $when', ({ when }) => {
  const own = plan({ when });
  const { events, problems } = readCalendar(written(own));
  expect(problems).toEqual([]);
  const again = plan(
    ...bookingsOf(own, events, { content: { media: 'm' }, where: 'all', siteClock: false, created: 'x' }).map(
      (patch) => ({ ...added(patch), created: '2026-01-01T00:00:00Z' }),
    ),
  );
  expect(again.bookings.map((one) => [one.content, one.where, clocksOf(one.when)])).toEqual(
    again.bookings.map(() => [{ playlist: 'loop' }, 'quay and hall', []]),
  );
  expect(shown(again)).toEqual(shown(own));
});

/** Whether clocks change on a site within a day of an instant. */
const nearClockChange = (zone: string, at: number) =>
  zoneTable(zone).changes.some((change) => Math.abs(change - at) < 2 * DAY);

/** A random plan with one booking that follows no opening hours, on a site whose clock ical.js can read. */
const randomBooking = randomPlan
  .map(({ plan: whole, from: a, to: b }) => ({ whole, a, b, one: whole.bookings.find(isFixed) }))
  .filter((found): found is typeof found & { one: Booking } => found.one !== undefined);
const isFixed = ({ when }: Booking) => !followsHours(when) && !followsSun(when);
const writtenFor = (whole: Plan, one: Booking) =>
  writeCalendar(whole, [one], {
    ...{ name: 'One', from: parseDate('2026-02-01') as LocalDate, stamp },
    site: { timeZone: whole.sites[0]?.timeZone ?? 'UTC' },
  });

test('random bookings: what is written is read again, and shows the same, whatever the clocks do', () => {
  fc.assert(
    fc.property(randomBooking, ({ whole, one, a, b }) => {
      const { events, problems } = readCalendar(writtenFor(whole, one));
      expect(problems).toEqual([]);
      const again = bookingsOf(whole, events, {
        content: { media: 'map' },
        where: 'all',
        siteClock: false,
        created: 'x',
      });
      const place = placeOf(screenProgram(whole, 'one'));
      const spans = (list: readonly When[]) =>
        union(list.flatMap((when) => occurrences(when, place, a, b)).map((span) => [span.from, span.to] as const));
      expect(spans(again.map((patch) => added(patch).when))).toEqual(spans([one.when]));
    }),
    runs(60),
  );
});

test('random bookings: ical.js finds each of their occasions where they begin, away from changes of clocks', () => {
  fc.assert(
    fc.property(randomBooking, ({ whole, one, a, b }) => {
      const [clock, ...clocks] = new Set(setsOf(one.when).map((set) => set.clock));
      fc.pre(clocks.length === 0);
      const zone = clock ?? whole.sites[0]?.timeZone ?? 'UTC';
      const calendar = new ICAL.Component(ICAL.parse(writtenFor(whole, one)) as unknown[]);
      const zones = calendar.getAllSubcomponents('vtimezone').map((part) => new ICAL.Timezone(part));
      const own = zones.find(({ tzid }) => tzid === zone) ?? ICAL.Timezone.utcTimezone;
      const begins = calendar.getAllSubcomponents('vevent').flatMap((component) => {
        const found: number[] = [];
        const iterator = new ICAL.Event(component).iterator();
        for (let next = iterator.next(), i = 0; next && i < 600; next = iterator.next(), i++) {
          // Whole days float: they begin at the midnight of whoever reads them.
          const wall = next.toUnixTime() * 1000;
          if (next.isDate) found.push(toInstant(zoneTable(zone), wall as LocalTime));
          else found.push(wall - (next.zone === ICAL.Timezone.localTimezone ? own.utcOffset(next) * 1000 : 0));
        }
        return found;
      });
      const calm = (list: readonly number[]) =>
        [...new Set(list)].filter((at) => at > a && at < b && !nearClockChange(zone, at)).sort((x, y) => x - y);
      const ours = occurrences(one.when, placeOf(screenProgram(whole, 'one')), a, b).map((span) => span.from);
      expect(calm(begins).map((at) => new Date(at).toISOString())).toEqual(
        calm(ours).map((at) => new Date(at).toISOString()),
      );
    }),
    runs(60),
  );
});

test('all day is written as dates, and floats; a pinned clock has its zone with it', () => {
  const own = plan(
    { when: { from: '2026-12-05', to: '2026-12-06' } },
    { when: { clock: 'Asia/Kathmandu', from: '2026-12-05', to: '2026-12-05', windows: [['04:00', '11:30']] } },
  );
  const file = written(own, false);
  expect(file).toContain('DTSTART;VALUE=DATE:20261205\r\nDTEND;VALUE=DATE:20261206\r\nRRULE:FREQ=DAILY;UNTIL=20261206');
  expect(file).toContain('DTSTART;TZID=Asia/Kathmandu:20261205T040000');
  expect(file).toContain('TZOFFSETTO:+0545');
  expect(file.match(/BEGIN:VTIMEZONE/g)).toHaveLength(1);
});

test('a booking whose dates hang on what no recurrence can say has them written one by one', () => {
  const own = plan({ when: { from: '2026-12-01', repeat: 'FREQ=WEEKLY;BYDAY=TU', windows: [['08:00', '09:00']] } });
  const [booking] = own.bookings;
  if (!booking) throw new Error('no booking');
  // A field of a later day that chooses dates: this file knows nothing of it.
  const later = {
    ...own,
    bookings: [{ ...booking, when: { ...booking.when, tides: 'high' } as object as Booking['when'] }],
  };
  expect(written(own)).toContain('RRULE:');
  expect(written(later)).not.toContain('RRULE:');
  expect(instances(written(later))).toEqual(instances(written(own)));
});

test('windows on opening hours and by the sun are written out for a year, as they read at the site', () => {
  const own = plan({
    when: {
      windows: [
        ['opens', 'closes-00:30'],
        ['sunset-00:30', '24:00'],
      ],
    },
  });
  const until = at('2027-04-20T00:00:00Z');
  expect(instances(written(own)).filter((line) => at(line.slice(0, 24)) < until)).toEqual(shown(own));
});

test('what a booking is stands in the fields of the standard, as far as it has them', () => {
  const own = plan({
    name: 'Gale; quays, decks',
    takeover: true,
    wake: true,
    priority: 5,
    onHold: true,
    where: '(hall or deck) and not staff',
    content: { media: 'm', durationMs: 12_000 },
    when: { from: '2026-12-05', to: '2026-12-05' },
  });
  const file = written(own);
  for (const line of [
    'SUMMARY:Gale\\; quays\\, decks',
    'PRIORITY:1',
    'STATUS:TENTATIVE',
    'CATEGORIES:hall,deck',
    'X-LANTERNPOST-TAKEOVER:WAKE',
  ])
    expect(file).toContain(`\r\n${line}\r\n`);
  const [event] = readCalendar(file).events;
  expect(event).toMatchObject({
    summary: 'Gale; quays, decks',
    priority: 5,
    takeover: true,
    wake: true,
    onHold: true,
    where: '(hall or deck) and not staff',
    content: { media: 'm', durationMs: 12_000 },
  });
});

test('what is woven in stays so, by its share or how often it comes; a takeover and what says neither are not', () => {
  for (const weave of [{ share: 0.125 }, { every: 90_000 }]) {
    const [event] = readCalendar(written(plan({ weave, when: { from: '2026-12-05', to: '2026-12-05' } }))).events;
    expect(event?.weave).toEqual(weave);
  }
  const file = written(plan({ weave: { share: 0.5 }, when: { from: '2026-12-05', to: '2026-12-05' } }));
  const line = 'X-LANTERNPOST-WEAVE:50 % of the time';
  expect(file).toContain(`\r\n${line}\r\n`);
  for (const other of ['X-LANTERNPOST-WEAVE:often', `${line}\r\nX-LANTERNPOST-TAKEOVER:TRUE`])
    expect(readCalendar(file.replace(line, other)).events[0]).not.toHaveProperty('weave');
});

/** What a booking may be called: of many characters, each of several octets. */
const names = fc
  .string({ unit: 'grapheme', minLength: 1, maxLength: 110 })
  .filter((name) => nameSchema.safeParse(name).success);

test('no line is longer than 75 octets, and none is cut inside a character (RFC 5545 section 3.1)', () => {
  fc.assert(
    fc.property(names, (name) => {
      const own = plan({ name, when: { from: '2026-12-05', to: '2026-12-05' } });
      const file = written(own);
      for (const line of file.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
      const read = new ICAL.Component(ICAL.parse(file) as unknown[]).getFirstSubcomponent('vevent');
      expect(read?.getFirstPropertyValue('summary')).toBe(own.bookings[0]?.name);
    }),
    runs(60),
  );
});

const file = (...lines: string[]) => ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR'].join('\r\n');
const event = (...lines: string[]) => ['BEGIN:VEVENT', 'UID:1', 'SUMMARY:Market', ...lines, 'END:VEVENT'];
const whens = (text: string) => readCalendar(text).events.map((one) => one.when);

test.each<[string, string, When[]]>(readRows('formats/icalendar/read.jsonl'))('%s', (_what, text, expected) => {
  expect(readCalendar(text).problems).toEqual([]);
  expect(whens(text)).toEqual(expected);
});

test('an instance that was moved stands alone, one that was cancelled is taken out (RECURRENCE-ID)', () => {
  const text = file(
    ...event(
      'DTSTART;TZID=Europe/Oslo:20261207T080000',
      'DTEND;TZID=Europe/Oslo:20261207T090000',
      'RRULE:FREQ=WEEKLY;BYDAY=MO',
    ),
    ...event(
      'RECURRENCE-ID:20261214T070000Z',
      'DTSTART;TZID=Europe/Oslo:20261215T100000',
      'DTEND;TZID=Europe/Oslo:20261215T110000',
    ),
    ...event(
      'RECURRENCE-ID;TZID=Europe/Oslo:20261221T080000',
      'STATUS:CANCELLED',
      'DTSTART;TZID=Europe/Oslo:20261221T080000',
      'DTEND;TZID=Europe/Oslo:20261221T090000',
    ),
  );
  expect(whens(text)).toEqual([
    {
      clock: 'Europe/Oslo',
      from: '2026-12-07',
      repeat: 'FREQ=WEEKLY;BYDAY=MO',
      except: ['2026-12-14', '2026-12-21'],
      windows: [['08:00', '09:00']],
    },
    { clock: 'Europe/Oslo', from: '2026-12-15', to: '2026-12-15', windows: [['10:00', '11:00']] },
  ]);
});

test.each<[string, number, string]>(readRows('formats/icalendar/mistakes.jsonl'))(
  'what can not be taken over is told by its line',
  (text, line, message) => {
    const { events, problems } = readCalendar(text);
    expect(events).toEqual([]);
    expect(problems).toEqual([{ line, message: expect.stringContaining(message) as string }]);
  },
);

test('one bad event does not spoil the others', () => {
  const text = file(
    ...event('DTSTART:nonsense'),
    ...event('DTSTART;VALUE=DATE:20261224').map((one) => one.replace('UID:1', 'UID:2')),
  );
  const { events, problems } = readCalendar(text);
  expect(events).toHaveLength(1);
  expect(problems).toHaveLength(1);
});

test('events as bookings: categories say where, names that are taken get a number, times go to the sites on demand', () => {
  const own = plan({ name: 'Market' });
  const { events } = readCalendar(
    file(
      ...event('DTSTART;TZID=Europe/Oslo:20261205T080000', 'DURATION:PT1H', 'CATEGORIES:Hall,Café Deck', 'PRIORITY:2'),
      ...event('DTSTART:20261206T080000', 'DURATION:PT1H').map((one) => one.replace('UID:1', 'UID:2')),
    ),
  );
  const edits = bookingsOf(own, events, {
    content: { media: 'm' },
    where: 'quay',
    siteClock: true,
    created: '2026-11-25T10:00:00Z',
  });
  expect(readPlan(withPatches(own, edits))).not.toHaveProperty('errors');
  expect(edits.map(added)).toMatchObject([
    {
      name: 'Market (2)',
      where: 'hall or café-deck',
      priority: 5,
      when: { from: '2026-12-05', windows: [['08:00', '09:00']] },
    },
    { name: 'Market (3)', where: 'quay', priority: 3 },
  ]);
  expect(added(edits[0] as Patch<'booking'>)).not.toHaveProperty('when.clock');
});

test('events as dates: each day that they touch, those without end up to a given day', () => {
  const { events } = readCalendar(
    file(
      ...event('DTSTART;VALUE=DATE:20261224', 'DTEND;VALUE=DATE:20261227'),
      ...event('DTSTART;VALUE=DATE:20250517', 'RRULE:FREQ=YEARLY').map((one) => one.replace('UID:1', 'UID:2')),
    ),
  );
  expect(datesOfEvents(events, parseDate('2028-01-01') as LocalDate)).toEqual([
    '2025-05-17',
    '2026-05-17',
    '2026-12-24',
    '2026-12-25',
    '2026-12-26',
    '2027-05-17',
  ]);
  expect(end - begin).toBeGreaterThan(140 * DAY);
});
