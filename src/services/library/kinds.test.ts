import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { crc32 } from 'node:zlib';
import sharp from 'sharp';
import { UploadRow } from '@/database';
import { draftPlan, edit, undo } from '../plan';
import type { Actor } from '../people';
import { newNetwork, useDatabase } from '../tests/database';
import { film, pdf, picture, send } from '../tests/files';
import { findInLibrary, libraryRoom, processUpload, storedPath, thumbnailOf } from '.';
import { hasMoreThanPixels } from './beside-pixels';
import { Undrawable, draw, runTool } from './studio';

useDatabase();

const folder = mkdtempSync(join(tmpdir(), 'lanternpost-kinds-'));
const ffmpeg = (name: string, ...args: string[]) => {
  const path = join(folder, name);
  execFileSync('ffmpeg', ['-v', 'error', ...args, '-y', path]);
  return readFileSync(path);
};
const MOVING = ['-f', 'lavfi', '-i', 'testsrc2=s=160x90:r=10:d=2'];
const SOUND = ['-f', 'lavfi', '-i', 'sine=d=2'];

/** What became of a file: its upload's error, or the network’s media files. */
async function add(actor: Actor, name: string, bytes: Buffer) {
  const received = await send(actor, name, bytes);
  if (!('upload' in received)) throw new Error('known');
  await processUpload(received.upload.id);
  const row = await UploadRow.findByPk(received.upload.id);
  return row?.error ?? (await draftPlan(actor)).plan.media;
}

interface Streams {
  streams: { codec_type: string; codec_name: string; pix_fmt?: string }[];
  format: { format_name: string; tags?: Record<string, string> };
}
/** What ffprobe, and nothing of ours, says of what players get. */
const probed = (sha256: string | undefined) =>
  JSON.parse(
    execFileSync('ffprobe', ['-v', 'error', '-show_streams', '-show_format', '-of', 'json', storedPath(sha256 ?? '')], {
      encoding: 'utf8',
    }),
  ) as Streams;

/** The names of an MP4's first boxes (ISO/IEC 14496-12), in order. */
function boxes(sha256: string | undefined): string[] {
  const bytes = readFileSync(storedPath(sha256 ?? ''));
  const names: string[] = [];
  for (let at = 0; at + 8 <= bytes.length; at += Math.max(8, bytes.readUInt32BE(at)))
    names.push(bytes.toString('latin1', at + 4, at + 8));
  return names;
}

