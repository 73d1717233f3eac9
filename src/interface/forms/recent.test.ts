import { keepRecent, recentOf } from './recent';

const shelf = () => {
  const kept = new Map<string, string>();
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  };
};

test('the newest goes first, each once, five at most, and each person has their own', () => {
  const one = shelf();
  for (const value of ['a', 'b', 'c', 'a', 'd', 'e', 'f']) keepRecent(one, 'ida', value);
  expect(recentOf(one, 'ida')).toEqual(['f', 'e', 'd', 'a', 'c']);
  expect(recentOf(one, 'otto')).toEqual([]);
});

test('where nothing can be kept, or what is kept is none of ours, there is nothing', () => {
  const full = {
    ...shelf(),
    setItem: () => {
      throw new Error('full');
    },
  };
  keepRecent(full, 'ida', 'a');
  keepRecent(null, 'ida', 'a');
  expect([recentOf(full, 'ida'), recentOf(null, 'ida')]).toEqual([[], []]);
  expect(recentOf({ ...shelf(), getItem: () => '{"a":1}' }, 'ida')).toEqual([]);
});
