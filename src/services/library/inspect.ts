import { readFile, stat } from 'node:fs/promises';
import { Refusal } from '@/core/refusal';
import { hasMoreThanPixels } from './beside-pixels';
import { kindOfFile, type FileKind } from './kinds';
import { MOST_PIXELS, Undrawable, draw, inputOf, runFfmpeg, runTool } from './studio';

interface Found {
  /** Media type of the bytes as they are. */
  readonly type: string;
  readonly durationMs: number | null;
  readonly codec: string | null;
  /**
   * What must be made of it before players get it: nothing; a picture of its pixels alone; the same streams in the same container, without
   * what a camera wrote; the same streams in an MP4; or new streams.
   */
  readonly make: 'nothing' | 'plain' | 'clean' | 'remux' | 'encode';
}

/** What a picture or a film turned out to be. Sizes are as shown, after its orientation. */
export interface ShownInspection extends Found {
  readonly kind: 'image' | 'video';
  readonly width: number;
  readonly height: number;
  /** A film with sound. */
  readonly audio: boolean;
}

/** What a sound turned out to be. */
export interface SoundInspection extends Found {
  readonly kind: 'sound';
  readonly durationMs: number;
}

export type Inspection = ShownInspection | SoundInspection;

/** What browsers play, by container. */
const VIDEO_CODECS: Readonly<Record<string, readonly string[]>> = {
  'video/mp4': ['h264', 'vp9', 'av1'],
  'video/webm': ['vp8', 'vp9', 'av1'],
};
const AUDIO_CODECS: Readonly<Record<string, readonly string[]>> = {
  'video/mp4': ['aac', 'mp3', 'opus'],
  'video/webm': ['opus', 'vorbis'],
};
const PIXELS = ['yuv420p', 'yuvj420p'];
/** Longer films are taken for a mistake, or for a stream without an end. In seconds. */
const MOST_SECONDS = 12 * 3600;

/** What a tool calls what it makes, in the folder that it works in. */
const MADE = 'made';

const broken = (thing: string) =>
  new Refusal(422, `This ${thing} is damaged or incomplete. Export it again, then upload it.`);

/** Reads what a picture, film or sound is from its bytes, and whether it is whole: for workers, since it may take long. Throws 415 or 422 with a sentence. */
export async function inspect(path: string): Promise<Inspection> {
  const kind = await kindOfFile(path);
  switch (kind.nature) {
    case 'film':
    case 'sound':
      return inspectFilm(path, kind.type);
    default:
      return inspectPicture(path, kind);
  }
}

/** Of a picture as browsers show it; a moving one is looked at as a film. */
export async function inspectPicture(path: string, { type }: Pick<FileKind, 'type'>): Promise<Inspection> {
  try {
    const { width, height, orientation, format, frames, roundMs, hasNotes } = await draw('look', path);
    if (!width || !height) throw broken('picture');
    if (width * height > MOST_PIXELS)
      throw new Refusal(
        422,
        `This picture has ${width} × ${height} pixels, more than any screen needs. Scale it to at most 100 megapixels.`,
      );
    if (frames > 1 && type === 'image/gif') return await inspectFilm(path, type);
    await draw('decode', path);
    const more = hasNotes || (await isMoreThanPixels(path, type));
    const sideways = orientation >= 5;
    return {
      kind: 'image',
      type,
      width: sideways ? height : width,
      height: sideways ? width : height,
      // One round of a moving picture. Less than a tenth of a second can't be meant.
      durationMs: roundMs !== null && roundMs >= SHORTEST_ROUND_MS ? roundMs : null,
      codec: format,
      audio: false,
      make: orientation > 1 || more ? 'plain' : 'nothing',
    };
  } catch (error) {
    throw error instanceof Undrawable ? broken('picture') : error;
  }
}

const SHORTEST_ROUND_MS = 100;

/** Larger pictures are always encoded again, without reading the metadata beside their pixels. In bytes. */
const MOST_WALKED = 128 * 2 ** 20;

const isMoreThanPixels = async (path: string, type: string) =>
  (await stat(path)).size > MOST_WALKED || hasMoreThanPixels(await readFile(path), type);

interface Stream {
  codec_type?: string;
  codec_name?: string;
  width?: number;
  height?: number;
  pix_fmt?: string;
  duration?: string;
  disposition?: { attached_pic?: number };
  side_data_list?: { rotation?: number }[];
}

interface Probe {
  streams?: Stream[];
  format?: { duration?: string };
}

