import { fileTypeFromFile } from 'file-type';
import sharp from 'sharp';
import { Refusal } from '@/core';
import { inputOf, runFfmpeg, runTool } from './film-tools';

/** What a file turned out to be. Sizes are as shown, after its orientation. */
export interface Inspection {
  readonly kind: 'image' | 'video';
  readonly type: string;
  readonly width: number;
  readonly height: number;
  readonly durationMs: number | null;
  readonly codec: string | null;
  /** Whether the pixels are stored turned or mirrored (EXIF orientation 2 to 8). */
  readonly turned: boolean;
}

const IMAGE_TYPES = ['image/png', 'image/jpeg', 'image/webp', 'image/avif', 'image/gif'];
const VIDEO_TYPES = ['video/mp4', 'video/webm', 'video/quicktime', 'video/x-m4v'];
const VIDEO_CODECS = ['h264', 'vp8', 'vp9', 'av1'];
const MOST_PIXELS = 100e6;

// A picture at a time, and nothing kept of it: what a worker needs of memory stays within bounds.
sharp.cache(false);
sharp.concurrency(1);

const unsupported = (found: string) =>
  new Refusal(415, `${found} can't be shown: use PNG, JPEG, WebP, AVIF or GIF pictures, or MP4 and WebM films.`);

const broken = (thing: string) =>
  new Refusal(422, `This ${thing} is damaged or incomplete: export it again, then upload it.`);

/** What a file is, by its first bytes alone; its name tells nothing. Throws 415 with a sentence for what can't be shown. */
export async function kindOfFile(path: string): Promise<Pick<Inspection, 'kind' | 'type'>> {
  const sniffed = await fileTypeFromFile(path);
  if (!sniffed) throw unsupported('This kind of file');
  if (IMAGE_TYPES.includes(sniffed.mime)) return { kind: 'image', type: sniffed.mime };
  if (VIDEO_TYPES.includes(sniffed.mime))
    return { kind: 'video', type: sniffed.mime === 'video/webm' ? sniffed.mime : 'video/mp4' };
  throw unsupported(`${sniffed.ext.toUpperCase()} files`);
}

/** Reads a file's kind, size and soundness from its bytes: for workers, since it may take long. Throws 415 or 422 with a sentence. */
export async function inspect(path: string): Promise<Inspection> {
  const { kind, type } = await kindOfFile(path);
  return kind === 'image' ? inspectImage(path, type) : inspectVideo(path, type);
}

async function inspectImage(path: string, type: string): Promise<Inspection> {
  const metadata = await sharp(path, { limitInputPixels: false })
    .metadata()
    .catch(() => Promise.reject(broken('picture')));
  const { width, height } = metadata;
  if (!width || !height) throw broken('picture');
  if (width * height > MOST_PIXELS)
    throw new Refusal(
      422,
      `This picture has ${width} × ${height} pixels, more than any screen needs: scale it to at most 100 megapixels.`,
    );
  // Decoding all of it is the only proof that its header tells the truth.
  await sharp(path, { limitInputPixels: MOST_PIXELS, failOn: 'warning' })
    .resize(8, 8, { fit: 'fill' })
    .raw()
    .toBuffer()
    .catch(() => Promise.reject(broken('picture')));
  const orientation = metadata.orientation ?? 1;
  const sideways = orientation >= 5;
  return {
    kind: 'image',
    type,
    width: sideways ? height : width,
    height: sideways ? width : height,
    durationMs: null,
    codec: metadata.format ?? null,
    turned: orientation > 1,
  };
}

interface Probe {
  streams?: {
    codec_type?: string;
    codec_name?: string;
    width?: number;
    height?: number;
    duration?: string;
    side_data_list?: { rotation?: number }[];
  }[];
  format?: { duration?: string };
}

async function inspectVideo(path: string, type: string): Promise<Inspection> {
  const { stdout } = await runTool('ffprobe', [
    ...['-v', 'error', '-show_format', '-show_streams', '-of', 'json'],
    ...inputOf(path, type),
  ]).catch(() => Promise.reject(broken('film')));
  const probe = JSON.parse(stdout) as Probe;
  const picture = probe.streams?.find((stream) => stream.codec_type === 'video');
  if (!picture) throw new Refusal(415, 'This file has sound but no picture: only films and pictures can be shown.');
  const { codec_name: codec = 'unknown', width, height } = picture;
  if (!VIDEO_CODECS.includes(codec))
    throw new Refusal(
      415,
      `Films in ${codec.toUpperCase()} do not play on every screen: export it as H.264, VP9 or AV1.`,
    );
  const seconds = Number(probe.format?.duration ?? picture.duration);
  if (!width || !height || !(seconds >= 0.1)) throw broken('film');
  // Reading every packet, without decoding, shows whether the file stops short.
  const { stderr } = await runTool('ffmpeg', [
    ...['-v', 'error', ...inputOf(path, type)],
    ...['-map', '0:v:0', '-c', 'copy', '-f', 'null', '-'],
  ]).catch(() => Promise.reject(broken('film')));
  if (stderr.trim() !== '') throw broken('film');
  const rotation = picture.side_data_list?.find((entry) => entry.rotation !== undefined)?.rotation ?? 0;
  const sideways = Math.abs(rotation) % 180 === 90;
  return {
    kind: 'video',
    type,
    width: sideways ? height : width,
    height: sideways ? width : height,
    durationMs: Math.round(seconds * 1000),
    codec,
    turned: false,
  };
}

/** Decodes a whole film, which proves that every frame can be shown. `progress` is called with the share done, 0 to 1. */
export async function decodeFilm(
  path: string,
  { type, durationMs }: Pick<Inspection, 'type' | 'durationMs'>,
  progress: (share: number) => void,
): Promise<void> {
  const good = await runFfmpeg(
    [
      ...['-v', 'error', '-xerror', '-threads', '2', ...inputOf(path, type)],
      ...['-map', '0:v:0', '-f', 'null', '-progress', 'pipe:1', '-'],
    ],
    (text) => {
      const match = /out_time_us=(\d+)/.exec(text);
      if (match && durationMs) progress(Math.min(1, Number(match[1]) / 1000 / durationMs));
    },
  );
  if (!good) throw broken('film');
}
