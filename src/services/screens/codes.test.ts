import { newUserCode, readCode, showCode } from './codes';

test('RFC 8628 section 6.1: codes have eight letters, without vowels and without digits', () => {
  const codes = Array.from({ length: 500 }, newUserCode);
  for (const code of codes) expect(code).toMatch(/^[BCDFGHJKLMNPQRSTVWXZ]{8}$/);
  expect(new Set(codes).size).toBe(codes.length);
  expect(new Set(codes.join('')).size).toBe(20);
});

test('a code is shown in two halves, and read back however it is typed', () => {
  expect(showCode('BCDFGHJK')).toBe('BCDF-GHJK');
  for (const typed of ['BCDF-GHJK', ' bcdf ghjk\t', 'b.c_d–f—g-h j k']) expect(readCode(typed)).toBe('BCDFGHJK');
});

test.each(['', 'BCDFGHJ', 'BCDFGHJKL', 'BCDFGHJA', 'BCDF1HJK', 'BCDFGHJK!'])('"%s" can be no code', (typed) => {
  expect(readCode(typed)).toBeNull();
});
