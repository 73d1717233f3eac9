import { rm } from 'node:fs/promises';
import sharp from 'sharp';
import { fieldsOf, placedIn, type Fields, type Look, type Placed } from '@/core/glimpses';
import { frameStrip, incomingPath, isFrame, storedBytes, storedPath } from '../library';

/** Drawing what a display may show: pictures of its glass, made from the stored files. */

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** A rectangle in whole pixels of a picture of the glass. */
export interface Box extends Size {
  readonly left: number;
  readonly top: number;
}

/** What a picture of the glass shows of the screen: from which of its pixels on, and how much smaller. */
export interface View {
  readonly left: number;
  readonly top: number;
  readonly scale: number;
  /** In pixels of the picture. */
  readonly size: Size;
}

/** A picture of the glass, as large as the view: red, green and blue of each pixel, row by row. */
export type Canvas = Buffer;

/** Something of a colour, or a picture that is as large as its box. */
type Paint = string | Buffer;

/** Pictures are compared so large: small enough to be quick, large enough for 8 × 8 fields. */
const COMPARED_SIDE = 96;
const LEAST_SIDE = 16;
/** Frames around the moment at which a video should stand. */
const FRAMES = 3;
const FRAMES_APART_MS = 500;

export const blank = ({ size }: View, colour: string): Promise<Canvas> => plain(size, colour).raw().toBuffer();

/** Anything that sharp reads, as large as the view. */
export const canvasOf = (picture: Buffer, { size }: View): Promise<Canvas> =>
  sharp(picture)
    .resize({ ...size, fit: 'fill' })
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer();

const opened = (canvas: Canvas, { size }: View) => sharp(canvas, { raw: { ...size, channels: 3 } });

export const jpegOf = (canvas: Canvas, view: View, quality: number): Promise<Buffer> =>
  opened(canvas, view).jpeg({ quality }).toBuffer();

/** Where something lies in the picture, cut off at its edges: null where it is not seen. */
export function boxOf({ left, top, scale, size }: View, placed: Placed): Box | null {
  const whole = wholeBox({ left, top, scale }, placed);
  const [fromLeft, fromTop] = [Math.max(0, whole.left), Math.max(0, whole.top)];
  const width = Math.min(size.width, whole.left + whole.width) - fromLeft;
  const height = Math.min(size.height, whole.top + whole.height) - fromTop;
  return width < 1 || height < 1 ? null : { left: fromLeft, top: fromTop, width, height };
}

/** Both edges are rounded, so that what lies side by side stays so. */
function wholeBox({ left, top, scale }: Omit<View, 'size'>, placed: Placed): Box {
  const [x, y] = [Math.round((placed.left - left) * scale), Math.round((placed.top - top) * scale)];
  return {
    ...{ left: x, top: y },
    width: Math.max(1, Math.round((placed.left + placed.width - left) * scale) - x),
    height: Math.max(1, Math.round((placed.top + placed.height - top) * scale) - y),
  };
}

/** The same picture with something painted in a box. */
export async function painted(canvas: Canvas, view: View, box: Box, paint: Paint): Promise<Canvas> {
  const input = typeof paint === 'string' ? await plain(box, paint).png().toBuffer() : paint;
  return opened(canvas, view)
    .composite([{ input, left: box.left, top: box.top }])
    .removeAlpha()
    .raw()
    .toBuffer();
}

/** A part of a picture, as a PNG. */
export const cutOut = (canvas: Canvas, view: View, { left, top, width, height }: Box): Promise<Buffer> =>
  opened(canvas, view).extract({ left, top, width, height }).png().toBuffer();

/** The colours of the fields of a part of a picture. */
export async function coloursIn(canvas: Canvas, view: View, { left, top, width, height }: Box): Promise<Fields> {
  const scale = COMPARED_SIDE / Math.max(width, height);
  const side = (length: number) => Math.max(LEAST_SIDE, Math.round(length * scale));
  const size = { width: side(width), height: side(height) };
  const data = await opened(canvas, view)
    .extract({ left, top, width, height })
    .resize({ ...size, fit: 'fill' })
    .raw()
    .toBuffer();
  return fieldsOf({ ...size, data });
}

/**
 * A file as it is seen in a place: one picture, or several frames of a video with the one that is due first, each as large as the box that is
 * seen of the place. Null if it isn't stored here.
 */
export async function drawFile(
  { asset, fit, atMs }: Extract<Look, { kind: 'file' }>,
  placed: Placed,
  view: View,
): Promise<Buffer[] | null> {
  const seen = boxOf(view, placed);
  if (!seen || (await storedBytes(asset.sha256)) === null) return null;
  const at = wholeBox(view, placedIn(placed, asset, fit, asset.focus));
  const pictures = atMs === null ? [storedPath(asset.sha256)] : await framesOf(asset, atMs, at);
  const inBox = { ...at, left: at.left - seen.left, top: at.top - seen.top };
  return pictures && Promise.all(pictures.map((picture) => composed(picture, inBox, seen)));
}

const plain = ({ width, height }: Size, background: string) =>
  sharp({ create: { width, height, channels: 3, background } });

/** A picture on black, cut off at the edges. */
async function composed(picture: string | Buffer, at: Box, size: Size): Promise<Buffer> {
  const [left, top] = [Math.max(0, -at.left), Math.max(0, -at.top)];
  const cut = {
    ...{ left, top },
    width: Math.min(at.width - left, size.width - Math.max(0, at.left)),
    height: Math.min(at.height - top, size.height - Math.max(0, at.top)),
  };
  if (cut.width < 1 || cut.height < 1) return plain(size, '#000').png().toBuffer();
  const scaled = await sharp(picture).resize(at.width, at.height, { fit: 'fill' }).png().toBuffer();
  const input = await sharp(scaled).extract(cut).toBuffer();
  return plain(size, '#000')
    .composite([{ input, left: Math.max(0, at.left), top: Math.max(0, at.top) }])
    .png()
    .toBuffer();
}

/** Frames of a video around a moment, the one that is due first. Null if they can't be read. */
async function framesOf(asset: { sha256: string; type: string }, atMs: number, size: Size): Promise<Buffer[] | null> {
  const target = await incomingPath();
  const strip = (fromMs: number | null) =>
    frameStrip(
      storedPath(asset.sha256),
      asset.type,
      target,
      { fromMs, apartMs: FRAMES_APART_MS, frames: FRAMES },
      size,
    );
  const fromMs = Math.max(0, atMs - FRAMES_APART_MS);
  const { width, height } = size;
  try {
    // A video that is shorter than its turn stays on its last frame.
    if (!(await strip(fromMs)) && !(await strip(null))) return null;
    const frames = await Promise.all(
      Array.from({ length: FRAMES }, (_, i) =>
        sharp(target)
          .extract({ left: i * width, top: 0, width, height })
          .png()
          .toBuffer(),
      ),
    );
    const filled = await Promise.all(frames.map(isFrame));
    const there = frames.filter((_, i) => filled[i]);
    const due = Math.min(atMs < FRAMES_APART_MS ? 0 : 1, there.length - 1);
    return [...there.slice(due), ...there.slice(0, due)];
  } finally {
    await rm(target, { force: true });
  }
}
