import { withPatches, type Booking, type Plan } from '../plan';
import { exchangeLightsOut, leaveOut, letWin, networkBackdrop, putOnHold, remove, toFront, type Fix } from './fixes';
import { smallPlan } from '../tests/small-plan';

function plan(more: object = {}): Plan {
  return smallPlan({
    screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 2, height: 1, tags: [] }],
    media: ['one', 'two', 'three', 'ending'].map((id) => ({
      id,
      ...(id === 'ending' ? { when: { to: '2026-12-31' }, tags: ['ending'] } : { tags: ['lasting'] }),
    })),
    ...more,
  });
}

const list = (id: string, ...items: object[]) => ({ id, name: id.toUpperCase(), items });
const booking = (id: string, values: Partial<Booking> = {}): Booking => ({
  ...{ id, name: id.toUpperCase(), content: { playlist: 'loop' }, where: 'all', when: {}, priority: 3 },
  created: '2026-01-01T00:00:00Z',
  ...values,
});
/** The label, and what its edits make of the objects. */
const made = ({ label, edits }: Fix, of: Plan) => [label, withPatches(of, edits)] as const;
const holding = (...bookings: Booking[]) => ({ ...plan(), bookings });
const bookingsOf = (fix: Fix, ...bookings: Booking[]) => made(fix, holding(...bookings))[1].bookings;

test('a booking is removed, or put on hold, by its name', () => {
  const one = booking('a');
  expect(remove(one).label).toBe('Delete “A”');
  expect(bookingsOf(remove(one), one, booking('b')).map(({ id }) => id)).toEqual(['b']);
  expect(putOnHold(one).label).toBe('Put “A” on hold');
  expect(bookingsOf(putOnHold(one), one)).toEqual([{ ...one, onHold: true }]);
});

test.each([
  // winner, loser: both afterwards
  [3, 3, 4, 3],
  [1, 4, 5, 4],
  [5, 4, 5, 4],
  [5, 5, 5, 4],
  [2, 5, 5, 4],
])('priorities %i and %i become %i and %i, so that the first is ahead', (mine, theirs, ahead, behind) => {
  const [winner, loser] = [booking('a', { priority: mine }), booking('b', { priority: theirs })];
  const fix = letWin(winner, loser);
  expect(fix.label).toBe('“A” ahead of “B”');
  expect(bookingsOf(fix, winner, loser).map(({ priority }) => priority)).toEqual([ahead, behind]);
});

test('screens are left out by their names; not where they are more than a dozen', () => {
  const one = booking('a', { where: 'hall or deck' });
  const names = (count: number) => Array.from({ length: count }, (_, i) => `s${i}`);
  const where = (fixes: Fix[]) => fixes.map((fix) => [fix.label, bookingsOf(fix, one)[0]?.where]);
  expect(where(leaveOut(one, ['x']))).toEqual([['Leave this screen out', '(hall or deck) and not screen:x']]);
  expect(where(leaveOut(one, ['x', 'y']))).toEqual([
    ['Leave these screens out', '(hall or deck) and not (screen:x or screen:y)'],
  ]);
  expect(leaveOut(one, names(12))).toHaveLength(1);
  expect(leaveOut(one, names(13))).toEqual([]);
});

test('beginning and end of all lights-out hours change places; the end of a day is the beginning of one', () => {
  const dark = (lightsOut?: object[]) => {
    const [screen] = plan({
      screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 2, height: 1, ...(lightsOut ? { lightsOut } : {}) }],
    }).screens;
    if (!screen) throw new Error('no screen');
    const fix = exchangeLightsOut([screen]);
    expect(fix.label).toBe('Swap on and off');
    return made(fix, plan({ screens: [screen] }))[1].screens[0]?.lightsOut;
  };
  expect(dark([{ windows: [['06:00', '24:00']] }, { from: '2026-12-01', windows: [['01:00', '02:00']] }])).toEqual([
    { windows: [['00:00', '06:00']] },
    { from: '2026-12-01', windows: [['02:00', '01:00']] },
  ]);
  expect(dark([{ from: '2026-12-01' }])).toEqual([{ from: '2026-12-01', windows: [] }]);
  expect(dark()).toEqual([]);
  expect(exchangeLightsOut([]).edits).toEqual([]);
});

describe('to the front of its playlist', () => {
  const own = plan({
    playlists: [
      list('other', { media: 'three' }),
      list('loop', { media: 'one' }, { media: 'two' }, { media: 'three' }, { playlist: 'other' }),
    ],
  });

  test('an item goes ahead of all others, which stay in their order', () => {
    const [fix, ...more] = toFront(own, booking('a'), 'three');
    expect(more).toEqual([]);
    const [label, after] = made(fix ?? { label: '', edits: [] }, own);
    expect(label).toBe('Move it to the front of “LOOP”');
    const items = after.playlists.find(({ id }) => id === 'loop')?.items ?? [];
    expect(items.map((item) => item.media ?? item.playlist)).toEqual(['three', 'one', 'two', 'other']);
    expect(after.playlists.find(({ id }) => id === 'other')).toBe(own.playlists.find(({ id }) => id === 'other'));
  });

  test('not where it is no item itself, or no playlist is booked', () => {
    expect(toFront(own, booking('a'), 'ending')).toEqual([]);
    expect(toFront(own, booking('a', { content: { media: 'three' } }), 'three')).toEqual([]);
  });
});

describe('the network’s backdrop', () => {
  const offered = (...playlists: object[]) =>
    networkBackdrop(plan({ playlists })).map((fix) => [fix.label, made(fix, plan({ playlists }))[1].network.backdrop]);

  test('is the first playlist with something for every screen at every time', () => {
    expect(
      offered(
        list('a', { media: 'ending' }),
        list('b', { media: 'ending' }, { media: 'one' }),
        list('c', { media: 'one' }),
      ),
    ).toEqual([['Make “B” the network’s backdrop', { playlist: 'b' }]]);
  });

  test.each<[string, boolean, object[]]>([
    ['an item for some screens only', false, [list('a', { media: 'one', where: 'hall' })]],
    ['an item for some time only', false, [list('a', { media: 'one', when: { to: '2026-12-31' } })]],
    ['an item for all time', true, [list('a', { media: 'one', when: {} })]],
    ['a file for some time only', false, [list('a', { media: 'ending' })]],
    ['a rule that collects a lasting file', true, [list('a', { collect: 'ending or lasting' })]],
    ['a rule that collects none', false, [list('a', { collect: 'ending' })]],
    ['a nested playlist that always shows', true, [list('a', { playlist: 'z' }), list('z', { media: 'one' })]],
    ['a nested playlist that does not', false, [list('a', { playlist: 'z' }), list('z', { media: 'ending' })]],
    ['no items', false, [list('a')]],
  ])('%s: %s', (_, fits, playlists) => {
    expect(offered(...playlists).some(([label]) => label === 'Make “A” the network’s backdrop')).toBe(fits);
  });

  test('is not offered where there is one, or nothing would always show', () => {
    const own = plan({ network: { name: 'N', backdrop: { media: 'one' } }, playlists: [list('a', { media: 'one' })] });
    expect(networkBackdrop(own)).toEqual([]);
    expect(networkBackdrop(plan())).toEqual([]);
  });
});