describe('films', () => {
  it.each([
    ['a MOV of a camera', 'a.mov', [...MOVING, '-c:v', 'libx264', '-pix_fmt', 'yuv422p10le']],
    ['an MKV', 'a.mkv', [...MOVING, ...SOUND, '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'aac']],
    [
      'an MKV with HEVC and FLAC',
      'b.mkv',
      [...MOVING, ...SOUND, '-c:v', 'libx265', '-x265-params', 'log-level=none', '-c:a', 'flac'],
    ],
    ['an AVI', 'a.avi', [...MOVING, ...SOUND, '-c:v', 'mpeg4', '-c:a', 'mp3']],
    ['a WMV', 'a.wmv', [...MOVING, ...SOUND, '-c:v', 'wmv2', '-c:a', 'wmav2']],
    ['an MPEG', 'a.mpg', [...MOVING, ...SOUND, '-r', '25', '-c:v', 'mpeg2video', '-c:a', 'mp2']],
    ['a transport stream', 'a.ts', [...MOVING, '-c:v', 'libx264', '-pix_fmt', 'yuv420p']],
    ['a moving GIF', 'a.gif', [...MOVING]],
  ])('%s is made an MP4 of H.264 that begins at its beginning', async (_, name, args) => {
    const actor = await newNetwork();
    const media = await add(actor, name, ffmpeg(name, ...args));
    expect(media).toMatchObject([{ kind: 'video', width: 160, height: 90, type: 'video/mp4' }]);
    const [{ sha256, durationMs } = {}] = media as { sha256?: string; durationMs?: number }[];
    expect(Math.abs((durationMs ?? 0) - 2000)).toBeLessThanOrEqual(120);
    const { streams } = probed(sha256);
    expect(streams.find((one) => one.codec_type === 'video')).toMatchObject({ codec_name: 'h264', pix_fmt: 'yuv420p' });
    expect(streams.filter((one) => one.codec_type === 'audio').every((one) => one.codec_name === 'aac')).toBe(true);
    expect(boxes(sha256).filter((box) => ['moov', 'mdat'].includes(box))).toEqual(['moov', 'mdat']);
  });

  it('what plays anywhere already keeps its streams frame by frame', async () => {
    const actor = await newNetwork();
    const bytes = film(1);
    const [media] = (await add(actor, 'Plain.mp4', bytes)) as { sha256?: string }[];
    const frames = (path: string) =>
      execFileSync('ffmpeg', ['-v', 'error', '-i', path, '-map', '0:v', '-f', 'framemd5', '-'], { encoding: 'utf8' });
    writeFileSync(join(folder, 'plain.mp4'), bytes);
    expect(frames(storedPath(media?.sha256 ?? ''))).toBe(frames(join(folder, 'plain.mp4')));
  });

  it.each([
    ['MP4', 'mp4', ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-movflags', '+use_metadata_tags']],
    ['WebM', 'webm', ['-c:v', 'libvpx', '-b:v', '200k']],
  ])('nothing that a camera wrote into an %s reaches players', async (_, ending, codec) => {
    const actor = await newNetwork();
    const notes = [
      ...['location=+59.91+010.75/', 'location-eng=+59.91+010.75/', 'make=Kamera AS', 'comment=Pier 59.91'],
      ...['creation_time=2026-07-04T10:11:12Z', 'com.example.model=Kamera 7'],
    ].flatMap((one) => ['-metadata', one, '-metadata:s:v', one]);
    const bytes = ffmpeg(`camera.${ending}`, ...MOVING, ...codec, ...notes);
    const [media] = (await add(actor, `Camera.${ending}`, bytes)) as { sha256?: string; type?: string }[];
    expect(bytes.toString('latin1')).toContain('Kamera');
    const sent = readFileSync(storedPath(media?.sha256 ?? '')).toString('latin1');
    for (const word of ['59.91', 'Kamera', '2026']) expect(sent).not.toContain(word);
    expect(media?.type).toBe(`video/${ending}`);
    // x264 writes what it was told into the stream itself, as cameras write place and time there.
    expect(sent).not.toContain('x264 - core');
  });

  it('odd sides become even, and what the camera wrote beside it is left out', async () => {
    const actor = await newNetwork();
    const bytes = ffmpeg(
      'odd.mkv',
      ...['-f', 'lavfi', '-i', 'testsrc2=s=161x91:r=10:d=1', '-c:v', 'ffv1', '-metadata', 'location=+59.91+010.75/'],
    );
    const [media] = (await add(actor, 'Odd.mkv', bytes)) as { sha256?: string }[];
    expect(media).toMatchObject({ width: 160, height: 90 });
    expect(JSON.stringify(probed(media?.sha256).format.tags ?? {})).not.toContain('59.91');
  });

  it('a film with a broken middle is refused, not shown with a hole', async () => {
    const actor = await newNetwork();
    const bytes = ffmpeg('hole.avi', ...MOVING, '-c:v', 'libx264', '-pix_fmt', 'yuv420p');
    bytes.fill(0x55, bytes.length >> 2, bytes.length >> 1);
    expect(await add(actor, 'Hole.avi', bytes)).toBe(
      'This video is damaged or incomplete. Export it again, then upload it.',
    );
    expect((await draftPlan(actor)).plan.media).toEqual([]);
  });
});

describe('sounds', () => {
  it.each([
    ['an MP3', 'a.mp3', ['-c:a', 'libmp3lame']],
    ['an AAC', 'a.aac', ['-c:a', 'aac']],
    ['a WAV', 'a.wav', []],
    ['an Ogg with Vorbis', 'a.ogg', ['-c:a', 'libvorbis']],
    ['an Ogg with Opus', 'a.opus', ['-c:a', 'libopus']],
    ['a FLAC', 'a.flac', []],
    ['an M4A', 'a.m4a', ['-c:a', 'aac']],
    ['an MP4 without a picture', 'a.mp4', ['-c:a', 'aac']],
    ['a WebM without a picture', 'a.webm', ['-c:a', 'libopus']],
  ])('%s is heard, as AAC in an MP4 that begins at its beginning', async (_, name, args) => {
    const actor = await newNetwork();
    const media = await add(actor, name, ffmpeg(`sound-${name}`, ...SOUND, ...args));
    expect(media).toMatchObject([{ kind: 'sound', type: 'audio/mp4' }]);
    const [sound] = media as { sha256?: string; durationMs?: number; width?: number; audio?: boolean }[];
    expect(sound?.width).toBeUndefined();
    expect(Math.abs((sound?.durationMs ?? 0) - 2000)).toBeLessThanOrEqual(120);
    expect(probed(sound?.sha256).streams).toMatchObject([{ codec_type: 'audio', codec_name: 'aac' }]);
    expect(boxes(sound?.sha256).filter((box) => ['moov', 'mdat'].includes(box))).toEqual(['moov', 'mdat']);
  });

  it('names, places and covers that came with a sound are left out', async () => {
    const actor = await newNetwork();
    const cover = join(folder, 'cover.png');
    writeFileSync(
      cover,
      await sharp({ create: { width: 9, height: 9, channels: 3, background: 'red' } })
        .png()
        .toBuffer(),
    );
    const bytes = ffmpeg(
      'covered.mp3',
      ...[...SOUND, '-i', cover, '-map', '0', '-map', '1', '-metadata', 'title=Secret', '-id3v2_version', '3'],
    );
    const [sound] = (await add(actor, 'Covered.mp3', bytes)) as { sha256?: string }[];
    const { streams, format } = probed(sound?.sha256);
    expect(streams).toHaveLength(1);
    expect(JSON.stringify(format.tags ?? {})).not.toContain('Secret');
  });

  it('have a picture of how loud they are over their time', async () => {
    const actor = await newNetwork();
    const half = ['-f', 'lavfi', '-i', 'aevalsrc=0.8*sin(440*2*PI*t)*lt(t\\,1):d=2'];
    const [sound] = (await add(actor, 'Half.wav', ffmpeg('half.wav', ...half))) as { sha256?: string }[];
    const drawn = (await thumbnailOf(actor, sound?.sha256 ?? '')).sha256;
    const lit = async (left: number) => {
      const side = await sharp(storedPath(drawn)).extract({ left, top: 0, width: 300, height: 360 }).toBuffer();
      return (await sharp(side).stats()).channels[0]?.mean ?? 0;
    };
    expect(await lit(0)).toBeGreaterThan((await lit(340)) + 10);
  });

  it('a broken sound is refused, and nothing is left of it', async () => {
    const actor = await newNetwork();
    const bytes = ffmpeg('whole.flac', ...SOUND);
    bytes.fill(0x55, bytes.length >> 2, bytes.length >> 1);
    expect(await add(actor, 'Broken.flac', bytes)).toBe(
      'This sound is damaged or incomplete. Export it again, then upload it.',
    );
    expect((await draftPlan(actor)).plan.media).toEqual([]);
  });

  it('whether a film has sound is known', async () => {
    const actor = await newNetwork();
    const made = [...MOVING, '-c:v', 'libx264', '-pix_fmt', 'yuv420p'];
    await add(actor, 'Silent.mp4', ffmpeg('silent.mp4', ...made));
    const [loud, silent] = (await add(actor, 'Loud.mp4', ffmpeg('loud.mp4', ...SOUND, ...made))) as object[];
    expect([loud, silent]).toMatchObject([{ name: 'Loud', audio: true }, { name: 'Silent' }]);
    expect(silent).not.toHaveProperty('audio');
  });
});

const svg = (inside: string, size = 'width="200" height="100"') =>
  Buffer.from(
    `<?xml version="1.0"?>\n<!-- made by hand -->\n<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${size}>${inside}</svg>`,
  );
const pixel = async (sha256: string | undefined, x: number, y: number) => {
  const { data, info } = await sharp(storedPath(sha256 ?? ''))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const at = (Math.floor(y * info.height) * info.width + Math.floor(x * info.width)) * info.channels;
  return [...data.subarray(at, at + 3)];
};

describe('drawings', () => {
  it('are drawn as large as screens need, whatever size they tell', async () => {
    const actor = await newNetwork();
    const [media] = (await add(
      actor,
      'Logo.svg',
      svg('<rect width="100" height="100" fill="#ff0000"/><rect x="100" width="100" height="100" fill="#0000ff"/>'),
    )) as { sha256?: string }[];
    expect(media).toMatchObject({ kind: 'image', type: 'image/png', width: 3840, height: 1920 });
    expect([await pixel(media?.sha256, 0.2, 0.5), await pixel(media?.sha256, 0.8, 0.5)]).toEqual([
      [255, 0, 0],
      [0, 0, 255],
    ]);
  });

  it('run no script, ask no server and read no other file', async () => {
    const actor = await newNetwork();
    const asked: string[] = [];
    const server = createServer((request, response) => {
      asked.push(request.url ?? '');
      response.end();
    });
    await new Promise<void>((listens) => server.listen(0, '127.0.0.1', listens));
    const { port } = server.address() as AddressInfo;
    const secret = join(folder, 'secret.png');
    await sharp({ create: { width: 50, height: 50, channels: 3, background: '#ff0000' } })
      .png()
      .toFile(secret);
    const bytes = svg(
      `<rect width="200" height="100" fill="#00ff00"/><script>fetch('http://127.0.0.1:${port}/script')</script>` +
        `<image xlink:href="http://127.0.0.1:${port}/image.png" width="200" height="100"/>` +
        `<image xlink:href="file://${secret}" width="200" height="100"/><image xlink:href="${secret}" width="200" height="100"/>` +
        `<style>@import url(http://127.0.0.1:${port}/style.css);</style><use xlink:href="http://127.0.0.1:${port}/use.svg#a"/>`,
    );
    const [media] = (await add(actor, 'Links.svg', bytes)) as { sha256?: string }[];
    expect(await pixel(media?.sha256, 0.5, 0.5)).toEqual([0, 255, 0]);
    expect(asked).toEqual([]);
    server.close();
  });

  it('that unfold without end are refused in time', async () => {
    const actor = await newNetwork();
    const names = 'abcdefghij';
    const entities = [...names].map(
      (name, i) => `<!ENTITY ${name} "${i === 0 ? 'ha' : `&${names[i - 1]};`.repeat(10)}">`,
    );
    const bytes = Buffer.from(
      `<?xml version="1.0"?><!DOCTYPE svg [${entities.join('')}]><svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><text>&j;</text></svg>`,
    );
    expect(await add(actor, 'Laughs.svg', bytes)).toMatch(/^This picture is damaged/);
  });
});

describe('photographs', () => {
  it('HEIC is made a JPEG, upright, in sRGB', async () => {
    const actor = await newNetwork();
    const [png, heic] = [join(folder, 'photo.png'), join(folder, 'photo.heic')];
    await sharp({ create: { width: 60, height: 40, channels: 3, background: '#ff8000' } })
      .png()
      .toFile(png);
    execFileSync('heif-enc', ['-q', '90', '-o', heic, png], { stdio: 'ignore' });
    const [media] = (await add(actor, 'IMG_0001.HEIC', readFileSync(heic))) as { sha256?: string }[];
    expect(media).toMatchObject({ kind: 'image', type: 'image/jpeg', width: 60, height: 40 });
    const [r = 0, g = 0, b = 0] = await pixel(media?.sha256, 0.5, 0.5);
    expect([Math.abs(r - 255) < 9, Math.abs(g - 128) < 9, b < 9]).toEqual([true, true, true]);
  });

  it.each([
    ['TIFF', 'a.tif', () => turned.tiff({ compression: 'lzw' }).toBuffer()],
    ['BMP', 'a.bmp', async () => ffmpeg('a.bmp', '-f', 'lavfi', '-i', 'color=0xff8000:s=40x60', '-frames:v', '1')],
  ])('%s is made a JPEG, upright, in sRGB', async (_, name, bytes) => {
    const actor = await newNetwork();
    const [media] = (await add(actor, name, await bytes())) as { sha256?: string }[];
    expect(media).toMatchObject({ kind: 'image', type: 'image/jpeg', width: 40, height: 60 });
    const [r = 0, g = 0, b = 0] = await pixel(media?.sha256, 0.5, 0.5);
    expect([Math.abs(r - 255) < 9, Math.abs(g - 128) < 9, b < 9]).toEqual([true, true, true]);
  });
  /** Sideways, and told so (EXIF 2.3, orientation 6). */
  const turned = sharp({ create: { width: 60, height: 40, channels: 3, background: '#ff8000' } }).withMetadata({
    orientation: 6,
  });

  it('a BMP that stops short is refused', async () => {
    const actor = await newNetwork();
    const whole = ffmpeg('b.bmp', '-f', 'lavfi', '-i', 'testsrc2=s=64x64', '-frames:v', '1');
    expect(await add(actor, 'Half.bmp', whole.subarray(0, whole.length >> 1))).toBe(
      'This picture is damaged or incomplete. Export it again, then upload it.',
    );
  });

  it('a WebP that moves lasts as long as its pictures together, and moves on smaller screens too', async () => {
    const actor = await newNetwork();
    const gif = ffmpeg('moving.gif', '-f', 'lavfi', '-i', 'testsrc2=s=400x200:r=5:d=2');
    const bytes = await sharp(gif, { animated: true }).webp({ quality: 60 }).toBuffer();
    const [media] = (await add(actor, 'Moving.webp', bytes)) as { sha256?: string }[];
    expect(media).toMatchObject({ kind: 'image', type: 'image/webp', width: 400, height: 200, durationMs: 2000 });
    const small = join(folder, 'small.webp');
    await draw('scaled', storedPath(media?.sha256 ?? ''), small, 200, 100);
    expect(await sharp(small, { animated: true }).metadata()).toMatchObject({ pages: 10, width: 200, pageHeight: 100 });
  });

  it('a colour profile is turned to sRGB, and where it was taken is not told to players', async () => {
    const actor = await newNetwork();
    const bytes = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#00ff00' } })
      .withIccProfile('p3')
      .withExif({ IFD0: { Copyright: 'Ida' }, IFD3: { GPSLatitude: '59/1 54/1 0/1' } })
      .jpeg({ quality: 100 })
      .toBuffer();
    const [media] = (await add(actor, 'Deck.jpg', bytes)) as { sha256?: string }[];
    const { exif, icc, space } = await sharp(storedPath(media?.sha256 ?? '')).metadata();
    expect([exif, icc, space]).toEqual([undefined, undefined, 'srgb']);
  });

  /** A chunk of a PNG (ISO/IEC 15948, 5.3), behind its first one. */
  const withChunk = (png: Buffer, name: string, data: string) => {
    const body = Buffer.from(name + data, 'latin1');
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([png.subarray(0, 33), length, body, sum, png.subarray(33)]);
  };
  const of = async (kind: 'jpeg' | 'png' | 'webp' | 'avif') =>
    sharp(await picture(40, 30))
      .toFormat(kind)
      .toBuffer();
  const behind = (bytes: Buffer, more: string) => Buffer.concat([bytes, Buffer.from(more, 'latin1')]);
  const withComment = (jpeg: Buffer) =>
    Buffer.concat([behind(jpeg.subarray(0, 2), '\xff\xfe\x00\x0bKamera AS'), jpeg.subarray(2)]);
  const withPart = (webp: Buffer) => {
    const more = behind(webp, 'KAMR\x06\x00\x00\x00Kamera');
    more.writeUInt32LE(more.length - 8, 4);
    return more;
  };
  it.each([
    ['a comment in a JPEG', 'jpg', async () => withComment(await of('jpeg'))],
    ['bytes after a JPEG', 'jpg', async () => behind(await of('jpeg'), 'Kamera AS')],
    ['a second JPEG after a JPEG', 'jpg', async () => behind(await of('jpeg'), '\xff\xd8Kamera\xff\xd9')],
    ['text in a PNG', 'png', async () => withChunk(await of('png'), 'tEXt', 'Make\0Kamera AS')],
    ['a time in a PNG', 'png', async () => withChunk(await of('png'), 'tIME', 'Kamera7')],
    ['bytes after a PNG', 'png', async () => behind(await of('png'), 'Kamera AS')],
    ['an unknown part of a WebP', 'webp', async () => withPart(await of('webp'))],
    ['bytes after an AVIF', 'avif', async () => behind(await of('avif'), '\x00\x00\x00\x0efreeKamera')],
  ])('%s does not reach players', async (what, ending, make) => {
    const bytes = await make();
    expect(bytes.toString('latin1')).toContain('Kamera');
    const [media] = (await add(await newNetwork(), `${what}.${ending}`, bytes)) as {
      sha256?: string;
      width?: number;
    }[];
    expect(media).toMatchObject({ width: 40, height: 30 });
    const sent = readFileSync(storedPath(media?.sha256 ?? ''));
    expect(sent.toString('latin1')).not.toContain('Kamera');
    expect(hasMoreThanPixels(sent, `image/${ending.replace('jpg', 'jpeg')}`)).toBe(false);
  });

  it('a picture without notes is kept to the byte', async () => {
    const actor = await newNetwork();
    const bytes = await picture(40, 30);
    const [media] = (await add(actor, 'Plain.jpg', bytes)) as { sha256?: string }[];
    expect(readFileSync(storedPath(media?.sha256 ?? ''))).toEqual(bytes);
  });
});

describe('documents of pages', () => {
  it('become a picture a page, together in order as one playlist, with what is said of them', async () => {
    const actor = await newNetwork();
    const media = (await add(actor, 'Deck plan.pdf', pdf(11))) as { id: string; name: string; sha256?: string }[];
    expect(media).toHaveLength(11);
    const { playlists } = (await draftPlan(actor)).plan;
    expect(playlists).toMatchObject([{ name: 'Deck plan' }]);
    const names = new Map(media.map(({ id, name }) => [id, name]));
    expect(playlists[0]?.items.map((item) => names.get(item.media ?? ''))).toEqual(
      Array.from({ length: 11 }, (_, i) => `Deck plan, page ${String(i + 1).padStart(2, '0')} of 11`),
    );
    const third = media.find(({ name }) => name === 'Deck plan, page 03 of 11');
    expect(third).toMatchObject({ kind: 'image', type: 'image/png', width: 3840, height: 1920 });
    // A document that became many pictures is held once.
    expect(await libraryRoom(actor)).toMatchObject({ files: 11, bytes: pdf(11).length });
    expect(Math.abs(((await pixel(third?.sha256, 0.5, 0.5))[0] ?? 0) - Math.round((2 / 11) * 255))).toBeLessThanOrEqual(
      2,
    );
  });

  it('of one page are one picture, and no playlist', async () => {
    const actor = await newNetwork();
    expect(await add(actor, 'Menu.pdf', pdf(1))).toMatchObject([{ name: 'Menu' }]);
    expect((await draftPlan(actor)).plan.playlists).toEqual([]);
  });

  it('are found by what stands on their pages, each page by its own words', async () => {
    const [actor, other] = [await newNetwork(), await newNetwork()];
    const says = (page: number) => ['Lifeboat drill at NOON', 'Muster station 4', ''][page - 1] ?? '';
    await add(actor, 'Safety.pdf', pdf(3, '', says));
    const found = async (search: string, who = actor) =>
      (
        await findInLibrary(who, {
          ...{ search, from: 0, count: 9, kind: null },
          ...{ audible: false, unused: false, ending: false, archived: false, among: null },
        })
      ).files.map(({ name }) => name);
    expect(await found('lifeboat')).toEqual(['Safety, page 1 of 3']);
    expect(await found('noon drill')).toEqual(['Safety, page 1 of 3']);
    expect(await found('safety muster')).toEqual(['Safety, page 2 of 3']);
    expect(await found('boat')).toEqual([]);
    expect(await found('lifeboat', other)).toEqual([]);
    // It stays so after a change, and after it was removed and brought back.
    const [page] = (await draftPlan(actor)).plan.media.filter(({ name }) => name === 'Safety, page 2 of 3');
    await edit(actor, [{ kind: 'media', id: page?.id ?? '', set: { tags: ['crew'] } }]);
    expect(await found('muster')).toEqual(['Safety, page 2 of 3']);
    await edit(actor, [{ kind: 'playlist', id: 'safety', remove: true }]);
    await edit(actor, [{ kind: 'media', id: page?.id ?? '', remove: true }]);
    expect(await found('muster')).toEqual([]);
    await undo(actor, 'undo');
    expect(await found('muster')).toEqual(['Safety, page 2 of 3']);
  });

  it('with a script are drawn, and the script is not run', async () => {
    const actor = await newNetwork();
    const script =
      '/OpenAction << /S /Launch /F (/bin/touch) /P (pwned) >> /AA << /O << /S /JavaScript /JS (app.alert\\(1\\)) >> >>';
    expect(await add(actor, 'Script.pdf', pdf(1, script))).toMatchObject([{ name: 'Script' }]);
    expect(readdirSync(process.cwd())).not.toContain('pwned');
  });

  it.each([
    ['with too many pages', pdf(201), 'This document has 201 pages. At most 200 are accepted, so split it.'],
    [
      'cut in half',
      pdf(3).subarray(0, 300),
      'This document is damaged or incomplete. Export it again, then upload it.',
    ],
  ])('%s are refused with a sentence, and nothing is half made', async (_, bytes, sentence) => {
    const actor = await newNetwork();
    expect(await add(actor, 'Bad.pdf', bytes)).toBe(sentence);
    expect((await draftPlan(actor)).plan).toMatchObject({ media: [], playlists: [] });
  });

  describe('of another program', () => {
    const path = process.env.PATH;
    const made: string[] = [];
    afterEach(() => {
      process.env.PATH = path;
      for (const bin of made.splice(0)) rmSync(bin, { recursive: true });
    });

    /** A path with these programs alone, and what stands for LibreOffice. */
    function programs(office?: (folder: string) => string): void {
      // Programs are no temporary files: the folder of those is hidden from what reads files of strangers.
      mkdirSync('data/test', { recursive: true });
      const bin = mkdtempSync(resolve('data/test', 'programs-'));
      made.push(bin);
      for (const name of ['nice', 'prlimit', 'unshare', 'mount', 'sh', 'cp', 'mkdir', 'pdfinfo', 'pdftoppm'])
        symlinkSync(
          execFileSync('which', [name], { encoding: 'utf8', env: { ...process.env, PATH: path } }).trim(),
          join(bin, name),
        );
      if (office) writeFileSync(join(bin, 'soffice'), `#!/bin/sh\n${office(bin)}`, { mode: 0o755 });
      process.env.PATH = bin;
    }

    /** An OpenDocument file is a ZIP whose first entry, stored, is called "mimetype" (OASIS OpenDocument 1.3, part 2, 3.3). */
    const odp = () => {
      const type = 'application/vnd.oasis.opendocument.presentation';
      const header = Buffer.alloc(30);
      header.write('PK\x03\x04', 'latin1');
      header.writeUInt32LE(type.length, 18);
      header.writeUInt32LE(type.length, 22);
      header.writeUInt16LE(8, 26);
      return Buffer.concat([header, Buffer.from(`mimetype${type}`)]);
    };

    it('are refused with a sentence where that is not installed', async () => {
      programs();
      expect(await add(await newNetwork(), 'Talk.odp', odp())).toBe(
        'This server can’t open presentations, because LibreOffice isn’t installed. Save it as PDF, then upload that.',
      );
    });

    it('are turned to PDF by it where it is, and then pages as any', async () => {
      programs((bin) => {
        writeFileSync(join(bin, 'made.pdf'), pdf(2));
        return `for last; do :; done; mkdir -p out; cp ${bin}/made.pdf "out/$last.pdf"`;
      });
      expect(await add(await newNetwork(), 'Talk.odp', odp())).toMatchObject([
        { name: 'Talk, page 1 of 2' },
        { name: 'Talk, page 2 of 2' },
      ]);
    });
  });
});

test('a drawing that names a stored file of another network, as its neighbour or by its path, shows nothing of it', async () => {
  const theirs = await picture(200, 100, '#ff0000');
  await add(await newNetwork(), 'Theirs.jpg', theirs);
  const sha256 = createHash('sha256').update(theirs).digest('hex');
  // As it would lie in the store: beside the other.
  const path = `${storedPath(sha256)}.svg`;
  const names = [sha256, storedPath(sha256), `file://${storedPath(sha256)}`];
  writeFileSync(path, svg(names.map((href) => `<image href="${href}" width="200" height="100"/>`).join('')));
  const target = join(folder, 'drawn.png');
  await draw('drawn', path, target);
  const { channels } = await sharp(target).stats();
  expect(channels.map(({ max }) => max)).toEqual([0, 0, 0, 0]);
});

describe('what reads files of strangers', () => {
  const reads = join(folder, 'a stranger.txt');
  beforeAll(() => writeFileSync(reads, 'sent'));

  it('sees the one file that it reads, and nothing else of our data, by whatever path', async () => {
    const secret = join(process.env.LANTERNPOST_DATA ?? '', 'media', 'secret');
    mkdirSync(dirname(secret), { recursive: true });
    writeFileSync(secret, 'of another network');
    const { stdout } = await runTool('sh', ['-c', `ls -A; cat sent; cat ${secret} || echo nothing`], { reads });
    expect(stdout).toBe('sent\nsentnothing\n');
  });

  it('has no network', async () => {
    const server = createServer((_, response) => void response.end());
    await new Promise<void>((listens) => server.listen(0, '127.0.0.1', listens));
    const { port } = server.address() as AddressInfo;
    const ask = `fetch('http://127.0.0.1:${port}').then(() => process.exit(0), () => process.exit(3))`;
    execFileSync(process.execPath, ['-e', 'process.exit(0)']);
    await expect(runTool(process.execPath, ['-e', ask], { reads, memoryBytes: 64 * 2 ** 30 })).rejects.toMatchObject({
      code: 3,
    });
    server.close();
  });

  it('gets nothing of our environment, and ends in time, in memory, in what it writes', async () => {
    const { stdout } = await runTool('env', [], { reads });
    expect(stdout).not.toContain('DATABASE_URL');
    await expect(runTool('sleep', ['30'], { reads, withinMs: 300 })).rejects.toMatchObject({ signal: 'SIGKILL' });
    await expect(
      runTool('sh', ['-c', 'head -c 1000000000 /dev/zero | tail'], { reads, memoryBytes: 2 ** 28 }),
    ).rejects.toBeDefined();
    const target = join(folder, 'large');
    await expect(
      runTool('sh', ['-c', 'head -c 3000000 /dev/zero > made'], {
        ...{ reads, fileBytes: 1e6, makes: { name: 'made', to: target } },
      }),
    ).rejects.toBeDefined();
    expect(existsSync(target)).toBe(false);
  });

  it('fails for one picture alone: the next is drawn', async () => {
    const good = join(folder, 'good.jpg');
    writeFileSync(good, await picture(30, 20));
    await expect(draw('decode', join(folder, 'none.jpg'))).rejects.toBeInstanceOf(Undrawable);
    expect(await draw('look', good)).toMatchObject({ width: 30, height: 20, format: 'jpeg', frames: 1 });
  });
});
