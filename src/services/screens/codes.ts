import { randomInt } from 'node:crypto';

/** RFC 8628 section 6.1: no vowels, so no words; no digits that look like letters. */
const ALPHABET = 'BCDFGHJKLMNPQRSTVWXZ';
const LENGTH = 8;

export function newUserCode(): string {
  return Array.from({ length: LENGTH }, () => ALPHABET[randomInt(ALPHABET.length)]).join('');
}

/** A code as it is shown: XXXX-XXXX. */
export function showCode(code: string): string {
  return `${code.slice(0, 4)}-${code.slice(4)}`;
}

/** What a person typed as a code, or null where it can be none. Case, dashes and spaces do not matter. */
export function readCode(typed: string): string | null {
  const code = typed.toUpperCase().replace(/[\s\-–—_.]/g, '');
  return code.length === LENGTH && [...code].every((letter) => ALPHABET.includes(letter)) ? code : null;
}
