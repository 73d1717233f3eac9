import fc from 'fast-check';
import { orThrow } from '../refusal';
import { readPlan, sharing, type Plan } from '../plan';
import { runs } from '../tests/runs';
import { canonicalJson, canonicalWriter } from './canonical';
import { touchedScreens } from './touched';

const CREATED = '2026-01-01T00:00:00Z';
const image = { kind: 'image', width: 2, height: 1, bytes: 1, added: CREATED };

/** Two sites; the north has a hall and a deck, the south a kiosk. */
const document = () => ({
  format: 'lanternpost/plan',
  version: 1,
  network: { name: 'N', backdrop: { playlist: 'rest' } } as Record<string, unknown>,
  calendars: [
    { id: 'storm', name: 'Storm', dates: ['2026-12-05'] },
    { id: 'feast', name: 'Feast', dates: ['2026-12-24'] },
  ],
  sites: [
    { id: 'north', name: 'North', timeZone: 'UTC', tags: ['north'] },
    { id: 'south', name: 'South', timeZone: 'UTC', backdrop: { media: 'south-flag' } },
  ] as Record<string, unknown>[],
  screens: [
    { id: 'hall', name: 'Hall', site: 'north', width: 2, height: 1, tags: ['hall'] },
    {
      id: 'deck',
      name: 'Deck',
      site: 'north',
      width: 2,
      height: 1,
      lightsOut: [{ not: ['feast'], windows: [['22:00', '05:00']] }],
    },
    { id: 'kiosk', name: 'Kiosk', site: 'south', width: 2, height: 1, backdrop: { media: 'card' } },
  ] as Record<string, unknown>[],
  media: ['rest', 'south-flag', 'card', 'news', 'poster', 'stormy'].map((id) => ({
    ...{ id, name: id, ...image },
    ...(id === 'poster' ? { tags: ['poster'] } : {}),
    ...(id === 'stormy' ? { when: { only: ['storm'] } } : {}),
  })) as Record<string, unknown>[],
  playlists: [
    { id: 'rest', name: 'Rest', items: [{ media: 'rest' }] },
    { id: 'inner', name: 'Inner', items: [{ collect: 'poster' }, { media: 'stormy' }] },
    { id: 'outer', name: 'Outer', items: [{ playlist: 'inner' }] },
    { id: 'dated', name: 'Dated', items: [{ media: 'news', when: { not: ['feast'] } }] },
  ] as Record<string, unknown>[],
  bookings: [
    { id: 'b-hall', name: 'B', content: { playlist: 'outer' }, where: 'hall', created: CREATED },
    {
      id: 'b-south',
      name: 'C',
      content: { media: 'news' },
      where: 'site:south',
      created: CREATED,
      when: { only: ['storm'] },
    },
    { id: 'b-dated', name: 'D', content: { playlist: 'dated' }, where: 'screen:deck', created: CREATED },
  ] as Record<string, unknown>[],
});

type Document = ReturnType<typeof document>;
const planOf = (change: (plan: Document) => void = () => undefined): Plan => {
  const made = document();
  change(made);
  return orThrow(readPlan(made));
};
const one = (list: Record<string, unknown>[], id: string) => list.find((entry) => entry.id === id) ?? {};

test.each<[string, (plan: Document) => void, string[]]>([
  ['nothing', () => undefined, []],
  ['the network’s name', (plan) => (plan.network.name = 'M'), ['deck', 'hall', 'kiosk']],
  ['what the backdrop of all shows', (plan) => (one(plan.media, 'rest').bytes = 2), ['deck', 'hall', 'kiosk']],
  ['a site', (plan) => (one(plan.sites, 'north').tags = ['cold']), ['deck', 'hall']],
  ['a site’s backdrop', (plan) => (one(plan.media, 'south-flag').bytes = 2), ['kiosk']],
  ['a screen’s backdrop', (plan) => (one(plan.media, 'card').bytes = 2), ['kiosk']],
  ['a screen', (plan) => (one(plan.screens, 'deck').width = 3), ['deck']],
  ['a booking', (plan) => (one(plan.bookings, 'b-hall').priority = 5), ['hall']],
  [
    'where a booking is: there and here',
    (plan) => (one(plan.bookings, 'b-hall').where = 'screen:deck'),
    ['deck', 'hall'],
  ],
  ['a booking that goes', (plan) => plan.bookings.splice(0, 1), ['hall']],
  ['a file that is booked', (plan) => (one(plan.media, 'news').bytes = 2), ['deck', 'kiosk']],
  ['a file that a rule collects, in a nested playlist', (plan) => (one(plan.media, 'poster').bytes = 2), ['hall']],
  ['a file that a rule comes to collect', (plan) => (one(plan.media, 'card').tags = ['poster']), ['hall', 'kiosk']],
  ['a nested playlist', (plan) => (one(plan.playlists, 'inner').items = []), ['hall']],
  [
    'a calendar that a booking and a file hang on',
    (plan) => plan.calendars.splice(0, 1, { id: 'storm', name: 'Storm', dates: [] }),
    ['hall', 'kiosk'],
  ],
  [
    'a calendar that lights-out and an item hang on',
    (plan) => plan.calendars.splice(1, 1, { id: 'feast', name: 'Feast', dates: [] }),
    ['deck'],
  ],
])('%s', (_, change, screens) => {
  const before = planOf();
  const after = sharing(before, planOf(change));
  expect([...touchedScreens(before, after)].sort()).toEqual(screens);
});

test('screens that come, and screens that go', () => {
  const before = planOf();
  const less = sharing(
    before,
    planOf((plan) => plan.screens.splice(0, 1)),
  );
  expect([...touchedScreens(before, less)]).toEqual(['hall']);
  expect([...touchedScreens(less, sharing(less, planOf()))]).toEqual(['hall']);
});

test('a writer that knows objects again writes what RFC 8785 says, fields without a value left out', () => {
  const json = fc.letrec<{ value: unknown }>((tie) => ({
    value: fc.oneof(
      { depthSize: 'small' },
      fc.string({ unit: 'grapheme' }),
      fc.double({ noNaN: true, noDefaultInfinity: true }),
      fc.boolean(),
      fc.constant(null),
      fc.array(tie('value'), { maxLength: 4 }),
      fc.dictionary(fc.string({ maxLength: 3 }), fc.oneof(tie('value'), fc.constant(undefined)), { maxKeys: 4 }),
    ),
  })).value;
  fc.assert(
    fc.property(json, (value) => {
      const write = canonicalWriter();
      expect([write(value), write(value)]).toEqual([canonicalJson(value), canonicalJson(value)]);
      expect(write([value, value])).toBe(canonicalJson([value, value]));
    }),
    runs(300),
  );
  expect(canonicalWriter()({ b: undefined, c: [1], a: {} })).toBe('{"a":{},"c":[1]}');
  expect(() => canonicalJson(undefined)).toThrow('Only JSON values have a canonical form.');
});
