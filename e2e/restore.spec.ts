import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { dataFolder, removeData, startLanternpost, type Instance } from './support/instance';
import { atThePier, pierBackdrop } from './support/pier';
import { bindDatabase, ternholm } from './support/plan';
import { server, signIn } from './support/session';
import { expect, test } from './support/test';

/** A backup and its restore on a fresh machine, by the commands of docs/operations.md, word for word. */
let page: Page;
let player: Page;
atThePier((pier) => ({ page, player } = pier));

const BACKUP = '/srv/lanternpost-backup';
const [, section = ''] = readFileSync('docs/operations.md', 'utf8').split('## Back up and restore');
const commands = [...section.matchAll(/```sh\n([\s\S]*?)```/g)]
  .flatMap(([, block = '']) => block.trim().split('\n'))
  .map((line) => line.trim());
const [backup = '', restore = '', start, check = '', pair = ''] = commands;

/** The sample people's passwords open nothing where the sample network is not for show. */
const RAGNA = { name: 'Ragna Holm', email: 'ragna@ternholm.example', password: 'a long password of mine' };

const place = (name: string) => `${process.env.LANTERNPOST_E2E_DATA ?? ''}-${name}`;
let folder = '';
let restored: Instance | undefined;
test.beforeAll(() => {
  folder = place('backup');
  rmSync(folder, { recursive: true, force: true });
});
test.afterAll(async () => {
  await restored?.stop();
  rmSync(folder, { recursive: true, force: true });
  if (restored) await removeData(restored.data);
});

/** Runs a command of the page, on the machine whose data folder is named. */
const run = (command: string, data: string): string =>
  execFileSync('sh', ['-c', command.replace(BACKUP, folder)], {
    encoding: 'utf8',
    env: { ...process.env, LANTERNPOST_DATA: data, DATABASE_URL: '', LANTERNPOST_DB_PORT: '0' },
  });

test('the page says how, step by step', () => {
  expect(commands).toEqual([
    `npx lanternpost backup ${BACKUP}`,
    `npx lanternpost restore ${BACKUP}`,
    'npx lanternpost start',
    'npx lanternpost files check',
    'npx lanternpost files pair',
  ]);
});

test('a backup is made while screens play; later work is published after it', async () => {
  const { addPerson } = await import('@/services/people');
  await addPerson((await ternholm()).networkId, RAGNA);
  expect(run(backup, process.env.LANTERNPOST_E2E_DATA ?? '')).toMatch(/^Backup of .*: the database and \d+ files/);
  await pierBackdrop('weather-outlook');
  const actor = await ternholm();
  const { lastChange } = await import('@/services/plan');
  const { publishEdition } = await import('@/services/editions');
  await publishEdition(actor, await lastChange(actor.networkId));
  await expect(player.locator('#stage')).toHaveAttribute('data-media', 'weather-outlook');
});

test('on a fresh machine everything is there again, and screens go back to the edition of the backup', async () => {
  const { closeBus, closeDatabase } = await import('@/database');
  await closeBus();
  await closeDatabase();
  const pid = Number(process.env.LANTERNPOST_PID);
  process.kill(pid, 'SIGINT');
  await expect.poll(() => existsSync(`/proc/${pid}`)).toBe(false);
  const name = `${(process.env.LANTERNPOST_E2E_DATA ?? '').split('/').at(-1) ?? ''}-restored`;
  await removeData(dataFolder(name));
  mkdirSync(dataFolder(name), { recursive: true });
  expect(run(restore, dataFolder(name))).toMatch(/^Restored the backup of .*: the database and \d+ files/);
  expect(() => run(restore, dataFolder(name))).toThrow();
  expect(start).toBe('npx lanternpost start');
  restored = await startLanternpost(name, Number(new URL(server()).port), false, false);
  process.env.LANTERNPOST_E2E_DATA = restored.data;
  bindDatabase();
  expect(run(check, restored.data)).toMatch(/^\d+ files checked, 0 damaged or missing\.$/m);

  await expect(player.locator('#stage')).toHaveAttribute('data-media', 'line-flag', { timeout: 120_000 });
  await page.context().clearCookies();
  await signIn(page, '/library', RAGNA);
  await expect(page.getByRole('alert', { name: 'Damaged files' })).toHaveCount(0);
  const pictures = page.locator('main ul img');
  await expect(pictures.first()).toBeVisible();
  await expect
    .poll(() => pictures.evaluateAll((all) => all.every((one) => (one as HTMLImageElement).naturalWidth > 0)))
    .toBe(true);
});

test('a folder and a database of different times are reported, until a person accepts them', async () => {
  const data = restored?.data ?? '';
  const file = join(data, 'media/store.json');
  const state = JSON.parse(readFileSync(file, 'utf8')) as { mark: number };
  writeFileSync(file, JSON.stringify({ ...state, mark: state.mark + 9 }));
  expect(() => run(check, data)).toThrow(/The database is older than the media folder/);
  await page.reload();
  await expect(page.getByRole('alert', { name: 'Damaged files' })).toContainText('only the database was restored');
  expect(run(pair, data)).toBe('The media folder and the database are paired.\n');
  await page.reload();
  await expect(page.getByRole('searchbox').or(page.locator('[data-search]')).first()).toBeVisible();
  await expect(page.getByRole('alert', { name: 'Damaged files' })).toHaveCount(0);
});
