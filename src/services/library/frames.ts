import { existsSync } from 'node:fs';
import sharp from 'sharp';
import { inputOf, runFfmpeg } from './studio';

/** Of no picture: fills the strip's places for which the video is too short, so that they look like nothing. */
const NO_FRAME = '0xff00ff';

/**
 * Writes frames of a stored video side by side into one PNG, each in the size that is given: the first at `fromMs`, the others `apartMs` later
 * each; null: the last ones. Whether that worked.
 */
export async function frameStrip(
  source: string,
  type: string,
  target: string,
  { fromMs, apartMs, frames }: { readonly fromMs: number | null; readonly apartMs: number; readonly frames: number },
  { width, height }: { readonly width: number; readonly height: number },
): Promise<boolean> {
  const strip = [
    `fps=${1000 / apartMs}:start_time=0`,
    `scale=${width}:${height}`,
    `tile=${frames}x1:color=${NO_FRAME}`,
  ].join();
  const start = fromMs === null ? ['-sseof', String((-frames * apartMs) / 1000)] : ['-ss', (fromMs / 1000).toFixed(3)];
  const good = await runFfmpeg(
    [
      ...['-v', 'error', '-threads', '1', ...start, ...inputOf(type), '-map', '0:v:0'],
      ...['-an', '-vf', strip, '-frames:v', '1', '-c:v', 'png', '-f', 'image2', '-y', MADE],
    ],
    { reads: source, makes: { name: MADE, to: target } },
    () => undefined,
  );
  // Past the end of a video it ends well, and has made nothing.
  return good && existsSync(target);
}

/** Whether a place of the strip holds a frame of the video, and not the colour of an empty one. */
export async function isFrame(picture: Buffer): Promise<boolean> {
  const { channels } = await sharp(picture).stats();
  const [red, green, blue] = channels;
  return !(red && green && blue && red.min > 250 && green.max < 5 && blue.min > 250);
}

const MADE = 'strip.png';
