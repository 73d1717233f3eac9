// What is done with pictures of strangers, in a process that does nothing else (src/services/library/studio): plain JavaScript, since its
// memory is bounded and what reads TypeScript asks for more. Asked and answered over the line to who started it.
import { readFile, stat } from 'node:fs/promises';
import sharp from 'sharp';

// A picture at a time, and nothing kept of it: what the process needs of memory stays within bounds.
sharp.cache(false);
sharp.concurrency(1);

const MOST_PIXELS = 100e6;
/** Longer side of a thumbnail, in pixels. */
const THUMBNAIL = 640;
/** Longer side of what is made of vectors, in pixels: that of the largest screens. */
const DRAWN = 3840;
const QUALITY = 92;

const bounded = { limitInputPixels: MOST_PIXELS };

/** Larger files are no pictures that a screen needs. In bytes. */
const MOST_BYTES = 2 ** 30;

/** A picture from memory: what reads it knows no folder, so a drawing that names other files gets none of them. */
async function opened(path, options) {
  if ((await stat(path)).size > MOST_BYTES) throw new Error('larger than a picture may be');
  return sharp(await readFile(path), options);
}

/** A WebP may move (RFC 9649, ANIM); of other formats that have several pictures the first is the picture. */
const isMoving = ({ format, pages }) => format === 'webp' && (pages ?? 1) > 1;

/** A picture with all that moves in it. */
async function openedWhole(path) {
  const metadata = await (await opened(path, bounded)).metadata();
  const moving = isMoving(metadata);
  return { metadata, moving, picture: await opened(path, moving ? { ...bounded, animated: true } : bounded) };
}

async function look(path) {
  const { width, height, format, orientation, pages, delay, exif, icc, xmp, iptc, space } = await (
    await opened(path, { limitInputPixels: false })
  ).metadata();
  return {
    ...{ width, height, format, orientation: orientation ?? 1, frames: pages ?? 1 },
    roundMs: isMoving({ format, pages }) ? (delay ?? []).reduce((sum, one) => sum + one, 0) : null,
    hasNotes: [exif, icc, xmp, iptc].some((one) => one !== undefined) || (space !== 'srgb' && space !== 'b-w'),
  };
}

async function decode(path) {
  await (await opened(path, { ...bounded, failOn: 'warning' })).resize(8, 8, { fit: 'fill' }).raw().toBuffer();
}

async function thumbnail(source, target) {
  await (
    await opened(source, bounded)
  )
    .rotate()
    .resize(THUMBNAIL, THUMBNAIL, { fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#1B2330' })
    .jpeg({ quality: 82, mozjpeg: true })
    .toFile(target);
}

/** How a picture is written, by the format that it came in. */
const WRITTEN = {
  jpeg: (picture) => picture.jpeg({ quality: QUALITY }),
  webp: (picture) => picture.webp({ quality: QUALITY }),
  heif: (picture) => picture.avif({ quality: QUALITY }),
};

async function plain(source, target) {
  const { metadata, moving, picture } = await openedWhole(source);
  const write = WRITTEN[metadata.format] ?? ((one) => one.png());
  // What moves can't be turned, and is not: cameras make none.
  await write((moving ? picture : picture.rotate()).toColourspace('srgb')).toFile(target);
}

async function photo(source, target) {
  const picture = (await opened(source, bounded)).rotate().toColourspace('srgb');
  const { hasAlpha } = await picture.metadata();
  await (hasAlpha ? picture.png() : picture.jpeg({ quality: QUALITY })).toFile(target);
}

/** Below this longer side, in pixels, screens are made of lamps that are seen one by one. */
const PIXEL_WALL = 1024;

async function scaled(source, target, width, height) {
  const { moving, picture: whole } = await openedWhole(source);
  const picture = whole.resize(width, height, { fit: 'fill', kernel: 'lanczos3' });
  const hasEdges = Math.max(width, height) <= PIXEL_WALL;
  await (hasEdges && !moving ? picture.png() : picture.webp({ quality: 90 })).toFile(target);
}

async function drawn(source, target) {
  const { width, height } = await (await opened(source, { limitInputPixels: false })).metadata();
  const density = Math.min(2400, Math.max(1, (72 * DRAWN) / Math.max(width, height)));
  await (
    await opened(source, { ...bounded, density })
  )
    .resize(DRAWN, DRAWN, { fit: 'inside' })
    .toColourspace('srgb')
    .png()
    .toFile(target);
}

const DRAWING = { look, decode, thumbnail, plain, photo, scaled, drawn };

if (!process.send) {
  console.error('Workers alone run this, beside themselves: start `lanternpost worker`.');
  process.exit(2);
}
process.on('disconnect', () => process.exit(0));
process.on('message', ({ id, name, args }) => {
  DRAWING[name](...args).then(
    (value) => process.send({ id, value }),
    (error) => process.send({ id, error: String(error?.message ?? error) }),
  );
});
