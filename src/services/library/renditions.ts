import { rm } from 'node:fs/promises';
import sharp from 'sharp';
import { inputOf, runTool } from './film-tools';
import type { Inspection } from './inspect';
import { incomingPath } from './store';

/** Longer side of a thumbnail, in pixels. */
const THUMBNAIL = 640;

/** A small JPEG of a picture, or of a film's poster frame. The caller adopts or removes the path. */
export async function makeThumbnail(path: string, found: Inspection): Promise<string> {
  const target = await incomingPath('.jpg');
  const source = found.kind === 'video' ? await posterFrame(path, found) : path;
  try {
    await sharp(source)
      .rotate()
      .resize(THUMBNAIL, THUMBNAIL, { fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#1B2330' })
      .jpeg({ quality: 82, mozjpeg: true })
      .toFile(target);
  } finally {
    if (source !== path) await rm(source, { force: true });
  }
  return target;
}

/** The frame a fifth into the film, where titles and black openings are over. */
async function posterFrame(path: string, { type, durationMs }: Inspection): Promise<string> {
  const target = await incomingPath('.png');
  await runTool('ffmpeg', [
    ...['-v', 'error', '-ss', String((durationMs ?? 0) / 5000), ...inputOf(path, type)],
    ...['-frames:v', '1', '-y', target],
  ]);
  return target;
}

/** The picture turned the way it is meant to be seen, in its own format, for players that need no EXIF. Null where it is already. */
export async function makeUpright(path: string, found: Inspection): Promise<string | null> {
  if (!found.turned) return null;
  const target = await incomingPath();
  const format = found.codec === 'heif' ? 'avif' : (found.codec ?? 'png');
  const quality = ['jpeg', 'webp', 'avif'].includes(format) ? { quality: 92 } : {};
  await sharp(path)
    .rotate()
    .keepIccProfile()
    .toFormat(format as 'jpeg', quality)
    .toFile(target);
  return target;
}
