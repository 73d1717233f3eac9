/**
 * What a picture file holds beside its pixels: a camera's notes, a program's comments, bytes after the picture's end. Each format is walked
 * from its beginning to its end, and only the parts needed to draw the pixels are kept. So a part that we don't know counts as
 * more than pixels too. Nothing here draws or decodes.
 */

/** Whether a file holds more than its pixels need. True also for one that can't be walked to its end. */
export function hasMoreThanPixels(bytes: Buffer, type: string): boolean {
  try {
    return !(WALKS[type]?.(bytes) ?? true);
  } catch {
    // Cut off in the middle.
    return true;
  }
}

/** Each says whether all of a file is needed. */
const WALKS: Readonly<Record<string, (bytes: Buffer) => boolean>> = {
  'image/jpeg': isPlainJpeg,
  'image/png': isPlainPng,
  'image/apng': isPlainPng,
  'image/webp': isPlainWebp,
  'image/avif': isPlainAvif,
};

const SOI = 0xd8;
const EOI = 0xd9;
const SOS = 0xda;
const APP0 = 0xe0;
const APP14 = 0xee;
/** A JFIF header without the small picture that it may carry, in bytes (ITU-T T.871, 10.1). */
const JFIF_BYTES = 16;
/** Adobe's word on how colours are coded: without it they come out wrong. */
const ADOBE_BYTES = 14;

/** ITU-T T.81, annex B: tables, frames and scans, and at most the two headers that say how colours are meant. */
function isPlainJpeg(bytes: Buffer): boolean {
  if (bytes[0] !== 0xff || bytes[1] !== SOI) return false;
  let at = 2;
  for (;;) {
    if (bytes[at] !== 0xff) return false;
    const marker = bytes[at + 1] ?? 0;
    if (marker === EOI) return at + 2 === bytes.length;
    const length = bytes.readUInt16BE(at + 2);
    const isHeader =
      (marker === APP0 && length === JFIF_BYTES && bytes.toString('latin1', at + 4, at + 8) === 'JFIF') ||
      (marker === APP14 && length === ADOBE_BYTES && bytes.toString('latin1', at + 4, at + 9) === 'Adobe');
    // Frames and Huffman tables (C0 to CF), and DQT, DNL, DRI, DHP, EXP; scans with what they say.
    const isTable = (marker >= 0xc0 && marker <= 0xcf) || (marker >= 0xdb && marker <= 0xdf) || marker === SOS;
    if (!isHeader && !isTable) return false;
    at += 2 + length;
    if (marker === SOS) at = endOfScan(bytes, at);
  }
}

/** Where the next marker stands after a scan's data: in these an FF is followed by 00, or by a restart marker. */
function endOfScan(bytes: Buffer, from: number): number {
  for (let at = bytes.indexOf(0xff, from); at >= 0; at = bytes.indexOf(0xff, at + 1)) {
    const next = bytes[at + 1] ?? 0;
    if (next !== 0 && next !== 0xff && !(next >= 0xd0 && next <= 0xd7)) return at;
  }
  return bytes.length;
}

const PNG_CHUNKS = new Set(
  ['IHDR', 'PLTE', 'IDAT', 'IEND', 'tRNS', 'gAMA', 'cHRM', 'sRGB', 'sBIT', 'bKGD', 'pHYs'].concat(
    // What moves.
    ['acTL', 'fcTL', 'fdAT'],
  ),
);

/** ISO/IEC 15948, 5: chunks of a length, a name, data and a sum, the last of them IEND. */
function isPlainPng(bytes: Buffer): boolean {
  let at = 8;
  for (;;) {
    const name = bytes.toString('latin1', at + 4, at + 8);
    if (!PNG_CHUNKS.has(name)) return false;
    at += 12 + bytes.readUInt32BE(at);
    if (name === 'IEND') return at === bytes.length;
  }
}

const WEBP_CHUNKS = new Set(['VP8 ', 'VP8L', 'VP8X', 'ALPH', 'ANIM', 'ANMF']);

/** RFC 9649, 2: a RIFF file whose size is all of it, of chunks that are padded to even lengths. */
function isPlainWebp(bytes: Buffer): boolean {
  if (bytes.readUInt32LE(4) + 8 !== bytes.length) return false;
  let at = 12;
  while (at < bytes.length) {
    if (!WEBP_CHUNKS.has(bytes.toString('latin1', at, at + 4))) return false;
    const length = bytes.readUInt32LE(at + 4);
    at += 8 + length + (length % 2);
  }
  return at === bytes.length;
}

const AVIF_BOXES = new Set(['ftyp', 'meta', 'mdat']);

/** ISO/IEC 14496-12, 4.2: boxes of a size and a name. The decoder reads the contents of "meta". */
function isPlainAvif(bytes: Buffer): boolean {
  let at = 0;
  while (at < bytes.length) {
    if (!AVIF_BOXES.has(bytes.toString('latin1', at + 4, at + 8))) return false;
    const size = bytes.readUInt32BE(at);
    // 0: to the end of the file. 1: a size of 64 bits, which no picture needs.
    if (size === 0) return true;
    if (size < 8) return false;
    at += size;
  }
  return at === bytes.length;
}
