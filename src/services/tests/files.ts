import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import sharp from 'sharp';
import { receiveUpload, type Received } from '../library';
import type { Actor } from '../people';

const folder = mkdtempSync(join(tmpdir(), 'lanternpost-files-'));

export async function picture(
  width = 320,
  height = 200,
  background = '#1C7C8C',
  orientation?: number,
): Promise<Buffer> {
  const image = sharp({ create: { width, height, channels: 3, background } });
  return (orientation === undefined ? image : image.withMetadata({ orientation })).jpeg().toBuffer();
}

/** A film in H.264 of some seconds. */
export function film(seconds = 2, size = '320x180'): Buffer {
  const path = join(folder, `${seconds}-${size}.mp4`);
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    `testsrc2=s=${size}:r=25:d=${seconds}`,
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    '-movflags',
    '+faststart',
    '-y',
    path,
  ]);
  return readFileSync(path);
}

/** A PDF of so many pages, each with its own grey, by ISO 32000-1; with more entries for its catalogue, and the text of its pages. */
export function pdf(pages: number, catalogue = '', says: (page: number) => string = () => ''): Buffer {
  const objects = [
    `<< /Type /Catalog /Pages 2 0 R ${catalogue} >>`,
    `<< /Type /Pages /Count ${pages} /Kids [${Array.from({ length: pages }, (_, i) => `${3 + i * 2} 0 R`).join(' ')}] >>`,
    ...Array.from({ length: pages }, (_, i) => {
      const words = says(i + 1);
      const written = words === '' ? '' : ` BT /F 24 Tf 1 g 20 80 Td (${words}) Tj ET`;
      const drawing = `${i / pages} g 0 0 400 200 re f${written}`;
      return [
        `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 400 200] /Resources << /Font << /F << /Type /Font /Subtype /Type1 /BaseFont /Helvetica >> >> >> /Contents ${4 + i * 2} 0 R >>`,
        `<< /Length ${drawing.length} >>\nstream\n${drawing}\nendstream`,
      ];
    }).flat(),
  ];
  let text = '%PDF-1.4\n';
  const places = objects.map((object, i) => {
    const at = text.length;
    text += `${i + 1} 0 obj\n${object}\nendobj\n`;
    return at;
  });
  const table = places.map((at) => `${String(at).padStart(10, '0')} 00000 n \n`).join('');
  return Buffer.from(
    `${text}xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${table}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${text.length}\n%%EOF\n`,
  );
}

export const stream = (bytes: Buffer | string) => Readable.from([Buffer.from(bytes)]);

/** Sends a file to the library in one request. */
export const send = (actor: Actor, name: string, bytes: Buffer): Promise<Received> =>
  receiveUpload(actor, { name, bytes: bytes.length }, stream(bytes));
