import { playlistSchema } from './playlist';

const issuesOf = (...items: object[]) =>
  (playlistSchema.safeParse({ id: 'house', name: 'House', items }).error?.issues ?? []).map(({ path, message }) => ({
    path: path.join('/'),
    message,
  }));

test('an item names one thing', () => {
  const message = 'An item names one of "media", "playlist" and "collect".';
  expect(issuesOf({})).toEqual([{ path: 'items/0', message }]);
  expect(issuesOf({ media: 'flag', playlist: 'offers' })).toEqual([{ path: 'items/0', message }]);
  expect(issuesOf({ media: 'flag' }, { playlist: 'offers' }, { collect: 'offer', order: 'name', limit: 2 })).toEqual(
    [],
  );
});

test('what is of another kind of item is told where it stands', () => {
  expect(issuesOf({ media: 'flag', order: 'name', limit: 2 })).toEqual([
    { path: 'items/0/order', message: '"order" belongs to a collecting rule: remove it.' },
    { path: 'items/0/limit', message: '"limit" belongs to a collecting rule: remove it.' },
  ]);
  expect(issuesOf({ media: 'flag' }, { playlist: 'offers', durationMs: 5000 })).toEqual([
    { path: 'items/1/durationMs', message: 'A playlist has the durations of its items: remove this one.' },
  ]);
});

test('two items have two ids; those without are no concern', () => {
  expect(issuesOf({ id: 'a', media: 'flag' }, { media: 'map' }, { media: 'tide' }, { id: 'b', media: 'flag' })).toEqual(
    [],
  );
  expect(issuesOf({ id: 'a', media: 'flag' }, { id: 'b', media: 'map' }, { id: 'a', media: 'tide' })).toEqual([
    { path: 'items/2/id', message: '"a" is taken by another item: ids are unique.' },
  ]);
});
