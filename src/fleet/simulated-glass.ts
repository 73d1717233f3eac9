import { execFile } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp, { type Sharp } from 'sharp';
import { looksAt, placedIn, zonePlacedIn, type Look, type Placed } from '@/core/glimpses';
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
  const glass = program && looksAt(program, at);
  if (!glass || (glass.due.kind === 'nothing' && glass.above.length === 0)) return plainGlass(screen, CARD);
  const whole = { left: 0, top: 0, width: screen.width, height: screen.height };
  const drawn = [
    ...(await layersOf(glass.due.kind === 'nothing' ? PLAIN_CARD : glass.due, whole, at, fetch)),
    ...(await Promise.all(glass.above.map(({ due }) => layersOf(due, whole, at, fetch, true)))).flat(),
  ];
  let canvas: Buffer = await blank(seenSize(screen), '#000').png().toBuffer();
  for (const layer of drawn) canvas = await laid(canvas, layer, screen);
  return jpeg(sharp(canvas));
}

/** A picture in a place of the screen, in its pixels, cut off at the edges of another. */
interface Layer {
  readonly picture: Buffer;
  readonly placed: Placed;
  readonly within: Placed;
}

const PLAIN_CARD: Look = { kind: 'words', text: '' };

/** A look as pictures in their places, the lowest first. A layout that is drawn over everything has no ground. */
async function layersOf(
  look: Look,
  within: Placed,
  at: number,
  fetch: Fetch,
  isAbove = false,
): Promise<readonly Layer[]> {
  const filled = async (colour: string) => ({ picture: await onePixel(colour), placed: within, within });
  switch (look.kind) {
    case 'nothing':
      return [];
    case 'black':
      return [await filled('#000')];
    case 'file': {
      const picture = await pictureOf(look, await fetch(look.asset.sha256));
      const placed = placedIn(within, look.asset, look.fit, look.asset.focus);
      return [await filled('#000'), { picture, placed, within }];
    }
    case 'layout': {
      const zones = look.zones.map((zone) => layersOf(zone.due, zonePlacedIn(within, look, zone), at, fetch));
      return [...(isAbove ? [] : [await filled(look.background ?? '#000')]), ...(await Promise.all(zones)).flat()];
    }
    case 'words':
      return [{ picture: await wordsOn(CARD, look.text, within), placed: within, within }];
    case 'input':
      return [{ picture: await testPicture(look.text, within, at), placed: within, within }];
  }
}

/** Lays a picture on what is seen of the screen. */
async function laid(canvas: Buffer, { picture, placed, within }: Layer, screen: Screen): Promise<Buffer> {
  const seen = { left: 0, top: 0, ...seenSize(screen) };
  const at = inPicture(placed, screen);
  const visible = overlap(overlap(at, inPicture(within, screen)), seen);
  if (visible.width < 1 || visible.height < 1) return canvas;
  const whole = await sharp(picture).resize(at.width, at.height, { fit: 'fill' }).png().toBuffer();
  const cut = { ...visible, left: visible.left - at.left, top: visible.top - at.top };
  const input = await sharp(whole).extract(cut).png().toBuffer();
  return sharp(canvas)
    .composite([{ input, left: visible.left, top: visible.top }])
    .png()
    .toBuffer();
}

/** A place of the screen in whole pixels of the picture of what is seen of it. */
function inPicture({ left, top, width, height }: Placed, screen: Screen): Placed {
  const [scale, part] = [scaleOf(screen), screen.part ?? WHOLE];
  const [x, y] = [part.left * screen.width, part.top * screen.height];
  const [from, to] = [
    [Math.round((left - x) * scale), Math.round((top - y) * scale)],
    [Math.round((left + width - x) * scale), Math.round((top + height - y) * scale)],
  ] as [[number, number], [number, number]];
  return { left: from[0], top: from[1], width: Math.max(1, to[0] - from[0]), height: Math.max(1, to[1] - from[1]) };
}

function overlap(a: Placed, b: Placed): Placed {
  const [left, top] = [Math.max(a.left, b.left), Math.max(a.top, b.top)];
  const right = Math.min(a.left + a.width, b.left + b.width);
  const bottom = Math.min(a.top + a.height, b.top + b.height);
  return { left, top, width: right - left, height: bottom - top };
}

const onePixel = (colour: string) => blank({ width: 1, height: 1 }, colour).png().toBuffer();

const escaped = (text: string) => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** A drawing as large as a place is, in fewer pixels. */
function drawing({ width, height }: Size, background: string, inside: (across: number, down: number) => string) {
  const scale = LONGER_SIDE / Math.max(width, height);
  const [across, down] = [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${across}" height="${down}"><rect width="100%" height="100%" fill="${background}"/>${inside(across, down)}</svg>`;
  return sharp(Buffer.from(svg)).png().toBuffer();
}

const line = (text: string, x: number, y: number, size: number) =>
  `<text x="${x}" y="${y}" fill="#fff" font-family="sans-serif" font-weight="600" font-size="${size}" text-anchor="middle" dominant-baseline="middle">${escaped(text)}</text>`;

/** Words in the middle of a place. */
const wordsOn = (colour: string, text: string, place: Size) =>
  drawing(place, colour, (across, down) => {
    const lines = text.split('\n');
    const longest = Math.max(1, ...lines.map(({ length }) => length));
    const size = Math.min((across / longest) * 1.6, down / (lines.length * 1.4));
    return lines
      .map((one, i) => line(one, across / 2, down / 2 + (i - (lines.length - 1) / 2) * size * 1.25, size))
      .join('');
  });

/** Another source: bars with a line that goes across in ten seconds, and its name. */
const testPicture = (name: string, place: Size, at: number) =>
  drawing(place, '#20384c', (across, down) => {
    const bars = Array.from(
      { length: 8 },
      (_, i) =>
        `<rect x="${(i * across) / 8}" width="${across / 8}" height="${down * 0.6}" fill="hsl(${i * 45} 45% 45%)"/>`,
    );
    const x = ((at % 10_000) / 10_000) * across;
    return `${bars.join('')}<rect x="${x}" width="${across / 60}" height="${down}" fill="#fff"/>${line(name, across / 2, down * 0.8, down / 8)}`;
  });

/** A screen of one colour, as a JPEG. */
export const plainGlass = (screen: Screen, colour: string): Promise<Uint8Array<ArrayBuffer>> =>
  jpeg(blank(seenSize(screen), colour));

const scaleOf = ({ width, height, part = WHOLE }: Screen) =>
  LONGER_SIDE / Math.max(width * part.width, height * part.height);

const WHOLE = { left: 0, top: 0, width: 1, height: 1 };

/** A picture of what is seen of the screen. */
const seenSize = (screen: Screen): Size => {
  const [scale, part] = [scaleOf(screen), screen.part ?? WHOLE];
  return {
    width: Math.max(1, Math.round(screen.width * scale * part.width)),
    height: Math.max(1, Math.round(screen.height * scale * part.height)),
  };
};

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
