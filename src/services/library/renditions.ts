import { rm } from 'node:fs/promises';
import type { Inspection } from './inspect';
import { incomingPath } from './store';
import { draw, inputOf, runTool } from './studio';

/** A small JPEG of a picture, or of a film's poster frame. The caller adopts or removes the path. */
export async function makeThumbnail(path: string, found: Inspection): Promise<string> {
  const target = await incomingPath('.jpg');
  const source = found.kind === 'video' ? await posterFrame(path, found) : path;
  try {
    await draw('thumbnail', source, target);
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
