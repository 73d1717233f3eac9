import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';

/** The RFC 8785 canonical form of a JSON value. Throws TypeError for what JSON can't hold. */
export function canonicalJson(value: unknown): string {
  const text = canonicalize(value);
  if (text === undefined) throw new TypeError('Only JSON values have a canonical form.');
  return text;
}

/** SHA-256 of a text's UTF-8 bytes, as 64 lower-case hexadecimal digits. */
export function sha256Hex(text: string): string {
  return bytesToHex(sha256(utf8ToBytes(text)));
}
