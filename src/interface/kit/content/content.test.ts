import { type Content } from '@/core/plan';
import { contentName, contentOf, contentValue, firstFile, firstMedia } from './content';
import { smallPlan } from '@/core/tests/small-plan';

const plan = smallPlan({
  media: ['one', 'two', 'old'].map((id) => ({
    ...{ id, name: id.toUpperCase(), kind: 'image', width: 1, height: 1, bytes: 1, tags: [`t-${id}`] },
    added: id === 'old' ? '2025-01-01T00:00:00Z' : '2026-01-01T00:00:00Z',
  })),
  playlists: [
    { id: 'empty', name: 'Empty', items: [] },
    { id: 'inner', name: 'Inner', items: [{ playlist: 'empty' }, { media: 'two' }, { media: 'one' }] },
    { id: 'outer', name: 'Outer', items: [{ playlist: 'empty' }, { playlist: 'inner' }] },
    { id: 'rule', name: 'Rule', items: [{ collect: 't-nothing' }, { collect: 't-one or t-old', order: 'oldest' }] },
  ],
});

test('a content is a word, and the word is the content again', () => {
  expect(contentValue({ media: 'one', durationMs: 500 })).toBe('media:one');
  expect(contentValue({ playlist: 'inner' })).toBe('playlist:inner');
  expect(contentValue(undefined)).toBe('');
  expect(contentOf('media:one')).toEqual({ media: 'one' });
  expect(contentOf('media:one', 500)).toEqual({ media: 'one', durationMs: 500 });
  expect(contentOf('playlist:inner', 500)).toEqual({ playlist: 'inner' });
  for (const none of ['', 'media', 'media:', 'screen:hall']) expect(contentOf(none)).toBeUndefined();
});

test.each<[Content, string | undefined]>([
  [{ media: 'one' }, 'one'],
  [{ playlist: 'inner' }, 'two'],
  [{ playlist: 'outer' }, 'two'],
  [{ playlist: 'rule' }, 'old'],
  [{ playlist: 'empty' }, undefined],
  [{ playlist: 'gone' }, undefined],
])('the file that stands for %j is %s', (content, file) => {
  expect(firstMedia(plan, content)).toBe(file);
});

test('the file that stands for an item', () => {
  expect(firstFile(plan, { id: 'i', media: 'two' })).toBe('two');
  expect(firstFile(plan, { id: 'i', playlist: 'outer' })).toBe('two');
  expect(firstFile(plan, { id: 'i', collect: 't-nothing' })).toBeUndefined();
});

test('a content by name; by its id where the plan does not have it', () => {
  expect(contentName({ playlist: 'inner' }, plan)).toBe('playlist Inner');
  expect(contentName({ playlist: 'gone' }, plan)).toBe('playlist gone');
  expect(contentName({ media: 'two' }, plan)).toBe('TWO');
  expect(contentName({ media: 'gone' }, plan)).toBe('gone');
});
