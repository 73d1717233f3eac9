import fc from 'fast-check';
import { runs } from './tests/runs';
import { cut, graphemes, isOneLine, isSeen, isSound, lineOf, trimmed, unsoundPlace } from './text';

const FAMILY = '👨‍👩‍👧‍👦';

test('what no database keeps is told: NUL, and half a character', () => {
  expect(['Hall', 'Łódź 🛳', '', 'a\u0000b', 'half \ud83d', '\udc00'].map(isSound)).toEqual([
    ...[true, true, true, false, false, false],
  ]);
});

test('one line: no control characters, no other ends of lines', () => {
  expect(['Hall 2', 'a\nb', 'a\tb', '\u001b[31mred', 'a\u2028b', 'מזח'].map(isOneLine)).toEqual([
    ...[true, false, false, false, false, true],
  ]);
});

test('what leaves no mark is nothing to see', () => {
  expect(['', '  ', '\u200b\u200d', '\u3164', '\u2800\u00a0', '\u0007', '.', FAMILY].map(isSeen)).toEqual([
    ...[false, false, false, false, false, false, true, true],
  ]);
});

test('ends are trimmed of spaces of no width too; what stands within stays', () => {
  expect(trimmed(' \u200b Hall\u200b2 \ufeff\u2060')).toBe('Hall\u200b2');
});

test('characters are counted as people do', () => {
  expect([graphemes(''), graphemes('Hall'), graphemes(FAMILY), graphemes('e\u0301a')]).toEqual([0, 4, 1, 2]);
});

test('a cut never splits a character', () => {
  expect(cut('Hall', 4)).toBe('Hall');
  expect(cut('Halls', 4)).toBe('Hall');
  expect(cut(`Kai ${FAMILY}`, 6)).toBe('Kai ');
  expect(cut(`Kai ${FAMILY}`, 4 + FAMILY.length)).toBe(`Kai ${FAMILY}`);
  expect(cut(FAMILY, 3)).toBe('');
});

test('of any text a line can be made that can be kept', () => {
  expect(lineOf(' a\u0000b\ud83dc\nd\t', 10)).toBe('a b\ufffdc d');
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), fc.nat(30), (text, most) => {
      const made = lineOf(text, most);
      expect([isSound(made), isOneLine(made)]).toEqual([true, true]);
      expect(made.length).toBeLessThanOrEqual(most);
    }),
    runs(300),
  );
});

test('the place of a text that can not be kept, in lists, fields and keys', () => {
  expect(unsoundPlace({ a: ['x', { b: 'ok' }], c: 3, d: null })).toBeNull();
  expect(unsoundPlace({ a: ['x', { b: '\ud800' }] })).toEqual(['a', 1, 'b']);
  expect(unsoundPlace({ a: { 'k\u0000': 1 } })).toEqual(['a']);
  expect(unsoundPlace('\u0000')).toEqual([]);
});

test('nesting as deep as a body can carry is walked', () => {
  let deep: unknown = 'end';
  for (let i = 0; i < 100_000; i++) deep = [deep];
  expect(unsoundPlace(JSON.parse('['.repeat(6000) + ']'.repeat(6000)))).toBeNull();
  expect(unsoundPlace(deep)).toBeNull();
});
