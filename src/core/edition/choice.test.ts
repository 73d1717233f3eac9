import fc from 'fast-check';
import { patchesBetween, referenceProblems, type ObjectKey, type Plan } from '../plan';
import { randomPlan } from '../tests/random-plan';
import { runs } from '../tests/runs';
import { chosenPlan } from '.';
import { smallPlan } from '../tests/small-plan';

const CREATED = '2026-01-01T00:00:00Z';
const image = (id: string, more: object = {}) => ({
  ...{ id, name: id, kind: 'image', width: 2, height: 1, bytes: 1, added: CREATED },
  ...more,
});
const booking = (id: string, more: object) => ({ id, name: id, where: 'all', created: CREATED, ...more });
const planOf = (parts: object) => smallPlan({ media: [image('flag')], ...parts });
const screen = (id: string, more: object = {}) => ({ id, name: id, site: 'quay', width: 2, height: 1, ...more });
const choose = (from: Plan, to: Plan, ...texts: string[]) => {
  const keys = texts.map((text) => {
    const [kind = '', id = ''] = text.split(' ');
    return { kind, id } as ObjectKey;
  });
  const { plan, along } = chosenPlan(from, to, keys);
  return {
    changed: patchesBetween(from, plan)
      .map(({ kind, id = '' }) => `${kind} ${id}`)
      .sort(),
    along: along.map((one) => `${one.kind} ${one.id} for ${one.for.kind} ${one.for.id}`),
    plan,
  };
};

const before = planOf({ screens: [screen('hall')], playlists: [{ id: 'house', name: 'House', items: [] }] });

test('what is chosen alone is taken', () => {
  const after = planOf({
    screens: [screen('hall', { name: 'Great hall' })],
    playlists: [{ id: 'house', name: 'House loop', items: [] }],
  });
  const { changed, along, plan } = choose(before, after, 'screen hall');
  expect([changed, along]).toEqual([['screen hall'], []]);
  expect(plan.playlists[0]?.name).toBe('House');
});

test('what a chosen one names and is new goes along, and what that names', () => {
  const after = planOf({
    screens: [screen('hall'), screen('deck')],
    media: [image('flag'), image('tide'), image('other')],
    playlists: [
      { id: 'house', name: 'House', items: [] },
      { id: 'inner', name: 'Inner', items: [{ media: 'tide' }] },
    ],
    bookings: [
      booking('b', { content: { playlist: 'inner' }, where: 'screen:deck or site:quay' }),
      booking('c', { content: { media: 'other' } }),
    ],
  });
  const { changed, along } = choose(before, after, 'booking b');
  expect(changed).toEqual(['booking b', 'media tide', 'playlist inner', 'screen deck']);
  expect(along.sort()).toEqual([
    'media tide for playlist inner',
    'playlist inner for booking b',
    'screen deck for booking b',
  ]);
  expect(choose(before, after, 'media other').along).toEqual([]);
});

test('a new screen that one item of a playlist is for goes along', () => {
  const after = planOf({
    screens: [screen('hall'), screen('deck')],
    playlists: [{ id: 'house', name: 'House', items: [{ media: 'flag', where: 'screen:deck' }] }],
  });
  expect(choose(before, after, 'playlist house').along).toEqual(['screen deck for playlist house']);
});

test('what goes takes along who named it', () => {
  const from = planOf({
    media: [image('flag'), image('tide')],
    playlists: [{ id: 'house', name: 'House', items: [{ media: 'tide' }] }],
    bookings: [booking('b', { content: { playlist: 'house' } })],
  });
  const to = planOf({
    playlists: [{ id: 'house', name: 'House', items: [{ media: 'flag' }] }],
    bookings: [booking('b', { content: { playlist: 'house' }, priority: 4 })],
  });
  const { changed, along } = choose(from, to, 'media tide');
  expect(changed).toEqual(['media tide', 'playlist house']);
  expect(along).toEqual(['playlist house for media tide']);
});

test('two that exchange their names go together', () => {
  const from = planOf({ playlists: ['a', 'b'].map((id) => ({ id, name: id.toUpperCase(), items: [] })) });
  const to = planOf({
    playlists: [
      { id: 'a', name: 'b', items: [] },
      { id: 'b', name: 'a', items: [] },
    ],
  });
  expect(choose(from, to, 'playlist a').along).toEqual(['playlist b for playlist a']);
  expect(patchesBetween(choose(from, to, 'playlist a').plan, to)).toEqual([]);
  // A screen's name is its own within its site alone.
  const screens = planOf({ screens: [screen('hall', { name: 'X' })] });
  const later = planOf({
    sites: ['quay', 'pier'].map((id) => ({ id, name: id, timeZone: 'UTC' })),
    screens: [screen('hall', { name: 'Y' }), screen('deck', { name: 'X', site: 'pier' })],
  });
  expect(choose(screens, later, 'screen deck').along).toEqual(['site pier for screen deck']);
});

test('playlists that would contain each other go together', () => {
  const nested = (outer: string, inner: string) =>
    planOf({
      playlists: [
        { id: outer, name: outer, items: [{ playlist: inner }] },
        { id: inner, name: inner, items: [] },
        { id: 'house', name: 'House', items: [] },
      ],
    });
  const { changed, along } = choose(nested('a', 'b'), nested('b', 'a'), 'playlist b');
  expect(changed).toEqual(['playlist a', 'playlist b']);
  expect(along).toEqual(['playlist a for playlist b']);
});

test('what is not there, and what did not change, is no choice', () => {
  expect(choose(before, before, 'screen hall', 'screen gone')).toMatchObject({ changed: [], along: [] });
  expect(choose(before, planOf({ screens: [screen('hall')] }), 'playlist house').changed).toEqual(['playlist house']);
});

test('any choice can be published; what nobody chose and nothing needs stays; the rest can follow', () => {
  fc.assert(
    fc.property(randomPlan, randomPlan, fc.array(fc.nat()), (a, b, picks) => {
      const [from, to] = [a.plan, b.plan];
      const all = patchesBetween(from, to).map(({ kind, id = '' }): ObjectKey => ({ kind, id }));
      const chosen = picks.flatMap((pick) => all[pick % Math.max(1, all.length)] ?? []);
      const { plan, along } = chosenPlan(from, to, chosen);
      expect(referenceProblems(plan)).toEqual([]);
      const meant = new Set([...chosen, ...along].map(({ kind, id }) => `${kind} ${id}`));
      const changed = patchesBetween(from, plan).map(({ kind, id = '' }) => `${kind} ${id}`);
      expect(changed.sort()).toEqual([...meant].sort());
      expect(patchesBetween(chosenPlan(plan, to, all).plan, to)).toEqual([]);
    }),
    runs(60),
  );
});

test('a screen that goes takes along who chose it by a selector, which no reference tells', () => {
  const parts = { playlists: [{ id: 'house', name: 'House', items: [] }] };
  const screens = [{ id: 'hall', name: 'Hall', site: 'quay', width: 10, height: 10 }];
  const notes = (where: string) => [booking('notes', { content: { playlist: 'house' }, where })];
  const before = planOf({ ...parts, screens, bookings: notes('screen:hall') });
  const after = planOf({ ...parts, bookings: notes('all') });
  const { plan, along } = chosenPlan(before, after, [{ kind: 'screen', id: 'hall' }]);
  expect(plan).toEqual(after);
  expect(along).toEqual([{ kind: 'booking', id: 'notes', for: { kind: 'screen', id: 'hall' } }]);
});
