import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import sharp from 'sharp';
import { FileRow, MediaFilesRow, UploadRow, rows, subscribe, transaction } from '@/database';
import { UNDO_MS, draftPlan, edit } from '../plan';
import { film, picture, send } from '../tests/files';
import { newNetwork, useDatabase } from '../tests/database';
import { holdFiles } from './store';
import { storedPath } from './store';
import { cleanUp, libraryFile, processUpload, receiveUpload, uploads } from '.';

useDatabase();

/** Sends a file in and lets it be processed, as web and worker would. */
async function add(actor: Awaited<ReturnType<typeof newNetwork>>, name: string, bytes: Buffer) {
  const received = await send(actor, name, bytes);
  if ('upload' in received) await processUpload(received.upload.id);
  return received;
}

const stored = () => {
  const folder = join(process.env.LANTERNPOST_DATA ?? '', 'media');
  return existsSync(folder)
    ? readdirSync(folder, { recursive: true, withFileTypes: true }).filter((entry) => entry.isFile()).length
    : 0;
};
const incoming = () => {
  const folder = join(process.env.LANTERNPOST_DATA ?? '', 'incoming');
  return existsSync(folder) ? readdirSync(folder) : [];
};

test('a picture is hashed, measured, given a thumbnail, and put into the plan', async () => {
  const actor = await newNetwork();
  await add(actor, 'Pier_at dawn.jpg', await picture(1600, 900));
  const [media] = (await draftPlan(actor)).plan.media;
  expect(media).toMatchObject({
    id: 'pier-at-dawn',
    name: 'Pier at dawn',
    kind: 'image',
    width: 1600,
    height: 900,
    type: 'image/jpeg',
  });
  const row = await MediaFilesRow.findOne({ where: { networkId: actor.networkId } });
  const thumbnail = await sharp(storedPath(row?.thumbnailSha256 ?? '')).metadata();
  expect([thumbnail.width, thumbnail.height]).toEqual([640, 360]);
  expect(await uploads(actor)).toEqual([]);
});

test('EXIF 2.3: a picture of any orientation, 1 to 8, reaches players upright', async () => {
  // Left half dark, right half light; sharp turns it by the standard's table, and the middle of each side tells where it went.
  const actor = await newNetwork();
  for (let orientation = 1; orientation <= 8; orientation++) {
    const pixels = await sharp({ create: { width: 40, height: 20, channels: 3, background: '#000' } })
      .composite([{ input: { create: { width: 20, height: 20, channels: 3, background: '#fff' } }, left: 20, top: 0 }])
      .withMetadata({ orientation })
      .jpeg({ quality: 100 })
      .toBuffer();
    await add(actor, `turned ${orientation}.jpg`, pixels);
    const media = (await draftPlan(actor)).plan.media.find((one) => one.id === `turned-${orientation}`);
    const sideways = orientation >= 5;
    expect([media?.width, media?.height]).toEqual(sideways ? [20, 40] : [40, 20]);
    const asset = sharp(storedPath(media?.sha256 ?? ''));
    expect((await asset.metadata()).orientation ?? 1).toBe(1);
    const { data, info } = await asset.greyscale().raw().toBuffer({ resolveWithObject: true });
    const light = (x: number, y: number) =>
      (data[(Math.floor(y * info.height) * info.width + Math.floor(x * info.width)) * info.channels] ?? 0) > 127;
    const side =
      light(0.9, 0.5) && light(0.9, 0.1) && light(0.9, 0.9)
        ? 'right'
        : light(0.1, 0.5) && light(0.1, 0.1) && light(0.1, 0.9)
          ? 'left'
          : light(0.5, 0.1)
            ? 'top'
            : 'bottom';
    expect([orientation, side]).toEqual([
      orientation,
      ['right', 'left', 'left', 'right', 'bottom', 'bottom', 'top', 'top'][orientation - 1],
    ]);
  }
});

test('a film is measured and decoded whole, with progress on the way', async () => {
  const actor = await newNetwork();
  const told: number[] = [];
  const stop = subscribe((message) => {
    if (message.kind === 'uploads' && message.network === actor.networkId && message.upload)
      told.push(message.upload.progress);
  });
  await add(actor, 'Buoy.mp4', film(60, '1280x720'));
  stop();
  expect((await draftPlan(actor)).plan.media[0]).toMatchObject({
    kind: 'video',
    width: 1280,
    height: 720,
    durationMs: 60_000,
    type: 'video/mp4',
  });
  expect(told.some((percent) => percent > 10 && percent < 90)).toBe(true);
  expect(told).toEqual([...told].sort((a, b) => a - b));
});

test('the same bytes are stored once: known in one network, its own media in another', async () => {
  const [actor, other] = [await newNetwork(), await newNetwork()];
  const bytes = await picture(111, 77);
  await add(actor, 'First.jpg', bytes);
  const files = await FileRow.count();
  expect(await add(actor, 'Second.jpg', bytes)).toEqual({ known: 'First' });
  await add(other, 'Third.jpg', bytes);
  expect(await FileRow.count()).toBe(files);
});

