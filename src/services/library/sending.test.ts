import { createHash } from 'node:crypto';
import {
  closeSync,
  existsSync,
  openSync,
  readFileSync,
  readdirSync,
  utimesSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { UploadRow, rows } from '@/database';
import { draftPlan, edit, undo } from '../plan';
import { addPerson, removePerson, type Actor } from '../people';
import { newNetwork, useDatabase } from '../tests/database';
import { film, picture } from '../tests/files';
import { partPath } from './parts';
import { UploadLocks } from './upload-lock';
import {
  batchMedia,
  batchPreparing,
  beginUpload,
  cancelUpload,
  checkPairing,
  clearUploads,
  completeUpload,
  describeBatch,
  findSending,
  libraryRoom,
  limitLibrary,
  makePart,
  processUpload,
  receiveUpload,
  storedPath,
  uploadLocks,
  uploads,
  writePart,
} from '.';

useDatabase();

const BATCH = '0b9d8a52-6f3c-4c1c-9d55-3a1b1d2c0001';
const parts = () => {
  const folder = join(process.env.LANTERNPOST_DATA ?? '', 'sending');
  return existsSync(folder) ? readdirSync(folder) : [];
};

/** Begins a file and sends it in pieces of the given sizes; the last is the rest. */
async function send(
  actor: Actor,
  name: string,
  bytes: Buffer,
  pieces: readonly number[] = [],
  batch: string | null = null,
) {
  const id = await beginUpload(actor, { name, bytes: bytes.length, batch });
  await makePart(id);
  let at = 0;
  for (const size of [...pieces, bytes.length]) {
    const piece = bytes.subarray(at, at + size);
    if (piece.length > 0) at = await writePart(id, at, Readable.from([piece]));
  }
  return id;
}

async function sendWhole(actor: Actor, name: string, bytes: Buffer, batch: string | null = null) {
  const id = await send(actor, name, bytes, [], batch);
  await completeUpload(actor, id);
  await processUpload(id);
  return id;
}

describe('a file that several requests write to', () => {
  it('is never written to once the store has it, though one of them still has it open', async () => {
    const actor = await newNetwork();
    const bytes = await picture(48, 40);
    const id = await send(actor, 'Held.jpg', bytes);
    const held = openSync(partPath(id), 'r+');
    const received = await completeUpload(actor, id);
    if (!('upload' in received)) throw new Error('known');
    writeSync(held, Buffer.alloc(bytes.length, 7), 0, bytes.length, 0);
    closeSync(held);
    await processUpload(id);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    expect(readFileSync(storedPath(sha256))).toEqual(bytes);
  });

  it('is taken in once, though two complete it at the same time', async () => {
    const actor = await newNetwork();
    const id = await send(actor, 'Both.jpg', await picture(49, 40));
    const both = await Promise.all([completeUpload(actor, id), completeUpload(actor, id)]);
    expect(both.map((one) => 'upload' in one && one.upload.id)).toEqual([id, id]);
    expect(await rows("SELECT 1 FROM pgboss.job WHERE data->>'upload' = $1", [id])).toHaveLength(1);
  });

  it('has one writer at a time, whichever process they came to: the next one asks it to stop', async () => {
    const actor = await newNetwork();
    const { signal } = new AbortController();
    const other = new UploadLocks();
    let stop = () => {};
    const stopped = new Promise<void>((done) => (stop = done));
    expect(await other.hold('an-upload', { actor, stop }, signal)).toBe(true);
    const here = uploadLocks().hold('an-upload', { actor, stop: () => {} }, signal);
    await stopped;
    await other.letGo('an-upload');
    expect(await here).toBe(true);
    await uploadLocks().letGo('an-upload');
    await other.close();
  });

  it('ends with the person who sends it', async () => {
    const actor = await newNetwork();
    const other = await addPerson(actor.networkId, {
      ...{ name: 'Gone', email: `gone-${actor.networkId}@example.org`, password: 'a long password' },
    });
    const id = await send(other, 'Late.jpg', await picture(47, 40));
    let stop = () => {};
    const stopped = new Promise<void>((done) => (stop = done));
    await uploadLocks().hold(id, { actor: other, stop }, new AbortController().signal);
    await removePerson(actor, other.personId ?? '');
    await stopped;
    await uploadLocks().letGo(id);
    await expect(completeUpload(other, id)).rejects.toMatchObject({ status: 404 });
    // With a database that is not the folder’s own nothing of it is touched.
    await rows('UPDATE store SET paired = false');
    await clearUploads(new Date(Date.now() + 3_600_000));
    expect(parts()).toEqual([id]);
    await checkPairing();
    await clearUploads(new Date(Date.now() + 3_600_000));
    expect(parts()).toEqual([]);
  });
});

test('a file that comes in one request is counted like any other before it is read', async () => {
  const actor = await newNetwork();
  await limitLibrary(actor, { gigabytes: 0.000002 });
  const body = new Readable({
    read() {
      throw new Error('it was read');
    },
  });
  await expect(receiveUpload(actor, { name: 'Large.jpg', bytes: 3000 }, body)).rejects.toMatchObject({ status: 413 });
  await expect(
    receiveUpload(actor, { name: 'Lies.jpg', bytes: 10 }, Readable.from([Buffer.alloc(11)])),
  ).rejects.toMatchObject({ status: 400 });
  await expect(
    receiveUpload(actor, { name: 'Short.jpg', bytes: 10 }, Readable.from([Buffer.alloc(9)])),
  ).rejects.toMatchObject({ status: 400 });
  expect(parts()).toEqual([]);
});

describe('a file that comes in parts', () => {
  it('is where it stands, and in the library when the last byte is there', async () => {
    const actor = await newNetwork();
    const bytes = await picture(64, 40);
    const id = await beginUpload(actor, { name: 'In parts.jpg', bytes: bytes.length, batch: null });
    await makePart(id);
    expect(await findSending(actor, id)).toEqual({ id, bytes: bytes.length, here: 0 });
    await writePart(id, 0, Readable.from([bytes.subarray(0, 100)]));
    expect(await findSending(actor, id)).toEqual({ id, bytes: bytes.length, here: 100 });
    await expect(completeUpload(actor, id)).rejects.toMatchObject({ status: 409 });
    await writePart(id, 100, Readable.from([bytes.subarray(100)]));
    const received = await completeUpload(actor, id);
    expect(received).toMatchObject({ upload: { id, name: 'In parts', state: 'waiting' } });
    // Asked again, since the answer was lost: the same.
    expect(await completeUpload(actor, id)).toEqual(received);
    expect(await findSending(actor, id)).toEqual({ id, bytes: bytes.length, here: bytes.length });
    expect(parts()).toEqual([]);
    await processUpload(id);
    expect((await draftPlan(actor)).plan.media).toMatchObject([{ id: 'in-parts', width: 64, height: 40 }]);
  });

  it('keeps what has arrived when its stream breaks off, and is hashed right whatever was written twice', async () => {
    const actor = await newNetwork();
    const bytes = film(1);
    const id = await beginUpload(actor, { name: 'Broken off.mp4', bytes: bytes.length, batch: null });
    await makePart(id);
    const broken = async function* () {
      yield bytes.subarray(0, 3000);
      yield bytes.subarray(3000, 5000);
      await new Promise((later) => setImmediate(later));
      throw new Error('the line broke');
    };
    await expect(writePart(id, 0, Readable.from(broken()))).rejects.toThrow('the line broke');
    const here = (await findSending(actor, id))?.here ?? 0;
    expect(here).toBe(5000);
    // As after a crash that left more on the disk than was told: what comes is written over it.
    writeFileSync(partPath(id), bytes.subarray(0, 3500));
    await writePart(id, 3500, Readable.from([bytes.subarray(3500)]));
    await completeUpload(actor, id);
    const row = await UploadRow.findByPk(id);
    expect(row?.sha256).toBe(createHash('sha256').update(bytes).digest('hex'));
  });

  it('becomes no second file where the library has its bytes, and leaves nothing', async () => {
    const actor = await newNetwork();
    const bytes = await picture(50, 51);
    await sendWhole(actor, 'First.jpg', bytes);
    const id = await send(actor, 'Second.jpg', bytes, [10, 20]);
    expect(await completeUpload(actor, id)).toEqual({ known: 'First' });
    expect(await completeUpload(actor, id)).toEqual({ known: 'First' });
    expect((await draftPlan(actor)).plan.media).toHaveLength(1);
    expect(parts()).toEqual([]);
  });

  it('of the same bytes as one that came with it is told by that one, and is no second file', async () => {
    const actor = await newNetwork();
    const bytes = await picture(52, 53);
    const first = await send(actor, 'One.jpg', bytes, [], BATCH);
    const second = await send(actor, 'Two.jpg', bytes, [], BATCH);
    expect(await completeUpload(actor, first)).toHaveProperty('upload');
    expect(await completeUpload(actor, second)).toEqual({ known: 'One' });
    await processUpload(first);
    await processUpload(second);
    expect((await draftPlan(actor)).plan.media.map(({ name }) => name)).toEqual(['One']);
    expect(parts()).toEqual([]);
  });

  it('keeps its ending where another is called so already, and then gets a number', async () => {
    const actor = await newNetwork();
    await sendWhole(actor, 'Jingle.jpg', await picture(54, 55));
    await sendWhole(actor, 'jingle.png', await picture(56, 57));
    // Two that come at the same time.
    const [third, fourth] = [await picture(58, 59), await picture(60, 61)];
    const ids = [await send(actor, 'jingle.png', third), await send(actor, 'JINGLE.PNG', fourth)];
    for (const id of ids) {
      await completeUpload(actor, id);
      await processUpload(id);
    }
    const names = (await draftPlan(actor)).plan.media.map(({ name }) => name);
    expect(names.sort()).toEqual(['JINGLE.PNG (3)', 'Jingle', 'jingle.png', 'jingle.png (2)']);
    // An accent is no other name.
    await sendWhole(actor, 'Fähre.png', await picture(62, 63));
    await sendWhole(actor, 'fähre.jpg', await picture(64, 65));
    expect((await draftPlan(actor)).plan.media.map(({ name }) => name)).toContain('fähre.jpg');
  });

  it('that can not be shown is refused when it is whole, and nothing is left of it', async () => {
    const actor = await newNetwork();
    const id = await send(actor, 'List.png', Buffer.from('#EXTM3U\n/etc/passwd\n'));
    await expect(completeUpload(actor, id)).rejects.toMatchObject({ status: 415 });
    expect(await UploadRow.findByPk(id)).toBeNull();
    expect(parts()).toEqual([]);
  });

  it('can be cancelled, by its own network alone', async () => {
    const [actor, other] = [await newNetwork(), await newNetwork()];
    const bytes = await picture(33, 34);
    const id = await send(actor, 'Mine.jpg', bytes);
    expect(await findSending(other, id)).toBeNull();
    await expect(completeUpload(other, id)).rejects.toMatchObject({ status: 404 });
    await cancelUpload(other, id);
    expect(await findSending(actor, id)).toMatchObject({ here: bytes.length });
    await cancelUpload(actor, id);
    expect(await findSending(actor, id)).toBeNull();
    expect(parts()).toEqual([]);
  });

  it('that nobody goes on with is let go after three days, one that is gone on with is not', async () => {
    const actor = await newNetwork();
    const bytes = await picture(35, 36);
    const [old, young] = [await send(actor, 'Old.jpg', bytes, []), await send(actor, 'Young.jpg', bytes, [])];
    const now = Date.now();
    await rows(`UPDATE uploads SET created_at = now() - interval '4 days' WHERE id = ANY($1)`, [[old, young]]);
    utimesSync(partPath(old), new Date(now - 73 * 3_600_000), new Date(now - 73 * 3_600_000));
    expect(await clearUploads(new Date(now))).toBe(1);
    expect(parts()).toEqual([young]);
    expect(await findSending(actor, old)).toBeNull();
    await cancelUpload(actor, young);
  });

  it('is not on the list of what is being prepared', async () => {
    const actor = await newNetwork();
    const id = await send(actor, 'On its way.jpg', await picture(20, 20));
    expect(await uploads(actor)).toEqual([]);
    await cancelUpload(actor, id);
  });
});

describe('the room of a library', () => {
  const limit = (actor: Actor, set: string) => rows(`UPDATE networks SET ${set} WHERE id = $1`, [actor.networkId]);

  it('counts what is there and what is on its way', async () => {
    const actor = await newNetwork();
    const bytes = await picture(70, 71);
    await sendWhole(actor, 'There.jpg', bytes);
    expect(await libraryRoom(actor)).toMatchObject({ files: 1, bytes: bytes.length });
    const id = await beginUpload(actor, { name: 'Coming.jpg', bytes: 12_345, batch: null });
    expect(await libraryRoom(actor)).toMatchObject({ files: 2, bytes: bytes.length + 12_345 });
    await cancelUpload(actor, id);
    expect(await libraryRoom(actor)).toMatchObject({ files: 1, bytes: bytes.length });
  });

  it('is not overrun: the sentence says how much there is', async () => {
    const actor = await newNetwork();
    await limit(actor, 'most_bytes = 2000000');
    await expect(beginUpload(actor, { name: 'a.mp4', bytes: 3_000_000, batch: null })).rejects.toMatchObject({
      status: 413,
      message: 'The library has room for 2 MB more, and this file has 3 MB. Delete some files, then upload it again.',
    });
    await limit(actor, 'most_files = 0');
    await expect(beginUpload(actor, { name: 'a.mp4', bytes: 1, batch: null })).rejects.toMatchObject({
      status: 413,
      message: 'The library is full with 0 files. Delete some, then upload this again.',
    });
    expect(await UploadRow.count({ where: { networkId: actor.networkId } })).toBe(0);
  });

  it('ends with the disk, and with the largest file that is taken', async () => {
    const actor = await newNetwork();
    await limit(actor, 'most_bytes = 9000000000000000');
    await expect(beginUpload(actor, { name: 'a.mp4', bytes: 5 * 2 ** 30, batch: null })).rejects.toMatchObject({
      status: 413,
    });
    process.env.LANTERNPOST_UPLOAD_LIMIT = String(2 ** 52);
    await expect(beginUpload(actor, { name: 'a.mp4', bytes: 2 ** 51, batch: null })).rejects.toMatchObject({
      status: 507,
    });
    delete process.env.LANTERNPOST_UPLOAD_LIMIT;
  });

  it.each([
    ['', 10],
    ['../etc/passwd', 10],
    ['a.png', 0],
  ])('a file called "%s" of %d bytes is refused before a byte comes', async (name, bytes) => {
    const actor = await newNetwork();
    await expect(beginUpload(actor, { name, bytes, batch: null })).rejects.toMatchObject({ status: 422 });
  });
});

describe('what is said of files that are sent together', () => {
  const media = async (actor: Actor) =>
    (await draftPlan(actor)).plan.media.map(({ name, tags = [], when }) => ({ name, tags, when }));

  it('holds for those that are in, those being prepared and those still to come', async () => {
    const actor = await newNetwork();
    await sendWhole(actor, 'In.jpg', await picture(11, 12), BATCH);
    const preparing = await send(actor, 'Preparing.jpg', await picture(12, 12), [], BATCH);
    await completeUpload(actor, preparing);
    const coming = await send(actor, 'Coming.jpg', await picture(13, 12), [], BATCH);
    await sendWhole(actor, 'Another.jpg', await picture(14, 12));
    await describeBatch(actor, BATCH, { tags: ['winter', 'pier'], available: { to: '2027-02-28' } });
    await processUpload(preparing);
    await completeUpload(actor, coming);
    await processUpload(coming);
    await sendWhole(actor, 'Late.jpg', await picture(15, 12), BATCH);
    const said = { tags: ['winter', 'pier'], when: { to: '2027-02-28' } };
    expect(await media(actor)).toEqual([
      { name: 'Another', tags: [], when: undefined },
      { name: 'Coming', ...said },
      { name: 'In', ...said },
      { name: 'Late', ...said },
      { name: 'Preparing', ...said },
    ]);
    expect((await batchMedia(actor, BATCH)).map(({ id }) => id)).toEqual(['coming', 'in', 'late', 'preparing']);
  });

  it('gives way to what is said next, and leaves a file what it has from elsewhere', async () => {
    const actor = await newNetwork();
    const bytes = await picture(16, 12);
    await sendWhole(actor, 'Known.jpg', bytes);
    await edit(actor, [{ kind: 'media', id: 'known', set: { tags: ['own'] } }]);
    await sendWhole(actor, 'The same again.jpg', bytes, BATCH);
    await describeBatch(actor, BATCH, { tags: ['wnter'], available: { to: '2027-01-31' } });
    expect(await media(actor)).toEqual([{ name: 'Known', tags: ['own', 'wnter'], when: { to: '2027-01-31' } }]);
    await describeBatch(actor, BATCH, { tags: ['winter'] });
    expect(await media(actor)).toEqual([{ name: 'Known', tags: ['own', 'winter'], when: undefined }]);
    await undo(actor, 'undo');
    expect(await media(actor)).toEqual([{ name: 'Known', tags: ['own', 'wnter'], when: { to: '2027-01-31' } }]);
  });

  it('holds for all where it is said before the first of them is begun, also for what the library has already', async () => {
    const actor = await newNetwork();
    const known = await picture(18, 12);
    await sendWhole(actor, 'Known.jpg', known);
    await describeBatch(actor, BATCH, { tags: ['winter'] });
    await sendWhole(actor, 'First.jpg', await picture(19, 12), BATCH);
    await sendWhole(actor, 'The same again.jpg', known, BATCH);
    expect(await media(actor)).toEqual([
      { name: 'First', tags: ['winter'], when: undefined },
      { name: 'Known', tags: ['winter'], when: undefined },
    ]);
  });

  it('counts what is here whole and not in the library yet, until it is in or refused', async () => {
    const [actor, other] = [await newNetwork(), await newNetwork()];
    const coming = await send(actor, 'Coming.jpg', await picture(20, 12), [], BATCH);
    expect(await batchPreparing(actor, BATCH)).toBe(0);
    await completeUpload(actor, coming);
    const broken = await send(actor, 'Broken.jpg', (await picture(21, 12)).subarray(0, 300), [], BATCH);
    await completeUpload(actor, broken);
    expect(await batchPreparing(actor, BATCH)).toBe(2);
    expect(await batchPreparing(other, BATCH)).toBe(0);
    await processUpload(coming);
    await processUpload(broken);
    expect(await batchPreparing(actor, BATCH)).toBe(0);
  });

  it('is refused whole where it can not be, and is no other network’s affair', async () => {
    const [actor, other] = [await newNetwork(), await newNetwork()];
    await sendWhole(actor, 'In.jpg', await picture(17, 12), BATCH);
    await expect(describeBatch(actor, BATCH, { tags: ['not a tag, surely('] })).rejects.toMatchObject({ status: 422 });
    await describeBatch(other, BATCH, { tags: ['theirs'] });
    expect(await batchMedia(other, BATCH)).toEqual([]);
    expect(await media(actor)).toEqual([{ name: 'In', tags: [], when: undefined }]);
  });
});
