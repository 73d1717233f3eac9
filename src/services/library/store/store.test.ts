import {
  existsSync,
  mkdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { createHash } from 'node:crypto';
import { rows } from '@/database';
import { draftPlan } from '../../plan';
import { newNetwork, useDatabase } from '../../tests/database';
import { picture, send } from '../../tests/files';
import { fileTrouble, libraryFile, processUpload } from '..';
import {
  acceptPairing,
  checkFiles,
  checkPairing,
  cleanUp,
  closeFolders,
  copyIn,
  copyOut,
  openToSend,
  storedPath,
} from '.';

useDatabase();

const data = (...path: string[]) => join(process.env.LANTERNPOST_DATA ?? '', ...path);
const DAY = 86_400_000;
const inDays = (days: number) => new Date(Date.now() + days * DAY);

/** Puts a file into the store that no row knows, stored two days ago. */
function stray(i: number): string {
  const bytes = Buffer.from(`stray ${i}`);
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  mkdirSync(dirname(storedPath(sha256)), { recursive: true });
  writeFileSync(storedPath(sha256), bytes);
  return sha256;
}

async function added(name: string, bytes: Buffer) {
  const actor = await newNetwork();
  const received = await send(actor, name, bytes);
  if ('upload' in received) await processUpload(received.upload.id);
  const [media] = (await draftPlan(actor)).plan.media;
  return { actor, sha256: media?.sha256 ?? '', id: media?.id ?? '' };
}

describe('a media folder and a database', () => {
  afterEach(acceptPairing);

  it('that met once know each other again, and each check counts on', async () => {
    await added('Pier.jpg', await picture(50, 40));
    for (let i = 0; i < 3; i++) expect(await checkPairing()).toEqual({ kind: 'together' });
    const { mark } = JSON.parse(readFileSync(data('media/store.json'), 'utf8')) as { mark: number };
    expect(await rows('SELECT mark::int, problem FROM store')).toEqual([{ mark, problem: null }]);
  });

  it('stay a pair where one of them could not be written, and a process died between the two', async () => {
    await checkPairing();
    for (const sql of ['UPDATE store SET mark = mark - 1', 'UPDATE store SET mark = mark + 1']) {
      await rows(sql);
      expect(await checkPairing()).toEqual({ kind: 'together' });
    }
    // Where the folder can’t be written, the database is not ahead of it, however often it is tried.
    const [before] = await rows('SELECT mark FROM store');
    mkdirSync(data('media/store.json.next'));
    for (let i = 0; i < 3; i++) await expect(checkPairing()).rejects.toThrow();
    expect(await rows('SELECT mark FROM store')).toEqual([before]);
    rmSync(data('media/store.json.next'), { recursive: true });
    expect(await checkPairing()).toEqual({ kind: 'together' });
  });

  it('where only one is new are no pair: nothing is cleaned up, and people are told', async () => {
    const { actor, sha256 } = await added('Quay.jpg', await picture(51, 40));
    await checkPairing();
    // As a fresh database finds a full folder: it knows no file, and its own identity is another.
    await rows('UPDATE store SET id = gen_random_uuid(), paired = false, mark = 0');
    await rows("UPDATE files SET created_at = now() - interval '9 days'");
    const strays = Array.from({ length: 10 }, (_, i) => stray(i));
    expect(await cleanUp(inDays(9))).toMatchObject({ files: 0 });
    expect([sha256, ...strays].every((one) => existsSync(storedPath(one)))).toBe(true);
    expect((await fileTrouble(actor)).store).toMatch(/^The media folder belongs to another database/);
    await acceptPairing();
    expect((await fileTrouble(actor)).store).toBeNull();
    expect((await cleanUp(inDays(9))).files).toBeGreaterThanOrEqual(10);
  });

  it.each([
    ['the database', 'UPDATE store SET mark = mark - 3', /^The database is older than the media folder/],
    ['the files', 'UPDATE store SET mark = mark + 3', /^The media folder is older than the database/],
  ])('of which only %s was restored are no pair', async (_, sql, said) => {
    await checkPairing();
    await rows(sql);
    expect(await checkPairing()).toMatchObject({ kind: 'apart', why: expect.stringMatching(said) as string });
    await rows("UPDATE files SET created_at = now() - interval '9 days'");
    expect(await cleanUp(inDays(9))).toMatchObject({ files: 0 });
  });

  it('of which the folder is empty are no pair', async () => {
    await added('Buoy.jpg', await picture(52, 40));
    renameSync(data('media'), data('away'));
    expect(await checkPairing()).toMatchObject({
      why: expect.stringMatching(/^The media folder is empty, but the database lists \d+ files/) as string,
    });
    rmSync(data('media'), { recursive: true, force: true });
    renameSync(data('away'), data('media'));
  });
});

test('a clean-up leaves files that no row knows where they are many, until it is told; they wait in the trash for two weeks', async () => {
  const strays = Array.from({ length: 60 }, (_, i) => stray(i));
  expect(await cleanUp(inDays(2))).toMatchObject({ left: 60 });
  expect(strays.every((one) => existsSync(storedPath(one)))).toBe(true);
  expect(await cleanUp(inDays(2), { all: true })).toMatchObject({ left: 0 });
  const [first = ''] = strays;
  expect([existsSync(storedPath(first)), existsSync(data('trash', first))]).toEqual([false, true]);
  await cleanUp(inDays(13));
  expect(existsSync(data('trash', first))).toBe(true);
  await cleanUp(inDays(15));
  expect(existsSync(data('trash', first))).toBe(false);
});

describe('a stored file that is damaged', () => {
  const flip = (path: string) => {
    const bytes = readFileSync(path);
    bytes[100] = (bytes[100] ?? 0) ^ 1;
    writeFileSync(path, bytes);
  };
  const harms: [string, (path: string) => void][] = [
    ['by a flipped bit', flip],
    ['by a lost end', (path) => truncateSync(path, 200)],
    ['by being lost', (path) => rmSync(path)],
  ];
  it.each(harms)('%s, is never sent as whole, is named, and is repaired by the next upload', async (how, harm) => {
    const bytes = await picture(60, 40 + how.length);
    const { actor, sha256, id } = await added('Menu.jpg', bytes);
    harm(storedPath(sha256));
    const file = await libraryFile(actor, sha256);
    const stream = await openToSend(file);
    if (stream) await expect(buffer(stream)).rejects.toThrow('is damaged');
    expect((await fileTrouble(actor)).damaged).toEqual([{ id, name: 'Menu' }]);
    expect(await openToSend(await libraryFile(actor, sha256), { start: 0, end: 9 })).toBeNull();
    const again = await send(actor, 'Menu again.jpg', bytes);
    if (!('upload' in again)) throw new Error('taken for sound');
    await processUpload(again.upload.id);
    expect((await draftPlan(actor)).plan.media).toMatchObject([{ id, sha256 }]);
    expect(await fileTrouble(actor)).toEqual({ store: null, damaged: [] });
    const whole = await openToSend(await libraryFile(actor, sha256));
    expect(whole && (await buffer(whole))).toEqual(readFileSync(storedPath(sha256)));
  });

  it('is found by the regular check, which begins with what was checked longest ago', async () => {
    const { sha256 } = await added('Sign.jpg', await picture(61, 47));
    flip(storedPath(sha256));
    const checked = await checkFiles(new Date(Date.now() + 1000));
    expect(checked.damaged).toEqual([sha256]);
    expect(checked.files).toBeGreaterThan(3);
    expect((await checkFiles(new Date(Date.now() - 1000))).files).toBe(0);
  });

  it('is brought back from the trash where a sound copy lies there', async () => {
    const { actor, sha256 } = await added('Flag.jpg', await picture(62, 47));
    mkdirSync(data('trash'), { recursive: true });
    expect(await copyOut(sha256, data('trash', sha256))).toBe(true);
    rmSync(storedPath(sha256));
    const stream = await openToSend(await libraryFile(actor, sha256));
    expect(stream && (await buffer(stream)).length).toBe((await libraryFile(actor, sha256)).bytes);
  });
});

test('a backup takes and gives sound bytes alone', async () => {
  const { sha256 } = await added('Copy.jpg', await picture(63, 47));
  const out = data('out');
  expect(await copyOut(sha256, out)).toBe(true);
  expect(await copyIn(out, sha256)).toBe(true);
  writeFileSync(out, 'something else');
  expect(await copyIn(out, sha256)).toBe(false);
  expect(await checkFiles(new Date(Date.now() + 2000))).toMatchObject({
    damaged: expect.not.arrayContaining([sha256]),
  });
  expect(await copyOut('0'.repeat(64), out)).toBe(false);
});

test('no other account of the machine can read what is stored', async () => {
  await added('Private.jpg', await picture(64, 47));
  await closeFolders();
  for (const folder of ['media', 'incoming', 'sending', 'trash'])
    expect((statSync(data(folder)).mode & 0o077).toString(8)).toBe('0');
});

test('what a program writes for longer than the grace is left to it; what one left behind is removed', async () => {
  const [busy, left] = [data('incoming', 'busy'), data('incoming', 'left')];
  const old = new Date(Date.now() - 3_600_000);
  for (const folder of [busy, left]) {
    mkdirSync(folder, { recursive: true });
    writeFileSync(join(folder, 'made'), 'a video');
  }
  utimesSync(join(left, 'made'), old, old);
  for (const folder of [busy, left]) utimesSync(folder, old, old);
  await cleanUp(new Date());
  expect([existsSync(busy), existsSync(left)]).toEqual([true, false]);
  rmSync(busy, { recursive: true });
});
