import { nestingOf, nestingProblems } from './nesting';

const lists = (nested: Record<string, { entries?: number; holds?: string[] }>) =>
  new Map(Object.entries(nested).map(([id, { entries = 0, holds = [] }]) => [id, { entries, nested: holds }]));

test('lengths and depths, a nested one counted as often as it stands there', () => {
  const { lengths, depths, circular } = nestingOf(
    lists({
      a: { entries: 2 },
      b: { entries: 1, holds: ['a', 'a'] },
      c: { holds: ['b', 'a'] },
      d: { entries: 3, holds: ['unknown'] },
    }),
  );
  expect(Object.fromEntries(lengths)).toEqual({ a: 2, b: 5, c: 7, d: 3 });
  expect(Object.fromEntries(depths)).toEqual({ a: 1, b: 2, c: 3, d: 1 });
  expect(circular.size).toBe(0);
});

test('what contains itself, and what contains that, has no length', () => {
  const { lengths, circular } = nestingOf(
    lists({
      a: { holds: ['b'] },
      b: { holds: ['a'] },
      c: { entries: 1, holds: ['a'] },
      d: { entries: 1 },
      e: { holds: ['e', 'd'] },
    }),
  );
  expect([...circular]).toEqual(['a', 'b', 'c', 'e']);
  expect(Object.fromEntries(lengths)).toEqual({ d: 1 });
});

const playlist = (...items: (string | null)[]) => ({
  items: items.map((id) => (id === null ? { media: 'flag' } : { playlist: id })),
});
const problems = (all: Record<string, object>) =>
  nestingProblems('playlist', new Map(Object.entries(all))).map(({ id, path, message }) => [
    id,
    path.join('/'),
    message,
  ]);

test('26 playlists that each hold the one before twice are refused, and at once', () => {
  const all = Object.fromEntries(
    Array.from({ length: 26 }, (_, i) => [`p${i}`, i === 0 ? playlist(null) : playlist(`p${i - 1}`, `p${i - 1}`)]),
  );
  const found = problems(all);
  // 2^12 = 4 096 is allowed as a length, 2^13 is not; ten deep is.
  expect(found.filter(([, , message]) => message?.includes('5000 entries')).map(([id]) => id)).toEqual(
    Array.from({ length: 13 }, (_, i) => `p${i + 13}`),
  );
  expect(found.filter(([, , message]) => message?.includes('10 levels deep')).map(([id]) => id)).toEqual([
    'p10',
    'p11',
    'p12',
  ]);
  expect(found[0]?.[1]).toBe('items');
});

test('a circle is told at the item that closes it, on each of its playlists and on no other', () => {
  expect(problems({ a: playlist(null, 'b'), b: playlist('a'), c: playlist('a', null) })).toEqual([
    ['a', 'items/1/playlist', 'This playlist contains itself. Remove the item.'],
    ['b', 'items/0/playlist', 'This playlist contains itself. Remove the item.'],
  ]);
});

test('what is no playlist, and kinds that hold none of their own', () => {
  expect(problems({ a: { items: 'none' }, b: {}, c: playlist(null) })).toEqual([]);
  expect(nestingProblems('screen', new Map([['a', {}]]))).toEqual([]);
});

test('a chain of any length is walked without going deeper for each', () => {
  const all = Object.fromEntries(
    Array.from({ length: 20_000 }, (_, i) => [`p${i}`, i === 0 ? playlist(null) : playlist(`p${i - 1}`)]),
  );
  expect(problems(all)).toHaveLength(20_000 - 10);
});

test('music is not nested: a playlist may be its own, and no longer for it', () => {
  const documents = new Map([
    ['a', { items: [{ media: 'x' }], music: { playlist: 'a', volume: 1 } }],
    ['b', { items: [{ playlist: 'a' }], music: { playlist: 'b', volume: 1 } }],
  ]);
  expect(nestingProblems('playlist', documents)).toEqual([]);
});
