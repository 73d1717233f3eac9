import { newToken, tokenHash } from './tokens';

test('a token can stand behind an option of the command line, and is found by its hash', () => {
  // Of 64 tokens one would begin with a dash, which there begins an option.
  const tokens = Array.from({ length: 2000 }, newToken);
  expect(tokens.filter(({ token }) => !/^\w[\w-]{42}$/.test(token))).toEqual([]);
  expect(tokens.every(({ token, hash }) => tokenHash(token) === hash)).toBe(true);
});
