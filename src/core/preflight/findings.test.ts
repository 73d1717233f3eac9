import { parseInstant } from '../instant';
import { orThrow } from '../refusal';
import { readPlan, type Plan } from '../plan';
import { findings, type FindingKind } from '.';

const at = (text: string) => parseInstant(text) as number;
const [from, to] = [at('2026-12-01T00:00:00Z'), at('2026-12-08T00:00:00Z')];

const base = () => ({
  format: 'lanternpost/plan',
  version: 1,
  network: { name: 'Ternholm Line', backdrop: { media: 'flag' } as object | undefined },
  sites: [
    {
      id: 'quay',
      name: 'Quay',
      timeZone: 'Europe/Oslo',
      hours: {
        weekly: Object.fromEntries(
          ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'].map((day) => [day, [['06:00', '22:00']]]),
        ),
      },
    },
  ],
  screens: ['hall', 'deck'].map((id) => ({
    id,
    name: id,
    site: 'quay',
    width: 1920,
    height: 1080,
    tags: [id],
  })),
  media: ['flag', 'sailings', 'film'].map((id) => ({
    id,
    name: id,
    kind: 'image',
    width: 1,
    height: 1,
    bytes: 1,
    added: '2026-01-01T00:00:00Z',
  })),
  playlists: [],
  bookings: [] as object[],
});

type Document = ReturnType<typeof base>;

function plan(change: (document: Document) => void): Plan {
  const document = base();
  change(document);
  return orThrow(readPlan(document));
}

const booking = (id: string, values: object) => ({
  id,
  name: id,
  content: { media: 'sailings' },
  where: 'hall',
  created: '2026-01-01T00:00:00Z',
  when: {},
  ...values,
});
const found = (change: (document: Document) => void, span = [from, to] as const) => findings(plan(change), ...span);

test('a plan without trouble has no findings', () => {
  expect(found(({ bookings }) => bookings.push(booking('a', { when: { windows: [['06:00', '10:00']] } })))).toEqual([]);
});

const kindsOf = (list: readonly { kind: FindingKind }[]) => list.map((one) => one.kind);

test('what is over is over by now, not by the span that is asked for', () => {
  const tomorrow = plan(({ bookings }) =>
    bookings.push(booking('a', { when: { from: '2026-12-02', to: '2026-12-02' } })),
  );
  const [january, february] = [at('2027-01-01T00:00:00Z'), at('2027-02-01T00:00:00Z')];
  expect(kindsOf(findings(tomorrow, january, february, from))).toEqual([]);
  expect(kindsOf(findings(tomorrow, january, february, at('2026-12-03T12:00:00Z')))).toEqual(['expired']);
  expect(kindsOf(findings(tomorrow, from, to, from))).toEqual([]);
  // It shows before the span, and again long after it: there is nothing to tell.
  const yearly = plan(({ bookings }) =>
    bookings.push(booking('a', { when: { from: '2026-12-02', to: '2030-12-02', repeat: 'FREQ=YEARLY' } })),
  );
  expect(kindsOf(findings(yearly, january, february, from))).toEqual([]);
  expect(kindsOf(findings(yearly, january, february, at('2026-12-20T00:00:00Z')))).toEqual(['not yet begun']);
});

test('a clash that comes again has all its times, and none before the span', () => {
  const list = findings(
    plan(({ bookings }) => {
      bookings.push(booking('a', { when: { windows: [['22:00', '02:00']] } }));
      bookings.push(booking('b', { when: { windows: [['23:00', '01:30']] } }));
    }),
    at('2026-12-01T00:00:00Z'),
    at('2026-12-03T00:00:00Z'),
  );
  // 23:00 to 01:30 in Oslo is 22:00 to 00:30 by UTC.
  expect(list).toMatchObject([
    {
      kind: 'clash',
      times: [
        [at('2026-12-01T00:00:00Z'), at('2026-12-01T00:30:00Z')],
        [at('2026-12-01T22:00:00Z'), at('2026-12-02T00:30:00Z')],
        [at('2026-12-02T22:00:00Z'), at('2026-12-03T00:00:00Z')],
      ],
      span: [at('2026-12-01T00:00:00Z'), at('2026-12-01T00:30:00Z')],
    },
  ]);
});

test('which findings have fixes that one key makes', () => {
  const clash = found(({ bookings }) =>
    bookings.push(booking('a', { priority: 5 }), booking('b', { priority: 5, created: '2026-01-02T00:00:00Z' })),
  );
  expect(clash[0]?.fixes.map(({ label, edits }) => [label, edits.map((one) => one.id)])).toEqual([
    ['“a” ahead of “b”', ['b']],
    ['“b” ahead of “a”', ['a']],
  ]);
});

test('a change of clocks that shortens, lengthens or removes a window is told with its date', () => {
  const year = [at('2026-01-01T00:00:00Z'), at('2027-01-01T00:00:00Z')] as const;
  const list = found(
    ({ bookings }) =>
      bookings.push(
        booking('a', { when: { windows: [['01:30', '03:30']] } }),
        booking('b', { where: 'deck', when: { windows: [['02:10', '03:00']] } }),
      ),
    year,
  );
  expect(list.filter((one) => one.kind === 'change of clocks').map((one) => one.sentence)).toEqual([
    '“b” does not happen on 2026-03-29, when the clocks change.',
    '“a” lasts 1 h instead of 2 h on 2026-03-29, when the clocks change.',
    '“a” lasts 3 h instead of 2 h on 2026-10-25, when the clocks change.',
    // 02:10 is read as the first of the two, 03:00 stands after the second.
    '“b” lasts 1 h 50 min instead of 50 min on 2026-10-25, when the clocks change.',
  ]);
});

test('a whole day is longer or shorter for everybody: that is not told, a window a moment shorter is', () => {
  const march = [at('2026-03-28T00:00:00Z'), at('2026-03-31T00:00:00Z')] as const;
  const told = (when: object) => found(({ bookings }) => bookings.push(booking('a', { when })), march);
  expect(told({})).toEqual([]);
  expect(told({ windows: [['00:00', '24:00']] })).toEqual([]);
  expect(told({ windows: [['00:00', '23:59:59']] })).toMatchObject([
    {
      kind: 'change of clocks',
      severity: 'notice',
      about: ['a'],
      screens: ['hall'],
      advice: 'If that is right, do nothing. Otherwise give that day its own hours.',
      fixes: [],
    },
  ]);
  expect(told({ windows: [['02:10', '03:00']] })).toMatchObject([{ severity: 'warning' }]);
});

test('a booking on hold is no trouble', () => {
  expect(found(({ bookings }) => bookings.push(booking('a', { where: 'nowhere', onHold: true })))).toEqual([]);
});
