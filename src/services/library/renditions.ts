import { rm } from 'node:fs/promises';
import { never } from '@/core/refusal';
import type { Inspection } from './inspect';
import { incomingPath } from './store';
import { draw, inputOf, runTool } from './studio';

/** A small JPEG of a picture, of a film's poster frame, or of how loud a sound is over its time. The caller adopts or removes the path. */
export async function makeThumbnail(path: string, found: Inspection): Promise<string> {
  const target = await incomingPath('.jpg');
  const source = await picturedBy(path, found);
  try {
    await draw('thumbnail', source, target);
  } finally {
    if (source !== path) await rm(source, { force: true });
  }
  return target;
}

function picturedBy(path: string, found: Inspection): Promise<string> | string {
  switch (found.kind) {
    case 'image':
      return path;
    case 'video':
      return posterFrame(path, found);
    case 'sound':
      return waveform(path, found);
    default:
      return never(found);
  }
}

const FRAME = 'frame.png';

/** How loud a sound is over its time, mirrored about the middle. */
async function waveform(path: string, { type }: Inspection): Promise<string> {
  const target = await incomingPath('.png');
  const drawn = 'aformat=channel_layouts=mono,compand=gain=3,showwavespic=s=640x360:colors=#E9B44C:scale=sqrt';
  await runTool(
    'ffmpeg',
    [...['-v', 'error', ...inputOf(type), '-filter_complex', `[0:a:0]${drawn}`], ...['-frames:v', '1', '-y', FRAME]],
    { reads: path, makes: { name: FRAME, to: target } },
  );
  return target;
}

/** The frame a fifth into the film, where titles and black openings are over. */
async function posterFrame(path: string, { type, durationMs }: Inspection): Promise<string> {
  const target = await incomingPath('.png');
  await runTool(
    'ffmpeg',
    [...['-v', 'error', '-ss', String((durationMs ?? 0) / 5000), ...inputOf(type)], ...['-frames:v', '1', '-y', FRAME]],
    { reads: path, makes: { name: FRAME, to: target } },
  );
  return target;
}
