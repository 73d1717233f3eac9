import { rm } from 'node:fs/promises';
import sharp from 'sharp';
import type { ProgramDocument } from '@/core/edition';
import { differentFields, fieldsOf, looksAt, placedOn, verdictOf, type Fields, type Look } from '@/core/glimpses';
import { partAt, type Part, type Wall } from '@/core/walls';
import { publish, rows, transaction } from '@/database';
import { frameStrip, incomingPath, isFrame, storedBytes, storedPath } from '../library';
import { LONGER_SIDE } from './take';

/** The worker's side: draws what the forecast says for the instant of a picture, and compares the two. */

interface Size {
  readonly width: number;
  readonly height: number;
}

interface Found {
  readonly network: string;
  readonly screen: string;
  readonly part: number;
  readonly takenAt: Date;
  readonly picture: Buffer;
  readonly text: string;
  readonly wall: Wall | null;
}

/** Pictures are compared so large: small enough to be quick, large enough for 8 × 8 fields. */
const COMPARED_SIDE = 96;
/** A wall's whole picture is drawn so large at most. */
const MOST_OF_A_WALL = 2560;
/** Frames around the moment at which a video should stand. */
const FRAMES = 3;
const FRAMES_APART_MS = 500;
const QUALITY = 60;

/** Compares a picture with the forecast of its instant. Safe to run again. Does nothing if the picture is gone, or if there is a newer one of its screen. */
export async function compareGlimpse({ glimpse }: { readonly glimpse: string }): Promise<void> {
  const [found] = await rows<Size & Found>(
    `SELECT g.network_id AS network, g.screen, g.part, g.taken_at AS "takenAt", g.picture, d.document AS text, o.document->'wall' AS wall,
       (o.document->>'width')::int AS width, (o.document->>'height')::int AS height
     FROM glimpses g JOIN program_documents d ON d.hash = g.program
       JOIN plan_objects o ON o.network_id = g.network_id AND o.kind = 'screen' AND o.slug = g.screen
     -- A newer picture of the screen says more, and where many come at once there is not time for each.
     WHERE NOT EXISTS (SELECT 1 FROM glimpses n WHERE n.network_id = g.network_id AND n.screen = g.screen AND n.part = g.part AND n.taken_at > g.taken_at)
     -- A player may name any program: what others show must not be seen by this.
     AND g.id = $1 AND EXISTS (SELECT 1 FROM edition_screens s JOIN editions e ON e.id = s.edition_id
       WHERE g.program IN (s.hash, s.delivered) AND s.screen = g.screen AND e.network_id = g.network_id)`,
    [glimpse],
  );
  if (!found) return;
  const { network, screen, takenAt, picture, text, wall } = found;
  const part = wall ? partAt(wall, found.part) : null;
  // It was taken of a display that the wall no longer has.
  if (wall && !part) return;
  const { looks, due, changing } = looksAt(JSON.parse(text) as ProgramDocument, takenAt.getTime());
  // The player shows its own card, and the plan doesn't say how that looks.
  if (due === null) return;
  // A display of a wall is drawn about as large as a screen alone would be.
  const longer = part ? Math.min(MOST_OF_A_WALL, LONGER_SIDE / Math.max(part.width, part.height)) : LONGER_SIDE;
  const size = scaledTo(longer, found);
  const drawn = await Promise.all(looks.map((look) => drawLook(look, found, size)));
  // A file that is no longer stored here can't be compared.
  if (drawn.some((pictures) => pictures === null)) return;
  const pictures = await Promise.all(
    drawn.map((list) => Promise.all((list ?? []).map(async (one) => (part ? partOf(one, part, size) : one)))),
  );
  const expected = pictures[looks.indexOf(due)]?.[0];
  const shape = part ? { width: found.width * part.width, height: found.height * part.height } : found;
  const fields = await Promise.all(pictures.flat().map((one) => fieldsOfPicture(one, shape)));
  const seen = await fieldsOfPicture(picture, shape);
  const verdict = verdictOf(seen, fields, changing);
  const different =
    verdict === 'differs' && expected ? differentFields(seen, await fieldsOfPicture(expected, shape)) : null;
  await transaction(async (within) => {
    await rows(
      'UPDATE glimpses SET verdict = $2, expected = $3, different = $4 WHERE id = $1',
      [glimpse, verdict, expected ? await sharp(expected).jpeg({ quality: QUALITY }).toBuffer() : null, different],
      within,
    );
    await rows(
      `UPDATE players p SET glimpse = jsonb_build_object('verdict', $3::text, 'at', $4::bigint) FROM plan_objects o
       WHERE o.id = p.screen_id AND p.network_id = $1 AND o.slug = $2 AND p.part = $5 AND COALESCE((p.glimpse->>'at')::bigint, 0) < $4`,
      [network, screen, verdict, takenAt.getTime(), found.part],
      within,
    );
    await publish({ kind: 'glimpses', network, screens: [screen] }, within);
    await publish({ kind: 'beats', network }, within);
  });
}

