import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { pdf } from '@/services/tests/files';

/** A folder as an operator has it after some years: pictures, films, sounds and documents of every kind, in folders, with broken ones among them. */
export interface MixedFolder {
  readonly path: string;
  /** How many files are in it. */
  readonly count: number;
  /** What the library is to hold of it, by name. */
  readonly names: readonly string[];
  /** The files that can't be taken, by their file names. */
  readonly refused: readonly string[];
}

/** How many files are in it. */
export const FILES = 40;

const PICTURES = ['jpg', 'png', 'webp', 'avif', 'gif', 'tif'] as const;
const SIZES = [
  [1920, 1080],
  [1080, 1920],
  [384, 192],
  [800, 480],
  [640, 640],
  [301, 77],
] as const;
/** Names in many alphabets, with marks, spaces and signs. */
const NAMES = ['Fähre', 'Паром', '渡し船', 'عبّارة', 'Ferry & more', 'a.b.c', "Captain's", '  spaced  ', 'ﬁn', '🚢'];

export async function mixedFolder(): Promise<MixedFolder> {
  const path = mkdtempSync(join(tmpdir(), 'lanternpost-mixed-'));
  const names: string[] = [];
  const refused: string[] = [];
  let count = 0;
  const put = (file: string, bytes: Buffer | string) => {
    const target = join(path, file);
    mkdirSync(dirname(target), { recursive: true });
    writeFileSync(target, bytes);
    count++;
  };
  const taken = (file: string, bytes: Buffer | string, ...called: string[]) => {
    put(file, bytes);
    names.push(...called);
  };
  const broken = (file: string, bytes: Buffer | string) => {
    put(file, bytes);
    refused.push(file.slice(file.lastIndexOf('/') + 1));
  };
  const picture = (i: number, format: (typeof PICTURES)[number], width: number, height: number) =>
    sharp({
      create: { width, height, channels: 3, background: { r: (i * 37) % 256, g: (i * 91) % 256, b: i % 256 } },
    })
      .toFormat(format === 'jpg' ? 'jpeg' : format === 'tif' ? 'tiff' : format)
      .toBuffer();
  for (let i = 0; i < 6; i++) {
    const format = PICTURES[i % PICTURES.length] ?? 'png';
    const [width, height] = SIZES[(i * 5) % SIZES.length] ?? [10, 10];
    const called = `Poster ${String(i).padStart(3, '0')}`;
    taken(`posters/${i % 4}/${called}.${format}`, await picture(i, format, width, height), called);
  }
  for (const [i, name] of NAMES.entries())
    taken(`names/${name}.png`, await picture(300 + i, 'png', 20 + i, 20), name.trim());
  for (let i = 0; i < 2; i++)
    taken(
      `drawings/Sign ${i}.svg`,
      `<svg xmlns="http://www.w3.org/2000/svg" width="200" height="${100 + i}"><rect width="200" height="99" fill="#1C7C8C"/></svg>`,
      `Sign ${i}`,
    );
  const film = (name: string, ...codecs: string[]) => {
    const made = join(path, name);
    mkdirSync(dirname(made), { recursive: true });
    const source = ['-f', 'lavfi', '-i', `testsrc2=s=160x90:r=10:d=1,hue=h=${(count * 7) % 360}`];
    execFileSync('ffmpeg', ['-v', 'error', ...source, ...codecs, '-metadata', `title=${name}`, '-y', made]);
    count++;
    return made;
  };
  const films: [ending: string, codecs: string[]][] = [
    ['mp4', ['-c:v', 'libx264', '-pix_fmt', 'yuv420p']],
    ['mkv', ['-c:v', 'libx265', '-x265-params', 'log-level=none']],
    ['webm', ['-c:v', 'libvpx-vp9']],
    ['gif', []],
  ];
  for (const [ending, codecs] of films) {
    const called = `Film ${count}`;
    film(`films/${called}.${ending}`, ...codecs);
    names.push(called);
  }
  for (const [i, [ending, codec]] of (
    [
      ['mp3', 'libmp3lame'],
      ['m4a', 'aac'],
      ['flac', 'flac'],
    ] as const
  ).entries()) {
    const called = `Horn ${i}`;
    mkdirSync(join(path, 'sounds'), { recursive: true });
    const tone = ['-f', 'lavfi', '-i', `sine=f=${220 + i * 10}:d=1`];
    execFileSync('ffmpeg', ['-v', 'error', ...tone, '-c:a', codec, '-y', join(path, 'sounds', `${called}.${ending}`)]);
    count++;
    names.push(called);
  }
  for (let i = 0; i < 2; i++)
    taken(
      `documents/Plan ${i}.pdf`,
      pdf(2, '', (page) => `Plan ${i}, page ${page}`),
      `Plan ${i}, page 1 of 2`,
      `Plan ${i}, page 2 of 2`,
    );

  broken('broken/Empty.png', '');
  broken('broken/Letter.docx', 'PK\u0003\u0004 no document');
  broken('broken/Page.html', '<!doctype html><script>alert(1)</script>');
  broken('broken/Really a text.jpg', 'not a picture at all');
  broken('broken/List.m3u8', '#EXTM3U\n/etc/passwd\n');
  broken('broken/Program.exe', Buffer.from('MZ\u0090\u0000'.padEnd(500, '\u0000'), 'latin1'));
  const half = await sharp({ create: { width: 300, height: 300, channels: 3, background: '#884422' } })
    .jpeg()
    .toBuffer();
  broken('broken/Half a picture.jpg', half.subarray(0, half.length >> 1));
  const cut = film('broken/Half a film.mp4', '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-movflags', '+faststart');
  truncateSync(cut, readFileSync(cut).length >> 1);
  refused.push('Half a film.mp4');
  for (let i = 0; count < FILES; i++) broken(`broken/Note ${i}.txt`, `Buy oil ${i}.`);
  return { path, count, names, refused };
}
