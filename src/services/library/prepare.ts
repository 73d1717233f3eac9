import { rm } from 'node:fs/promises';
import { Refusal, never } from '@/core/refusal';
import { decodeFilm, inspect, inspectPicture, makeFilm, makeSound, type Inspection } from './inspect';
import { kindOfFile, type FileKind } from './kinds';
import { countPages, drawPage, officeToPdf, pageText } from './pages-of';
import { incomingPath } from './store';
import { SENT, Undrawable, draw, inputOf, runFfmpeg, runTool } from './studio';

/** One picture, film or sound as players get it, before it is in the store. */
export interface Prepared {
  readonly found: Inspection;
  /** Null where the bytes that came are it. The caller adopts or removes the path. */
  readonly path: string | null;
  /** What a page says, as far as its document tells. */
  readonly text?: string;
}

/**
 * Makes of a file what players play: as it is where that can be, else in a format that every browser shows, upright, in sRGB, without
 * what a camera or program wrote beside it. Of a document of pages it makes a picture each, in order. `progress` is called with the share
 * done, 0 to 1. Throws 415 or 422 with a sentence.
 */
export async function* prepare(path: string, progress: (share: number) => void): AsyncGenerator<Prepared, void> {
  const kind = await kindOfFile(path);
  switch (kind.nature) {
    case 'picture':
    case 'film':
    case 'sound':
      return yield await preparePlayed(path, progress);
    case 'foreign-picture':
      return yield await made((target) => fromForeign(path, kind.type, target));
    case 'drawing':
      return yield await made((target) => draw('drawn', path, target));
    case 'pages':
      return yield* pages(path, progress);
    case 'office': {
      const pdf = await officeToPdf(path);
      try {
        return yield* pages(pdf, progress);
      } finally {
        await rm(pdf, { force: true });
      }
    }
    default:
      return never(kind.nature);
  }
}

async function preparePlayed(path: string, progress: (share: number) => void): Promise<Prepared> {
  const found = await inspect(path);
  switch (found.make) {
    case 'nothing':
      return { found, path: null };
    case 'plain':
      return made((target) => draw('plain', path, target));
    case 'clean':
    case 'remux':
    case 'encode':
      return made(async (target) => {
        // Copying into another container doesn't decode anything. So the result is decoded once, to prove that it plays.
        const isCopy = found.make !== 'encode';
        const making = isCopy ? (share: number) => progress(share / 2) : progress;
        if (found.kind === 'sound') await makeSound(path, found, target, making);
        else await makeFilm(path, found, target, making);
        if (!isCopy) return;
        const { type } = await kindOfFile(target);
        await decodeFilm(target, { ...found, type }, (share) => progress(0.5 + share / 2));
      });
    default:
      return never(found.make);
  }
}

/** What `work` writes to the path that it is given, looked at. Nothing is left where it fails. */
async function made(work: (target: string) => Promise<void>): Promise<Prepared> {
  const target = await incomingPath();
  try {
    await work(target);
    const found = await inspect(target);
    if (found.kind === 'sound' && found.durationMs < 100)
      throw new Refusal(422, 'This sound is shorter than a tenth of a second, too short to hear.');
    return { found, path: target };
  } catch (error) {
    await rm(target, { force: true });
    if (error instanceof Undrawable)
      throw new Refusal(422, 'This picture is damaged, or too large to be drawn. Export it again, then upload it.');
    throw error;
  }
}

/** A picture that browsers do not show, as one that they do: TIFF as it is read, HEIC and BMP by what reads them. */
async function fromForeign(path: string, type: string, target: string): Promise<void> {
  if (type === 'image/tiff') await draw('photo', path, target);
  else if (type === 'image/bmp') await fromBmp(path, target);
  else await fromHeif(path, target);
}

async function fromBmp(path: string, target: string): Promise<void> {
  const png = await incomingPath('.png');
  try {
    const given = { reads: path, makes: { name: 'made.png', to: png } };
    const args = ['-v', 'error', '-xerror', ...inputOf('image/bmp'), '-frames:v', '1', '-y', 'made.png'];
    if (!(await runFfmpeg(args, given, () => {}))) throw damaged();
    await draw('photo', png, target);
  } finally {
    await rm(png, { force: true });
  }
}

const damaged = () => new Refusal(422, 'This picture is damaged or incomplete. Export it again, then upload it.');

/** HEIC by Debian's decoder, which turns it upright: what EXIF says of its orientation counts no more (ISO/IEC 23008-12). */
async function fromHeif(path: string, target: string): Promise<void> {
  const png = await incomingPath('.png');
  try {
    await runTool('heif-convert', [SENT, 'made.png'], { reads: path, makes: { name: 'made.png', to: png } }).catch(() =>
      Promise.reject(damaged()),
    );
    await draw('photo', png, target);
  } finally {
    await rm(png, { force: true });
  }
}

async function* pages(path: string, progress: (share: number) => void): AsyncGenerator<Prepared, void> {
  const count = await countPages(path);
  for (let page = 1; page <= count; page++) {
    const png = await drawPage(path, page);
    yield { found: await inspectPicture(png, PAGE), path: png, text: await pageText(path, page) };
    progress(page / count);
  }
}

const PAGE: Pick<FileKind, 'type'> = { type: 'image/png' };
