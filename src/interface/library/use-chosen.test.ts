import type { Media } from '@/core/plan';
import { chosenAfter } from './use-chosen';

const file = (id: string) => ({ id }) as Media;
const sight = ['a', 'b', 'c', 'd', 'e'].map(file);
const after = (chosen: string, pressed: string, from: string | null = null) =>
  [...chosenAfter(new Map([...chosen].map((id) => [id, file(id)])), sight, file(pressed), from).keys()].sort().join('');

test('one is chosen, and let go again', () => {
  expect(after('', 'b')).toBe('b');
  expect(after('bd', 'b')).toBe('d');
});

test('all between are chosen, or let go, either way round', () => {
  expect(after('b', 'd', 'b')).toBe('bcd');
  expect(after('d', 'b', 'd')).toBe('bcd');
  expect(after('abcde', 'b', 'd')).toBe('ae');
});

test('what is no more in sight begins no range', () => {
  expect(after('x', 'c', 'x')).toBe('cx');
  expect(after('', 'y', 'a')).toBe('y');
});
