import { movedTo } from './order';

const list = ['a', 'b', 'c', 'd', 'e'];

test.each([
  ['one down', [0], 2, 'bcade'],
  ['one up', [4], 1, 'aebcd'],
  ['to the end', [0], 4, 'bcdea'],
  ['several down, in their order', [0, 2], 3, 'bdace'],
  ['several up', [2, 4], 0, 'ceabd'],
  ['several from both sides', [0, 4], 2, 'bcaed'],
  ['on to one of themselves', [0, 2], 2, 'abcde'],
  ['to no place', [0], 9, 'abcde'],
])('%s', (_, places, to, expected) => {
  expect(movedTo(list, new Set(places), to).join('')).toBe(expected);
  expect(list.join('')).toBe('abcde');
});
