import { playlistSchema } from './playlist';

const issuesOf = (...items: object[]) =>
  (playlistSchema.safeParse({ id: 'house', name: 'House', items }).error?.issues ?? []).map(({ path, message }) => ({
    path: path.join('/'),
    message,
  }));

test('an item names one thing', () => {
  const message = 'An item names one of “media”, “playlist”, “layout”, “bulletin”, “input” and “collect”.';
  expect(issuesOf({})).toEqual([{ path: 'items/0', message }]);
  expect(issuesOf({ media: 'flag', playlist: 'offers' })).toEqual([{ path: 'items/0', message }]);
  expect(issuesOf({ media: 'flag' }, { playlist: 'offers' }, { collect: 'offer', order: 'name', limit: 2 })).toEqual(
    [],
  );
});

test('what is of another kind of item is told where it stands', () => {
  expect(issuesOf({ media: 'flag', order: 'name', limit: 2 })).toEqual([
    { path: 'items/0/order', message: '“order” belongs to a collecting rule. Remove it.' },
    { path: 'items/0/limit', message: '“limit” belongs to a collecting rule. Remove it.' },
  ]);
  expect(issuesOf({ media: 'flag' }, { playlist: 'offers', durationMs: 5000 })).toEqual([
    { path: 'items/1/durationMs', message: 'A playlist’s duration comes from its items. Remove this one.' },
  ]);
});

test('two items have two ids; those without are no concern', () => {
  expect(issuesOf({ id: 'a', media: 'flag' }, { media: 'map' }, { media: 'tide' }, { id: 'b', media: 'flag' })).toEqual(
    [],
  );
  expect(issuesOf({ id: 'a', media: 'flag' }, { id: 'b', media: 'map' }, { id: 'a', media: 'tide' })).toEqual([
    { path: 'items/2/id', message: 'Another item already has the id “a”. Each item needs its own id.' },
  ]);
});

test('how an item looks and sounds is bounded, and told where it stands', () => {
  const one = (look: object) => issuesOf({ media: 'flag', ...look }).map(({ path, message }) => `${path}: ${message}`);
  for (const kind of ['cut', 'fade', 'slide', 'wipe']) expect(one({ transition: { kind, ms: 5_000 } })).toEqual([]);
  for (const fit of ['whole', 'fill', 'stretch', 'exact']) expect(one({ fit, volume: 1 })).toEqual([]);
  expect(one({ transition: { kind: 'melt', ms: 600 } })).toEqual([
    'items/0/transition/kind: A transition is a cut, fade, slide or wipe.',
  ]);
  expect(one({ transition: { kind: 'fade', ms: 5_001 } })).toEqual([
    'items/0/transition/ms: A transition lasts at most 5 seconds.',
  ]);
  expect(one({ transition: { kind: 'fade', ms: -1 } })).toEqual([
    'items/0/transition/ms: A transition lasts 0 milliseconds or more.',
  ]);
  expect(one({ fit: 'zoom' })).toEqual(['items/0/fit: A fit is whole, fill, stretch or exact.']);
  expect(one({ volume: 1.1 })).toEqual(['items/0/volume: A volume is at most 1.']);
  expect(one({ volume: -0.1 })).toEqual(['items/0/volume: A volume is at least 0.']);
});

test('a nested playlist has no look of its own: its items have', () => {
  const look = { transition: { kind: 'fade', ms: 600 }, fit: 'fill', volume: 0.5 };
  expect(issuesOf({ playlist: 'offers', ...look }).map(({ path, message }) => `${path}: ${message}`)).toEqual([
    'items/0/transition: Each item of a nested playlist has its own transition. Remove this one.',
    'items/0/fit: Each item of a nested playlist has its own fit. Remove this one.',
    'items/0/volume: Each item of a nested playlist has its own volume. Remove this one.',
  ]);
  expect(issuesOf({ collect: 'offer', ...look })).toEqual([]);
});
