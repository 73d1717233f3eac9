import { contentKey, contentFrom, knownContent } from './contents';
import { knownItem } from './known';

test('a content has its kind beside it', () => {
  expect(knownContent({ media: 'flag', durationMs: 5000 })).toEqual({ kind: 'media', id: 'flag', durationMs: 5000 });
  expect(knownContent({ playlist: 'house' })).toEqual({ kind: 'playlist', id: 'house' });
  for (const content of [{ media: 'flag', durationMs: 5000 }, { media: 'flag' }, { playlist: 'house' }])
    expect(contentFrom(knownContent(content))).toEqual(content);
  // A playlist has a duration of its own.
  expect(contentFrom({ kind: 'playlist', id: 'house', durationMs: 5000 })).toEqual({ playlist: 'house' });
});

test('contents have one word each, and other contents other words', () => {
  const words = [
    contentKey({ media: 'flag' }),
    contentKey({ media: 'flag', durationMs: 5000 }),
    contentKey({ media: 'map' }),
    contentKey({ playlist: 'flag' }),
    contentKey({ playlist: 'map' }),
  ];
  expect(words).toEqual(['media flag ', 'media flag 5000', 'media map ', 'playlist flag', 'playlist map']);
});

test('an item has its kind beside it; what a rule does not say has its usual value', () => {
  expect(knownItem({ media: 'flag' })).toEqual({ kind: 'media', id: 'flag', durationMs: undefined });
  expect(knownItem({ playlist: 'house' })).toEqual({ kind: 'playlist', id: 'house' });
  expect(knownItem({ collect: 'offer' })).toEqual({
    ...{ kind: 'collect', rule: 'offer', order: 'name', limit: Infinity, durationMs: undefined },
  });
  expect(knownItem({ collect: 'offer', order: 'newest', limit: 3, durationMs: 9000 })).toEqual({
    ...{ kind: 'collect', rule: 'offer', order: 'newest', limit: 3, durationMs: 9000 },
  });
});
