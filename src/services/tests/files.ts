import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import sharp from 'sharp';

const folder = mkdtempSync(join(tmpdir(), 'lanternpost-files-'));

export async function picture(
  width = 320,
  height = 200,
  background = '#1C7C8C',
  orientation?: number,
): Promise<Buffer> {
  const image = sharp({ create: { width, height, channels: 3, background } });
  return (orientation === undefined ? image : image.withMetadata({ orientation })).jpeg().toBuffer();
}

/** A film in H.264 of some seconds. */
export function film(seconds = 2, size = '320x180'): Buffer {
  const path = join(folder, `${seconds}-${size}.mp4`);
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    `testsrc2=s=${size}:r=25:d=${seconds}`,
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    '-movflags',
    '+faststart',
    '-y',
    path,
  ]);
  return readFileSync(path);
}

export const stream = (bytes: Buffer | string) => Readable.from([Buffer.from(bytes)]);
