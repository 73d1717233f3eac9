import { open } from 'node:fs/promises';
import { fileTypeFromFile } from 'file-type';
import { Refusal } from '@/core/refusal';

/** What a file is, by its first bytes alone: its name tells nothing. */

/** What is to be done with a file before it can be shown. */
export type Nature =
  /** A picture as browsers show it. */
  | 'picture'
  /** A picture that browsers do not show. */
  | 'foreign-picture'
  /** Vectors, drawn at the size that screens need. */
  | 'drawing'
  | 'film'
  /** What is heard alone. */
  | 'sound'
  /** Several pages: each becomes a picture. */
  | 'pages'
  /** What another program makes pages of. */
  | 'office';

export interface FileKind {
  readonly nature: Nature;
  /** Media type of the bytes. */
  readonly type: string;
}

const NATURES: Readonly<Record<string, Nature>> = {
  'image/png': 'picture',
  'image/apng': 'picture',
  'image/jpeg': 'picture',
  'image/webp': 'picture',
  'image/avif': 'picture',
  'image/gif': 'picture',
  'image/heic': 'foreign-picture',
  'image/heif': 'foreign-picture',
  'image/heic-sequence': 'foreign-picture',
  'image/heif-sequence': 'foreign-picture',
  'image/tiff': 'foreign-picture',
  'image/bmp': 'foreign-picture',
  'video/mp4': 'film',
  'video/webm': 'film',
  'video/x-msvideo': 'film',
  'video/mpeg': 'film',
  'video/mp2t': 'film',
  'video/x-ms-asf': 'film',
  'audio/mpeg': 'sound',
  'audio/aac': 'sound',
  'audio/wav': 'sound',
  'audio/ogg': 'sound',
  'audio/flac': 'sound',
  'audio/mp4': 'sound',
  'application/pdf': 'pages',
  'application/vnd.openxmlformats-officedocument.presentationml.presentation': 'office',
  'application/vnd.oasis.opendocument.presentation': 'office',
};

/** Containers that one demuxer reads, whatever they are called. */
const SAME: Readonly<Record<string, string>> = {
  'video/quicktime': 'video/mp4',
  'video/x-m4v': 'video/mp4',
  'video/3gpp': 'video/mp4',
  'video/matroska': 'video/webm',
  'video/x-matroska': 'video/webm',
  'video/vnd.avi': 'video/x-msvideo',
  'video/MP1S': 'video/mpeg',
  'video/MP2P': 'video/mpeg',
  'application/vnd.ms-asf': 'video/x-ms-asf',
  'audio/x-ms-asf': 'video/x-ms-asf',
  'image/vnd.mozilla.apng': 'image/apng',
  'audio/x-m4a': 'audio/mp4',
  'audio/vnd.wave': 'audio/wav',
  'audio/x-wav': 'audio/wav',
  'audio/x-flac': 'audio/flac',
  'audio/ogg; codecs=opus': 'audio/ogg',
  'audio/opus': 'audio/ogg',
  'application/ogg': 'audio/ogg',
};

const unsupported = (found: string) =>
  new Refusal(
    415,
    `${found} can’t be played. Use PNG, JPEG, WebP, AVIF, GIF, HEIC, TIFF, BMP or SVG pictures, MP4, MOV, MKV, WebM, AVI, WMV or MPEG videos, MP3, AAC, WAV, Ogg or FLAC sounds, or PDF.`,
  );

/** Throws 415 with a sentence for what can't be played. */
export async function kindOfFile(path: string): Promise<FileKind> {
  const sniffed = await fileTypeFromFile(path);
  if (!sniffed || sniffed.mime === 'application/xml') {
    if (await isDrawing(path)) return { nature: 'drawing', type: 'image/svg+xml' };
    throw unsupported('This kind of file');
  }
  const type = SAME[sniffed.mime] ?? sniffed.mime;
  const nature = NATURES[type];
  if (nature) return { nature, type };
  throw unsupported(`${sniffed.ext.toUpperCase()} files`);
}

const LOOKED_AT = 4096;

/** Whether a text begins as SVG does: after what XML allows before its first element. */
async function isDrawing(path: string): Promise<boolean> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(LOOKED_AT), 0, LOOKED_AT, 0);
    const text = buffer
      .subarray(0, bytesRead)
      .toString('utf8')
      .replace(/^\uFEFF/, '');
    return /^\s*(?:<\?xml[^>]*>\s*)?(?:<!--(?:[^-]|-(?!->))*-->\s*)*(?:<!DOCTYPE\s+svg\b|<svg[\s>])/.test(text);
  } finally {
    await file.close();
  }
}
