import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { crc32 } from 'node:zlib';
import sharp from 'sharp';

const folder = mkdtempSync(join(tmpdir(), 'lanternpost-e2e-'));
const path = (name: string) => join(folder, name);

/** A photograph that lies on its side: EXIF orientation 6, so that it is meant to be seen 1080 × 1920. */
export async function sidewaysPhoto(): Promise<string> {
  const file = path('Pier at dawn.jpg');
  await sharp({ create: { width: 1920, height: 1080, channels: 3, background: '#1C7C8C' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toFile(file);
  return file;
}

/** Pictures that differ, by their names in order. */
export async function manyPictures(count: number): Promise<string[]> {
  return Promise.all(
    Array.from({ length: count }, async (_, i) => {
      const file = path(`Boat ${String(i + 1).padStart(2, '0')}.png`);
      const background = { r: (i * 37) % 256, g: (i * 91) % 256, b: i };
      await sharp({ create: { width: 320, height: 180, channels: 3, background } })
        .png()
        .toFile(file);
      return file;
    }),
  );
}

/** A film of some seconds in H.264. */
export function film(name = 'Buoy.mp4', seconds = 4): string {
  const file = path(name);
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    `testsrc2=s=640x360:r=25:d=${seconds}`,
    '-c:v',
    'libx264',
    '-pix_fmt',
    'yuv420p',
    '-movflags',
    '+faststart',
    '-y',
    file,
  ]);
  return file;
}

/** A film with a tone in it, of four seconds. */
export function loudFilm(): string {
  const file = path('Horn.mp4');
  const tone = ['-f', 'lavfi', '-i', 'sine=f=220:d=4'];
  const codecs = ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'aac', '-movflags', '+faststart'];
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    'testsrc2=s=640x360:r=25:d=4',
    ...tone,
    ...codecs,
    '-y',
    file,
  ]);
  return file;
}

/** A film that stops short: its header, at the front, promises more than comes. */
export function truncatedFilm(): string {
  const file = film('Cut short.mp4', 6);
  truncateSync(file, Math.floor(readFileSync(file).length * 0.6));
  return file;
}

/** A PNG whose header claims another size than its pixels have, with a right checksum. */
export async function lyingPng(): Promise<string> {
  const file = path('Lying.png');
  const bytes = await sharp({ create: { width: 200, height: 100, channels: 3, background: '#B4472E' } })
    .png()
    .toBuffer();
  bytes.writeUInt32BE(4000, 16);
  bytes.writeUInt32BE(3000, 20);
  bytes.writeUInt32BE(crc32(bytes.subarray(12, 29)), 29);
  writeFileSync(file, bytes);
  return file;
}

export function emptyFile(): string {
  writeFileSync(path('Empty.png'), '');
  return path('Empty.png');
}

/** 20 000 × 20 000 pixels of one colour: small as a file, 1.6 GB when decoded. */
export async function hugePicture(): Promise<string> {
  const file = path('Huge.png');
  await sharp({
    create: { width: 20_000, height: 20_000, channels: 3, background: '#34406B' },
    limitInputPixels: false,
  })
    .png({ compressionLevel: 6 })
    .toFile(file);
  return file;
}

export function pageWithScript(): string {
  writeFileSync(path('Script.html'), '<!doctype html><title>Offer</title><script>alert(1)</script>');
  return path('Script.html');
}