async function inspectFilm(path: string, type: string): Promise<Inspection> {
  const { stdout } = await runTool(
    'ffprobe',
    [...['-v', 'error', '-show_format', '-show_streams', '-of', 'json'], ...inputOf(type)],
    { reads: path },
  ).catch(() => Promise.reject(broken('video')));
  const probe = JSON.parse(stdout) as Probe;
  const picture = probe.streams?.find((one) => one.codec_type === 'video' && one.disposition?.attached_pic !== 1);
  if (!picture) return inspectSound(path, type, probe);
  const { codec_name: codec = 'unknown', width, height } = picture;
  const seconds = Number(probe.format?.duration ?? picture.duration);
  // GIFs tell no length: what they are made into does.
  if (!width || !height || (type !== 'image/gif' && !(seconds >= 0.1))) throw broken('video');
  if (seconds > MOST_SECONDS)
    throw new Refusal(422, `This video lasts ${Math.round(seconds / 3600)} hours. Cut it to at most 12.`);
  await readThrough(path, type);
  const rotation = picture.side_data_list?.find((entry) => entry.rotation !== undefined)?.rotation ?? 0;
  const sideways = Math.abs(rotation) % 180 === 90;
  return {
    kind: 'video',
    type,
    width: sideways ? height : width,
    height: sideways ? width : height,
    durationMs: Number.isFinite(seconds) ? Math.round(seconds * 1000) : null,
    codec,
    audio: probe.streams?.some((one) => one.codec_type === 'audio') === true,
    make: whatToMake(type, probe.streams ?? [], picture),
  };
}

/** What is heard alone. What players get is AAC in an MP4, which every browser plays, and nothing beside it: no names, no cover. */
async function inspectSound(path: string, type: string, { streams = [], format }: Probe): Promise<SoundInspection> {
  const sound = streams.find((one) => one.codec_type === 'audio');
  if (!sound) throw broken('file');
  const { codec_name: codec = 'unknown' } = sound;
  // Some containers only guess their duration, so it is measured on the finished file.
  const seconds = Number(format?.duration ?? sound.duration);
  if (seconds > MOST_SECONDS)
    throw new Refusal(422, `This sound lasts ${Math.round(seconds / 3600)} hours. Cut it to at most 12.`);
  return {
    kind: 'sound',
    type,
    durationMs: Number.isFinite(seconds) ? Math.round(seconds * 1000) : 0,
    codec,
    make: codec === 'aac' ? 'remux' : 'encode',
  };
}

/** Makes an M4A that every browser plays from a sound, without metadata or cover pictures. Throws 422 if it can't be decoded. */
export async function makeSound(
  path: string,
  { type, durationMs, make }: SoundInspection,
  target: string,
  progress: (share: number) => void,
): Promise<void> {
  const made = make === 'remux' ? ['-c', 'copy'] : ['-c:a', 'aac', '-b:a', '192k', '-ac', '2'];
  const good = await runFfmpeg(
    [
      ...['-v', 'error', '-xerror', '-threads', '2', ...inputOf(type), '-map', '0:a:0'],
      ...['-map_metadata', '-1', '-vn', '-sn', '-dn', ...made],
      ...['-movflags', '+faststart', '-f', 'ipod', '-stats_period', '0.2', '-progress', 'pipe:1', '-y', MADE],
    ],
    { reads: path, makes: { name: MADE, to: target } },
    shareOf(durationMs, progress),
  );
  if (!good) throw broken('sound');
}

/** Reading every packet, without decoding, shows whether the file stops short. Old containers complain of much that plays well. */
async function readThrough(path: string, type: string): Promise<void> {
  const { stderr } = await runTool(
    'ffmpeg',
    [...['-v', 'error', ...inputOf(type)], ...['-map', '0:v:0', '-c', 'copy', '-f', 'null', '-']],
    { reads: path },
  ).catch(() => Promise.reject(broken('video')));
  if (stderr.trim() !== '' && (type === 'video/mp4' || type === 'video/webm')) throw broken('video');
}

/** Players get what every browser plays: the streams as they are, or in another container, or encoded again. */
function whatToMake(type: string, streams: readonly Stream[], picture: Stream): Inspection['make'] {
  const codec = picture.codec_name ?? '';
  const sounds = streams.filter((one) => one.codec_type === 'audio').map((one) => one.codec_name ?? '');
  const fits = (container: string) =>
    VIDEO_CODECS[container]?.includes(codec) === true && sounds.every((one) => AUDIO_CODECS[container]?.includes(one));
  if (!PIXELS.includes(picture.pix_fmt ?? '')) return 'encode';
  if (fits(type)) return 'clean';
  return fits('video/mp4') ? 'remux' : 'encode';
}