/** What one display shows of a wall's whole picture. */
function partOf(whole: Buffer, part: Part, size: Size): Promise<Buffer> {
  const [left, top] = [Math.round(part.left * size.width), Math.round(part.top * size.height)];
  const width = Math.max(1, Math.min(size.width - left, Math.round(part.width * size.width)));
  const height = Math.max(1, Math.min(size.height - top, Math.round(part.height * size.height)));
  return sharp(whole).extract({ left, top, width, height }).png().toBuffer();
}

const scaledTo = (longer: number, { width, height }: Size): Size => {
  const scale = longer / Math.max(width, height);
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
};

/** The colours of a picture's fields, whatever its size: pictures of one screen have one shape. */
async function fieldsOfPicture(picture: Buffer, screen: Size): Promise<Fields> {
  const { width, height } = scaledTo(COMPARED_SIDE, screen);
  const size = { width: Math.max(16, width), height: Math.max(16, height) };
  const data = await sharp(picture)
    .resize({ ...size, fit: 'fill' })
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer();
  return fieldsOf({ ...size, data });
}

/**
 * A look as the screen shows it: one picture, or several frames of a video with the one that is due first. Null if its file isn't
 * stored here.
 */
async function drawLook(look: Look, screen: Size, size: Size): Promise<Buffer[] | null> {
  if (look.kind === 'black') return [await black(size).png().toBuffer()];
  const { asset, fit, atMs } = look;
  if ((await storedBytes(asset.sha256)) === null) return null;
  const scale = size.width / screen.width;
  const placed = placedOn(screen, asset, fit, asset.focus);
  const at = {
    ...{ left: Math.round(placed.left * scale), top: Math.round(placed.top * scale) },
    ...{ width: Math.max(1, Math.round(placed.width * scale)), height: Math.max(1, Math.round(placed.height * scale)) },
  };
  const pictures = atMs === null ? [storedPath(asset.sha256)] : await framesOf(asset, atMs, at);
  return pictures && Promise.all(pictures.map((picture) => composed(picture, at, size)));
}

const black = ({ width, height }: Size) => sharp({ create: { width, height, channels: 3, background: '#000' } });

/** A picture on black, cut off at the screen's edges. */
async function composed(
  picture: string | Buffer,
  at: Size & { left: number; top: number },
  size: Size,
): Promise<Buffer> {
  const [left, top] = [Math.max(0, -at.left), Math.max(0, -at.top)];
  const cut = {
    ...{ left, top },
    width: Math.min(at.width - left, size.width - Math.max(0, at.left)),
    height: Math.min(at.height - top, size.height - Math.max(0, at.top)),
  };
  if (cut.width < 1 || cut.height < 1) return black(size).png().toBuffer();
  const scaled = await sharp(picture).resize(at.width, at.height, { fit: 'fill' }).png().toBuffer();
  const input = await sharp(scaled).extract(cut).toBuffer();
  return black(size)
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
  try {
    // A video that is shorter than its turn stays on its last frame.
    if (!(await strip(fromMs)) && !(await strip(null))) return null;
    const frames = await Promise.all(
      Array.from({ length: FRAMES }, (_, i) =>
        sharp(target)
          .extract({ left: i * size.width, top: 0, ...size })
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
