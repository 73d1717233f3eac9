import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** SHA-256 (FIPS 180-4) of a text's UTF-8 bytes, as 64 lower-case hexadecimal digits. */
export function sha256Hex(text: string): string {
  return bytesToHex(sha256(utf8ToBytes(text)));
}

/** Made when it is asked for: a page without it loads all the same. */
let encoder: TextEncoder | undefined;
const untouched = sha256.create();
const working = sha256.create();
/** Room for a text of up to 80 characters; it grows. */
let room = new Uint8Array(240);
const digest = new Uint8Array(32);
const view = new DataView(digest.buffer);

/**
 * The first 48 bits of the SHA-256 of a text's UTF-8, as a whole number: in the order of the hexadecimal digests, where these do not begin
 * alike. Nothing is allocated, for it is asked for at every turn of a shuffled loop.
 */
export function sha256Start(text: string): number {
  if (text.length * 3 > room.length) room = new Uint8Array(text.length * 3);
  encoder ??= new TextEncoder();
  const { written } = encoder.encodeInto(text, room);
  untouched._cloneInto(working);
  working.update(room.subarray(0, written)).digestInto(digest);
  return view.getUint32(0) * 0x1_0000 + view.getUint16(4);
}