/** Decodes a whole film, or sound, which proves that all of it can be played. `progress` is called with the share done, 0 to 1. */
export async function decodeFilm(
  path: string,
  { kind, type, durationMs }: Pick<Inspection, 'kind' | 'type' | 'durationMs'>,
  progress: (share: number) => void,
): Promise<void> {
  const good = await runFfmpeg(
    [
      ...['-v', 'error', '-xerror', '-threads', '2', ...inputOf(type)],
      ...[
        '-map',
        kind === 'sound' ? '0:a:0' : '0:v:0',
        '-f',
        'null',
        '-stats_period',
        '0.2',
        '-progress',
        'pipe:1',
        '-',
      ],
    ],
    { reads: path },
    shareOf(durationMs, progress),
  );
  if (!good) throw broken(kind === 'sound' ? 'sound' : 'video');
}

/** Hears ffmpeg's progress as a share of a length in milliseconds. */
const shareOf = (durationMs: number | null, progress: (share: number) => void) => (text: string) => {
  const match = /out_time_us=(\d+)/.exec(text);
  if (match && durationMs) progress(Math.min(1, Number(match[1]) / 1000 / durationMs));
};

/** What x264 takes: even sides; at most sixty pictures a second. */
const ENCODED = [
  ...['-vf', 'scale=trunc(iw/2)*2:trunc(ih/2)*2:flags=lanczos,format=yuv420p', '-fpsmax', '60'],
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '20', '-c:a', 'aac', '-b:a', '160k', '-ac', '2'],
];

/** Streams as they are. Cameras write the place and the time into H.264 itself too, as messages (SEI, NAL unit type 6) that no player needs. */
const copied = (codec: string | null): string[] => [
  ...['-c', 'copy'],
  ...(codec === 'h264' ? ['-bsf:v', 'filter_units=remove_types=6'] : []),
];

/**
 * Makes a video of a film that every browser plays from its beginning, without what a camera or program wrote beside it. `target` is where.
 * Throws 422 if it can't be decoded.
 */
export async function makeFilm(
  path: string,
  { type, durationMs, make, codec }: Pick<Inspection, 'type' | 'durationMs' | 'make' | 'codec'>,
  target: string,
  progress: (share: number) => void,
): Promise<void> {
  const good = await runFfmpeg(
    [
      ...['-v', 'error', '-xerror', '-threads', '2', ...inputOf(type), '-map', '0:V:0', '-map', '0:a:0?'],
      ...['-map_metadata', '-1', '-map_chapters', '-1', '-sn', '-dn', ...(make === 'encode' ? ENCODED : copied(codec))],
      ...[...(make === 'clean' && type === 'video/webm' ? ['-f', 'webm'] : ['-movflags', '+faststart', '-f', 'mp4'])],
      ...['-stats_period', '0.2', '-progress', 'pipe:1', '-y', MADE],
    ],
    { reads: path, makes: { name: MADE, to: target } },
    shareOf(durationMs, progress),
  );
  if (!good) throw broken('video');
}

/** Bits a second that a film of a size is given at most: what looks the same is not sent. */
const mostBits = ({ width, height }: { readonly width: number; readonly height: number }) =>
  Math.max(300_000, Math.round(width * height * 4));

/** Makes a smaller film of one that players get, in pixels. Throws where that fails. */
export async function makeSmallerFilm(
  path: string,
  size: { readonly width: number; readonly height: number },
  target: string,
): Promise<void> {
  const { type } = await kindOfFile(path);
  const bits = String(mostBits(size));
  const good = await runFfmpeg(
    [
      ...['-v', 'error', '-threads', '2', ...inputOf(type), '-map', '0:V:0', '-map', '0:a:0?', '-map_metadata', '-1'],
      ...['-vf', `scale=${size.width}:${size.height}:flags=lanczos,setsar=1,format=yuv420p`, '-fpsmax', '60'],
      ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '21', '-maxrate', bits, '-bufsize', bits],
      ...['-c:a', 'aac', '-b:a', '128k', '-ac', '2', '-movflags', '+faststart', '-f', 'mp4'],
      ...['-stats_period', '0.2', '-progress', 'pipe:1', '-y', MADE],
    ],
    { reads: path, makes: { name: MADE, to: target } },
    () => {},
  );
  if (!good) throw new Error(`A video could not be made ${size.width} × ${size.height}.`);
}
