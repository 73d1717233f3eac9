import fc from 'fast-check';
import { orThrow } from '../refusal';
import { runs } from '../tests/runs';
import { instantsOf, readAhead, readUntil, spanOf, spanWhen, whenSchema, zoneTable } from '.';
import { readRows } from '../tests/rows';

const at = (text: string) => Date.parse(text);

test.each([
  [
    '2026-11-27T10:04:10.900Z',
    '2026-11-27T11:04:10Z',
    { clock: 'Europe/Oslo', day: '2026-11-27', window: ['11:04:10', '12:04:10'] },
  ],
  [
    '2026-11-27T22:30:00Z',
    '2026-11-27T23:30:00Z',
    { clock: 'Europe/Oslo', day: '2026-11-27', window: ['23:30', '00:30'] },
  ],
  [
    '2026-11-27T22:30:00Z',
    '2026-11-27T23:00:00Z',
    { clock: 'Europe/Oslo', day: '2026-11-27', window: ['23:30', '24:00'] },
  ],
  // Clocks go back on 25 October 2026 at 03:00, and forward on 28 March 2027 at 02:00 (EU Directive 2000/84/EC).
  ['2026-10-25T00:30:00Z', '2026-10-25T01:30:00Z', { clock: 'UTC', day: '2026-10-25', window: ['00:30', '01:30'] }],
  ['2027-03-28T00:30:00Z', '2027-03-28T01:30:00Z', { clock: 'UTC', day: '2027-03-28', window: ['00:30', '01:30'] }],
])('from %s to %s is said on a clock, to the second', (from, to, { clock, day, window }) => {
  expect(spanWhen(at(from), at(to), 'Europe/Oslo')).toEqual({ clock, from: day, to: day, windows: [window] });
});

test.each([0, 999, 24 * 3_600_000])('a span of %d ms is none', (length) => {
  expect(() => spanWhen(at('2026-11-27T10:00:00Z'), at('2026-11-27T10:00:00Z') + length, 'UTC')).toThrow(RangeError);
});

test('it is on from then to then, whatever the zone, and is read back', () => {
  const zones = ['Europe/Oslo', 'America/New_York', 'Australia/Lord_Howe', 'UTC', 'Asia/Kolkata'];
  fc.assert(
    fc.property(
      fc.integer({ min: at('2026-10-20T00:00:00Z') / 1000, max: at('2027-04-10T00:00:00Z') / 1000 }),
      fc.integer({ min: 1, max: 86_399 }),
      fc.constantFrom(...zones),
      (second, length, zone) => {
        const [from, to] = [second * 1000, (second + length) * 1000];
        const when = spanWhen(from, to, zone);
        expect(whenSchema.safeParse(when).success).toBe(true);
        const place = { zone: zoneTable('Europe/Oslo'), zoneTable, calendar: () => new Set<never>() };
        expect(instantsOf(when, place, from - 86_400_000, to + 86_400_000)).toEqual([[from, to]]);
        expect(spanOf(when)).toEqual([from, to]);
      },
    ),
    runs(200),
  );
});

test.each([
  {},
  { clock: 'UTC', from: '2026-11-27', to: '2026-11-28', windows: [['10:00', '11:00']] },
  { clock: 'UTC', from: '2026-11-27', to: '2026-11-27' },
  { from: '2026-11-27', to: '2026-11-27', windows: [['10:00', '11:00']] },
  { clock: 'UTC', from: '2026-11-27', to: '2026-11-27', windows: [['opens', '11:00']] },
  { clock: 'UTC', from: '2026-11-27', to: '2026-11-27', repeat: 'FREQ=DAILY', windows: [['10:00', '11:00']] },
  {
    clock: 'UTC',
    from: '2026-11-27',
    to: '2026-11-27',
    windows: [
      ['10:00', '11:00'],
      ['12:00', '13:00'],
    ],
  },
])('what is said otherwise is no such span: %j', (when) => {
  expect(spanOf(when as never)).toBeNull();
});

const NOW = at('2026-11-27T10:30:00Z');

test.each<[string, string]>(readRows('when/until.jsonl'))('at 11:30 in Oslo "%s" is %s', (text, until) => {
  expect(orThrow(readUntil(text, NOW, zoneTable('Europe/Oslo')))).toBe(at(until));
});

test.each([
  ['', '“” isn’t an end time.'],
  ['soon', '“soon” isn’t an end time.'],
  ['until', '“until” isn’t an end time.'],
  ['today 09:00', 'That time is already over.'],
  ['0 minutes', 'That time is already over.'],
  ['30 min ago', 'That time is already over.'],
  ['tomorrow 14:00', '“Put on now” lasts for a day at most.'],
  ['24 hours', '“Put on now” lasts for a day at most.'],
])('"%s" is refused: %s', (text, message) => {
  expect(readUntil(text, NOW, zoneTable('Europe/Oslo'))).toMatchObject({
    ok: false,
    message: expect.stringContaining(message),
  });
});

describe('a moment that is to come', () => {
  test.each([
    ['tomorrow 06:00', '2026-11-28T05:00:00Z'],
    ['at 06:00', '2026-11-28T05:00:00Z'],
    ['18:30', '2026-11-27T17:30:00Z'],
    ['on Mon 5:30', '2026-11-30T04:30:00Z'],
    ['1 Dec 05:30', '2026-12-01T04:30:00Z'],
    ['24.12. 10:00', '2026-12-24T09:00:00Z'],
    ['in 2 hours', '2026-11-27T12:30:00Z'],
    ['20 minutes', '2026-11-27T10:50:00Z'],
    ['tomorrow noon', '2026-11-28T11:00:00Z'],
    ['midnight', '2026-11-27T23:00:00Z'],
  ])('at 11:30 in Oslo "%s" is %s', (text, instant) => {
    expect(orThrow(readAhead(text, NOW, zoneTable('Europe/Oslo')))).toBe(at(instant));
  });
  test.each([
    ['tomorrow', 'Add a time'],
    ['1 Dec', 'Add a time'],
    ['soon', '“soon” isn’t a time.'],
    ['', '“” isn’t a time.'],
    ['today 09:00', 'That time is already over.'],
    ['30 min ago', 'That time is already over.'],
  ])('"%s" is told: %s', (text, said) => {
    const read = readAhead(text, NOW, zoneTable('Europe/Oslo'));
    expect(read.ok ? 'understood' : read.message).toContain(said);
  });
});
