import fc from 'fast-check';
import { sha256Hex, sha256Start } from './sha256';

/** The examples of one block and of two: FIPS 180-2, appendix B, and RFC 6234, section 8.5 (from memory). */
test.each([
  ['abc', 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad'],
  [
    'abcdbcdecdefdefgefghfghighijhijkijkljklmklmnlmnomnopnopq',
    '248d6a61d20638b8e5c026930c3e6039a33ce45964ff2167f6ecedd419db06c1',
  ],
])('the SHA-256 of "%s", whole and its start', (text, hex) => {
  expect(sha256Hex(text)).toBe(hex);
  expect(sha256Start(text)).toBe(parseInt(hex.slice(0, 12), 16));
});

test('the start is that of the whole, of texts short and long, in every script, one after the other', () => {
  fc.assert(
    fc.property(fc.oneof(fc.string({ unit: 'grapheme' }), fc.string({ minLength: 200, maxLength: 900 })), (text) => {
      expect(sha256Start(text)).toBe(parseInt(sha256Hex(text).slice(0, 12), 16));
    }),
  );
});