test('two people who send the same file at once have one media file', async () => {
  const actor = await newNetwork();
  const bytes = await picture(99, 55);
  const [a, b] = await Promise.all([send(actor, 'A.jpg', bytes), send(actor, 'B.jpg', bytes)]);
  if (!('upload' in a) || !('upload' in b)) throw new Error('both wait for the worker');
  await processUpload(a.upload.id);
  await processUpload(b.upload.id);
  expect((await draftPlan(actor)).plan.media.map((one) => one.name)).toEqual(['A']);
});

describe('a file that proves to be broken fails its upload with a sentence, and leaves nothing', () => {
  const lying = async () => {
    const bytes = await sharp({ create: { width: 200, height: 100, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    bytes.writeUInt32BE(4000, 16);
    return bytes;
  };
  const huge = () =>
    sharp({ create: { width: 20_000, height: 20_000, channels: 3, background: '#34406B' }, limitInputPixels: false })
      .png()
      .toBuffer();
  /** An MP4 by its first bytes, and a manifest that names another file by what follows. */
  const manifest = () => {
    const mpd = `<?xml version="1.0"?><MPD xmlns="urn:mpeg:dash:schema:mpd:2011" profiles="urn:mpeg:dash:profile:isoff-on-demand:2011"
      type="static" mediaPresentationDuration="PT5S"><Period><AdaptationSet mimeType="video/mp4"><Representation id="1" bandwidth="1">
      <BaseURL>file:/etc/hostname</BaseURL></Representation></AdaptationSet></Period></MPD>`;
    const box = (type: string, body: string) => {
      const head = Buffer.alloc(8);
      head.writeUInt32BE(8 + body.length);
      head.write(type, 4);
      return Buffer.concat([head, Buffer.from(body)]);
    };
    return Buffer.concat([box('ftyp', 'mp42\0\0\0\0mp42isom'), box('free', mpd)]);
  };
  test.each<[string, string, () => Promise<Buffer> | Buffer, string]>([
    ['a PNG whose header lies', 'Lying.png', lying, 'picture is damaged or incomplete'],
    [
      'a JPEG that stops short',
      'Half.jpg',
      async () => (await picture(800, 800)).subarray(0, 3000),
      'picture is damaged',
    ],
    ['a film that stops short', 'Cut.mp4', () => film(3).subarray(0, 40_000), 'video is damaged or incomplete'],
    ['20 000 × 20 000 pixels', 'Huge.png', huge, 'at most 100 megapixels'],
    ['a film that is a manifest', 'Manifest.mp4', manifest, 'video is damaged or incomplete'],
  ])(
    '%s',
    async (_what, name, bytes, sentence) => {
      const actor = await newNetwork();
      const before = [stored(), await FileRow.count()];
      await add(actor, name, await bytes());
      expect(await uploads(actor)).toMatchObject([{ state: 'failed', error: expect.stringContaining(sentence) }]);
      expect([stored(), await FileRow.count()]).toEqual(before);
      expect(incoming()).toEqual([]);
      expect((await draftPlan(actor)).plan.media).toEqual([]);
    },
    60_000,
  );

  test('where another has sent the same bytes, theirs stay', async () => {
    const [actor, other] = [await newNetwork(), await newNetwork()];
    const bytes = (await picture(700, 700)).subarray(0, 2000);
    const [mine, theirs] = [await send(actor, 'A.jpg', bytes), await send(other, 'B.jpg', bytes)];
    if (!('upload' in mine) || !('upload' in theirs)) throw new Error('both wait for the worker');
    await processUpload(mine.upload.id);
    expect(await FileRow.count({ where: { bytes: bytes.length } })).toBe(1);
    await processUpload(theirs.upload.id);
    expect(await FileRow.count({ where: { bytes: bytes.length } })).toBe(0);
    expect((await uploads(other))[0]).toMatchObject({ state: 'failed' });
  });
});

test('networks take turns: one that sends much does not go ahead of one that sends one; pictures have a queue of their own', async () => {
  const [much, little] = [await newNetwork(), await newNetwork()];
  const queued = async (actor: typeof much, name: string, bytes: Buffer) => {
    const received = await send(actor, name, bytes);
    return 'upload' in received ? received.upload.id : '';
  };
  const sent = [
    await queued(much, 'A1.jpg', await picture(201, 1)),
    await queued(much, 'A2.jpg', await picture(202, 1)),
    await queued(much, 'A3.jpg', await picture(203, 1)),
    await queued(little, 'B1.jpg', await picture(204, 1)),
    await queued(much, 'Film.mp4', film(1)),
  ];
  const found = await rows<{ name: string; upload: string }>(
    `SELECT name, data->>'upload' AS upload FROM pgboss.job WHERE data->>'upload' = ANY($1::text[]) ORDER BY name, priority DESC, created_on`,
    [sent],
  );
  expect(found.map((job) => [job.name, sent.indexOf(job.upload)])).toEqual([
    ['process-picture', 0],
    ['process-picture', 3],
    ['process-picture', 1],
    ['process-picture', 2],
    ['process-upload', 4],
  ]);
});

test('a file that is sent again while the clean-up takes its old copy stays', async () => {
  const actor = await newNetwork();
  await add(actor, 'Again.jpg', await picture(205, 3));
  const sha256 = (await draftPlan(actor)).plan.media[0]?.sha256 ?? '';
  await edit(actor, [{ kind: 'media', id: 'again', remove: true }]);
  const later = new Date(Date.now() + UNDO_MS + 3_600_000);
  let cleaning: Promise<unknown> = Promise.resolve();
  await transaction(async (within) => {
    await holdFiles([sha256], within);
    cleaning = cleanUp(later);
    const waits = `SELECT 1 FROM pg_locks WHERE locktype = 'advisory' AND NOT granted`;
    while ((await rows(waits)).length === 0) await new Promise(setImmediate);
    await rows('UPDATE files SET created_at = $2 WHERE sha256 = $1', [sha256, later], within);
  });
  await cleaning;
  expect([existsSync(storedPath(sha256)), await FileRow.count({ where: { sha256 } })]).toEqual([true, 1]);
});

describe('a file that can not be used gets one sentence and leaves nothing', () => {
  test.each<[string, string, () => Promise<Buffer> | Buffer, number, string]>([
    ['no bytes', 'Empty.png', () => Buffer.alloc(0), 422, 'This file is empty'],
    ['text', 'Notes.png', () => Buffer.from('just words, no picture'), 415, 'can’t be played'],
    ['a path for a name', '../../etc/passwd.png', () => picture(), 422, 'contains a path'],
  ])(
    '%s',
    async (_what, name, bytes, status, sentence) => {
      const actor = await newNetwork();
      const before = [stored(), await FileRow.count(), await UploadRow.count()];
      await expect(send(actor, name, await bytes())).rejects.toMatchObject({
        status,
        message: expect.stringContaining(sentence),
      });
      expect([stored(), await FileRow.count(), await UploadRow.count()]).toEqual(before);
      expect(incoming()).toEqual([]);
      expect((await draftPlan(actor)).plan.media).toEqual([]);
    },
    60_000,
  );

  test('a line that breaks while sending', async () => {
    const actor = await newNetwork();
    const broken = Readable.from(
      (async function* () {
        yield await picture(900, 900);
        throw new Error('the line broke');
      })(),
    );
    await expect(receiveUpload(actor, { name: 'Late.jpg', bytes: 1e6 }, broken)).rejects.toThrow('the line broke');
    expect(incoming()).toEqual([]);
  });

  test('more bytes than are allowed', async () => {
    const actor = await newNetwork();
    process.env.LANTERNPOST_UPLOAD_LIMIT = '1000';
    await expect(send(actor, 'Large.jpg', await picture(900, 900))).rejects.toMatchObject({
      status: 413,
    });
    delete process.env.LANTERNPOST_UPLOAD_LIMIT;
    expect(incoming()).toEqual([]);
  });
});

test('a file is given only to the network that has it', async () => {
  const [actor, other] = [await newNetwork(), await newNetwork()];
  await add(actor, 'Ours.jpg', await picture(70, 70));
  const sha256 = (await draftPlan(actor)).plan.media[0]?.sha256 ?? '';
  expect(await libraryFile(actor, sha256)).toMatchObject({ type: 'image/jpeg' });
  await expect(libraryFile(other, sha256)).rejects.toMatchObject({ status: 404 });
  await expect(libraryFile(actor, '../secret')).rejects.toMatchObject({ status: 400 });
});

test('clean-up takes what nothing refers to, once it is old enough, and nothing else', async () => {
  const actor = await newNetwork();
  await add(actor, 'Kept.jpg', await picture(61, 61));
  await add(actor, 'Gone.jpg', await picture(62, 62));
  const kept = (await draftPlan(actor)).plan.media.find((one) => one.id === 'kept');
  await edit(actor, [{ kind: 'media', id: 'gone', remove: true }]);
  expect((await cleanUp(new Date())).files).toBe(0);
  const soon = new Date(Date.now() + 3_600_000);
  expect((await cleanUp(soon)).files).toBe(0); // an undo may still bring it back
  const later = new Date(soon.getTime() + UNDO_MS);
  const before = stored();
  expect((await cleanUp(later)).files).toBeGreaterThanOrEqual(2);
  expect(stored()).toBeLessThan(before);
  expect(existsSync(storedPath(kept?.sha256 ?? ''))).toBe(true);
  expect(await rows('SELECT 1 FROM files WHERE sha256 = $1', [kept?.sha256])).toHaveLength(1);
});
