import type { Screen } from '@/core/plan';
import { whereOf } from './where-of';

const screen = (id: string, site: string) => ({ id, site }) as Screen;
const all = [screen('a', 'quay'), screen('b', 'quay'), screen('c', 'pier'), screen('d', 'isle'), screen('e', 'isle')];
const pick = (...ids: string[]) =>
  whereOf(
    all.filter(({ id }) => ids.includes(id)),
    all,
  );

test('screens are said as shortly as they can be, and no screen too many', () => {
  expect(pick('a', 'b', 'c', 'd', 'e')).toBe('all');
  expect(pick('a', 'b', 'd')).toBe('site:quay or screen:d');
  // A site of one screen may get another.
  expect(pick('c')).toBe('screen:c');
  expect(pick('a')).toBe('screen:a');
  expect(pick()).toBe('');
});
