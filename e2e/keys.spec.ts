import { spawn, spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import type { Page } from '@playwright/test';
import { manyPictures } from './support/files';
import { draft } from './support/plan';
import { server, signIn } from './support/session';
import { expect, test } from './support/test';

/** Programs work in a person's name by a key: files go into the library from the command line, and from a folder that is watched. */
test.describe.configure({ mode: 'serial' });

let page: Page;
let key = '';
test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  await signIn(page);
});
test.afterAll(() => page.close());

const environment = () => ({ ...process.env, LANTERNPOST_KEY: key });
const lanternpost = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['bin/lanternpost.mjs', ...args], {
    encoding: 'utf8',
    env: environment(),
  });
  return { status, stdout, stderr };
};
const tagged = async (tag: string) =>
  (await draft()).media.flatMap(({ name, tags }) => (tags?.includes(tag) ? [name] : [])).sort();

test('a key is made for a purpose, and shown once', async () => {
  await page.goto(server('/people'));
  await page.getByRole('button', { name: 'Create key' }).click();
  await expect(page.getByText('Write what the key is for')).toBeVisible();
  await page.getByLabel('What the new key is for').fill('Signs folder');
  await page.getByRole('button', { name: 'Create key' }).click();
  const shown = page.getByLabel('The key Signs folder', { exact: true });
  await expect(shown).toHaveValue(/^lanternpost_[\w-]{43}$/);
  key = await shown.inputValue();
  await page.reload();
  await expect(page.getByText('never used')).toBeVisible();
  await expect(shown).toHaveCount(0);
});

test('the command line sends files with it, tagged, and says which can’t be played or are there already', async () => {
  const [one = '', two = ''] = await manyPictures(2);
  const wrong = join(mkdtempSync(join(tmpdir(), 'lanternpost-keys-')), 'notes.txt');
  writeFileSync(wrong, 'no picture');
  const empty = join(dirname(wrong), 'empty.mp4');
  writeFileSync(empty, '');
  const sent = lanternpost(
    'upload',
    one,
    two,
    wrong,
    empty,
    dirname(wrong),
    '/nowhere.png',
    '--server',
    server('/'),
    '--tags',
    'quayside, boats',
  );
  expect(sent.status).toBe(1);
  expect(sent.stdout).toContain('in the library as “Boat 01”');
  expect(sent.stdout).toContain('in the library as “Boat 02”');
  expect(sent.stderr).toMatch(/notes\.txt: .+/);
  expect(sent.stderr).toContain('empty.mp4: This file is empty. Choose another.');
  expect(sent.stderr).toContain(`${dirname(wrong)}: This is a folder. Name the files in it`);
  expect(sent.stderr).toContain('/nowhere.png: This file can’t be read (ENOENT).');
  expect(await tagged('quayside')).toEqual(['Boat 01', 'Boat 02']);
  const again = lanternpost('upload', one, '--server', server('/'), '--json');
  expect([again.status, JSON.parse(again.stdout)]).toEqual([0, { file: one, became: 'known', said: 'Boat 01' }]);
});

const watching = (folder: string) => {
  const told: string[] = [];
  const child = spawn(
    process.execPath,
    ['bin/lanternpost.mjs', 'watch', folder, '--server', server('/'), '--tags', 'watched'],
    { env: environment(), stdio: ['ignore', 'pipe', 'pipe'] },
  );
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (text: Buffer) => told.push(String(text)));
  const ended = new Promise((done) => child.once('exit', done));
  return { folder, told, ended, stop: () => (child.kill('SIGINT'), ended) };
};

test('a folder is watched: what is in it and what comes into it goes into the library, once', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'lanternpost-watched-'));
  const [, , three = '', four = '', five = ''] = await manyPictures(5);
  cpSync(three, join(folder, 'Three.png'));
  const file = async (name: string) => (await draft()).media.find((one) => one.name === name);
  const first = watching(folder);
  await expect.poll(() => tagged('watched')).toEqual(['Three']);
  cpSync(four, join(folder, 'Four.png'));
  await expect.poll(() => tagged('watched')).toEqual(['Four', 'Three']);
  await expect.poll(() => first.told.join('')).toContain('Four.png: in the library as “Four”');
  // A file that changes is a new version of what it was: whatever uses it follows.
  const before = await file('Four');
  cpSync(five, join(folder, 'Four.png'));
  await expect.poll(async () => (await file('Four'))?.sha256).not.toBe(before?.sha256);
  expect((await file('Four'))?.id).toBe(before?.id);
  expect(await tagged('watched')).toEqual(['Four', 'Three']);
  expect(await first.stop()).toBe(0);
  // Begun again it knows what it has sent.
  const second = watching(folder);
  cpSync(five, join(folder, 'Four again.png'));
  await expect.poll(() => second.told.join('')).toContain('Four again.png: the library has it already');
  expect(second.told.join('')).not.toContain('Three');
  await second.stop();
});

test('an ended key opens nothing, nor does a server that is none; a key opens no page of a person', async ({
  request,
}) => {
  const headers = { authorization: `Bearer ${key}` };
  expect((await request.get(server('/api/uploads'), { headers })).status()).toBe(200);
  for (const path of ['/api/people', '/api/docket', '/api/media'])
    expect((await request.get(server(path), { headers })).status()).toBe(403);
  const watched = watching(mkdtempSync(join(tmpdir(), 'lanternpost-watched-')));
  await expect.poll(() => watched.told.join('')).toContain('Watching');
  await page.getByRole('button', { name: 'Delete the key Signs folder' }).click();
  await expect(page.getByText('never used')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Delete the key Signs folder' })).toHaveCount(0);
  expect((await request.get(server('/api/uploads'), { headers })).status()).toBe(401);
  const [one = ''] = await manyPictures(1);
  // A watch whose key is ended says so once, and ends.
  cpSync(one, join(watched.folder, 'One.png'));
  expect(await watched.ended).toBe(1);
  expect(watched.told.join('')).toContain('This key isn’t known. It was deleted, or part of it is missing.');
  const refused = lanternpost('upload', one, '--server', server('/'));
  expect([refused.status, JSON.parse(refused.stderr)]).toEqual([
    2,
    { errors: [{ path: '', message: 'This key isn’t known. It was deleted, or part of it is missing.' }] },
  ]);
  expect(lanternpost('upload', one, '--server', 'http://127.0.0.1:9').stderr).toContain('isn’t answering');
  expect(lanternpost('watch', '/no/such/folder', '--server', server('/')).stderr).toContain(
    'There’s no folder /no/such/folder',
  );
});
