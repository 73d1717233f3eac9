import { execFile } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp, { type Sharp } from 'sharp';
import { looksAt, placedOn, type Look } from '@/core/glimpses';
import type { ProgramDocument } from '@/core/playing';

/** The glass that a simulated player doesn't have: drawn from the real files, only when a picture of it is asked for. */

interface Size {
  readonly width: number;
  readonly height: number;
}

/** A screen; of a wall, the whole picture and the part of it that this display shows, in shares. */
interface Screen extends Size {
  readonly part?: (Size & { readonly left: number; readonly top: number }) | undefined;
}

/** The longer side of a picture, in pixels. */
const LONGER_SIDE = 640;
/** A player without a program shows its card; here it is its colour alone. */
const CARD = '#1b2330';

/** Fetches a file by its SHA-256. */
export type Fetch = (sha256: string) => Promise<Uint8Array>;

/** What a screen shows of a program at an instant, as a JPEG. */
export async function glassAt(
  program: ProgramDocument | null,
  at: number,
  screen: Screen,
  fetch: Fetch,
): Promise<Uint8Array<ArrayBuffer>> {
  const due = program ? looksAt(program, at).due : null;
  if (due?.kind !== 'file') return plainGlass(screen, due ? '#000' : CARD);
  const scale = scaleOf(screen);
  const size = pictureSize(screen);
  const { left, top, width, height } = placedOn(size, sizeOf(due, scale), due.fit, due.asset.focus);
  const picture = await pictureOf(due, await fetch(due.asset.sha256));
  const scaled = await sharp(picture)
    .resize(Math.max(1, Math.round(width)), Math.max(1, Math.round(height)), { fit: 'fill' })
    .toBuffer();
  // Larger than the screen on both sides, then cut to it.
  const [x, y] = [Math.round(left), Math.round(top)];
  const canvas = { width: size.width + 2 * Math.abs(x) + 2, height: size.height + 2 * Math.abs(y) + 2 };
  const whole = await blank(canvas, '#000')
    .composite([{ input: scaled, left: Math.abs(x) + x, top: Math.abs(y) + y }])
    .png()
    .toBuffer();
  const { left: fromLeft, top: fromTop } = screen.part ?? WHOLE;
  const seen = {
    left: Math.abs(x) + Math.round(fromLeft * size.width),
    top: Math.abs(y) + Math.round(fromTop * size.height),
    ...seenSize(screen),
  };
  return jpeg(sharp(whole).extract(seen));
}

/** Pixel for pixel, a file is as large as it is, also on a smaller picture of the screen. */
const sizeOf = ({ asset, fit }: Extract<Look, { kind: 'file' }>, scale: number): Size =>
  fit === 'exact' ? { width: asset.width * scale, height: asset.height * scale } : asset;

/** A screen of one colour, as a JPEG. */
export const plainGlass = (screen: Screen, colour: string): Promise<Uint8Array<ArrayBuffer>> =>
  jpeg(blank(seenSize(screen), colour));

const scaleOf = ({ width, height, part = WHOLE }: Screen) =>
  LONGER_SIDE / Math.max(width * part.width, height * part.height);

const WHOLE = { left: 0, top: 0, width: 1, height: 1 };

/** A picture of what is seen of the screen. */
const seenSize = (screen: Screen): Size => {
  const [{ width, height }, part] = [pictureSize(screen), screen.part ?? WHOLE];
  return { width: Math.max(1, Math.floor(width * part.width)), height: Math.max(1, Math.floor(height * part.height)) };
};

/** A picture of the whole screen. */
const pictureSize = (screen: Screen): Size => ({
  width: Math.max(1, Math.round(screen.width * scaleOf(screen))),
  height: Math.max(1, Math.round(screen.height * scaleOf(screen))),
});

const blank = (size: Size, background: string) => sharp({ create: { ...size, channels: 3, background } });

async function jpeg(picture: Sharp): Promise<Uint8Array<ArrayBuffer>> {
  return Uint8Array.from(await picture.jpeg({ quality: 80 }).toBuffer());
}

const run = promisify(execFile);

async function pictureOf({ atMs }: Extract<Look, { kind: 'file' }>, bytes: Uint8Array): Promise<Buffer> {
  if (atMs === null) return Buffer.from(bytes);
  const folder = await mkdtemp(join(tmpdir(), 'lanternpost-glass-'));
  try {
    const file = join(folder, 'video');
    await writeFile(file, bytes);
    const from = (atMs / 1000).toFixed(3);
    const args = ['-v', 'error', '-ss', from, '-i', file, '-frames:v', '1', '-f', 'image2pipe', '-c:v', 'png', '-'];
    return (await run('ffmpeg', args, { encoding: 'buffer', maxBuffer: 2 ** 26 })).stdout;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
