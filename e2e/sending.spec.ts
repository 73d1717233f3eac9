import { connect, createServer, type AddressInfo, type Socket } from 'node:net';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { draft } from './support/plan';
import { webPid } from './support/processes';
import { goTo, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** Uploadsto the library: many, large, over lines that break, by pages and servers that come and go. */
test.describe.configure({ mode: 'serial' });

const tray = (page: Page) => page.getByTestId('uploads');
const media = async (name: string) => (await draft()).media.find((one) => one.name === name);

/** A picture of noise: as many bytes as it has pixels, three each. */
async function noise(width: number, height: number, seed: number): Promise<Buffer> {
  let state = seed;
  const pixels = Buffer.from(
    Uint8Array.from({ length: width * height * 3 }, () => (state = (state * 1103515245 + 12345) & 0x7fffffff) >> 16),
  );
  return sharp(pixels, { raw: { width, height, channels: 3 } })
    .png({ compressionLevel: 0 })
    .toBuffer();
}

const png = (name: string, buffer: Buffer) => ({ name, mimeType: 'image/png', buffer });
const choose = (page: Page, files: readonly { name: string; mimeType: string; buffer: Buffer }[]) =>
  page.getByTestId('files').setInputFiles([...files]);

/** Slows what this page sends, in bytes a second; -1 for not at all. */
async function line(page: Page, uploadThroughput: number): Promise<void> {
  const session = await page.context().newCDPSession(page);
  await session.send('Network.emulateNetworkConditions', {
    ...{ offline: false, latency: 0, downloadThroughput: -1, uploadThroughput },
  });
}

/** The bytes that the last request of each upload had to send. */
function parts(page: Page): { path: string; offset: number }[] {
  const seen: { path: string; offset: number }[] = [];
  page.on('request', (request) => {
    if (request.method() === 'PATCH')
      seen.push({ path: new URL(request.url()).pathname, offset: Number(request.headers()['upload-offset']) });
  });
  return seen;
}

let page: Page;
test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  await signIn(page, '/library');
});

test('many at once: tags and times for all, the refused one told, and put into a new playlist', async () => {
  const pictures = await Promise.all(
    Array.from({ length: 20 }, async (_, i) => png(`Pier ${i}.png`, await noise(64, 48, i + 1))),
  );
  await choose(page, [...pictures, { name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('Buy oil.') }]);
  await tray(page).getByLabel('Tags').fill('pier, winter');
  await tray(page).getByLabel('Available').fill('until 28 feb 2027');
  await tray(page).getByLabel('Put them into the playlist').fill('Pier in winter');
  await expect(tray(page).getByRole('alert')).toContainText('can’t be played');
  await expect(tray(page).getByRole('heading')).toHaveText('20 files added, 1 not accepted');
  await tray(page).getByRole('button', { name: 'Put them in' }).click();
  await expect(page.getByRole('status').getByText('20 files went into “Pier in winter”.')).toBeVisible();
  const { playlists, media: all } = await draft();
  const items = playlists.find(({ name }) => name === 'Pier in winter')?.items ?? [];
  expect(items).toHaveLength(20);
  for (const item of items)
    expect(all.find(({ id }) => id === item.media)).toMatchObject({
      tags: ['pier', 'winter'],
      when: { to: '2027-02-28' },
    });
  await tray(page).getByRole('button', { name: 'Dismiss notes.txt' }).click();
  await tray(page).getByRole('button', { name: 'Clear the list' }).click();
  await expect(tray(page)).toHaveCount(0);
});

test('a folder is all that is in it', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'lanternpost-folder-'));
  mkdirSync(join(folder, 'deep', 'er'), { recursive: true });
  writeFileSync(join(folder, 'Top.png'), await noise(30, 30, 91));
  writeFileSync(join(folder, 'deep', 'er', 'Bottom.png'), await noise(30, 30, 92));
  writeFileSync(join(folder, '.DS_Store'), 'x');
  await page.getByTestId('folder').setInputFiles(folder);
  await expect(tray(page).getByRole('heading')).toHaveText('2 files added');
  await expect
    .poll(async () => [await media('Top'), await media('Bottom')].every((one) => one !== undefined))
    .toBe(true);
  await tray(page).getByRole('button', { name: 'Clear the list' }).click();
});

test('what is dropped in any place goes into the library, what is pasted too', async () => {
  await goTo(page, 'Plan');
  const bytes = [...(await noise(20, 20, 93))];
  await page.evaluate((list) => {
    const data = new DataTransfer();
    data.items.add(new File([new Uint8Array(list)], 'Dropped.png', { type: 'image/png' }));
    document
      .querySelector('main')
      ?.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
  }, bytes);
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeAttached();
  await expect.poll(() => media('Dropped')).toBeTruthy();
  const other = [...(await noise(20, 20, 94))];
  await page.evaluate((list) => {
    const data = new DataTransfer();
    data.items.add(new File([new Uint8Array(list)], 'image.png', { type: 'image/png' }));
    document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, other);
  await expect.poll(async () => (await draft()).media.some(({ name }) => /^Pasted 20\d\d-/.test(name))).toBe(true);
  await tray(page).getByRole('button', { name: 'Clear the list' }).click();
});

test('paused, it goes on where it stands; cancelled, nothing of it is left', async () => {
  const sent = parts(page);
  await line(page, 400_000);
  await choose(page, [png('Long.png', await noise(1000, 900, 95)), png('Never.png', await noise(1000, 900, 96))]);
  await expect(tray(page).getByLabel(/^sending, [1-9]\d %$/)).toHaveCount(2);
  await tray(page).getByRole('button', { name: 'Cancel Never.png' }).click();
  await tray(page).getByRole('button', { name: 'Pause Long.png' }).click();
  await expect(tray(page).getByLabel(/^paused, /)).toBeVisible();
  await line(page, -1);
  await tray(page).getByRole('button', { name: 'Continue with Long.png' }).click();
  await expect.poll(() => media('Long')).toMatchObject({ width: 1000, height: 900 });
  expect(sent.at(-1)?.offset).toBeGreaterThan(50_000);
  expect(await media('Never')).toBeUndefined();
  await tray(page).getByRole('button', { name: 'Clear the list' }).click();
});

/** A line to the server that can be cut and restored. */
async function cuttable() {
  const ends = new Set<Socket>();
  let cut = false;
  const to = new URL(server());
  const relay = createServer((near) => {
    if (cut) return void near.destroy();
    const far = connect(Number(to.port), to.hostname);
    for (const [one, other] of [
      [near, far],
      [far, near],
    ] as const) {
      ends.add(one);
      one.pipe(other);
      one.on('error', () => other.destroy()).on('close', () => other.destroy());
    }
  });
  await new Promise<void>((listens) => relay.listen(0, '127.0.0.1', listens));
  return {
    url: `http://127.0.0.1:${(relay.address() as AddressInfo).port}`,
    cut: () => {
      cut = true;
      for (const end of ends) end.destroy();
    },
    mend: () => void (cut = false),
    close: () => relay.close(),
  };
}

test('over a line that breaks it goes on by itself', async ({ browser }) => {
  const wire = await cuttable();
  const far = await browser.newPage();
  await signIn(far);
  await far.goto(`${wire.url}/library`);
  const sent = parts(far);
  await line(far, 400_000);
  await choose(far, [png('Broken line.png', await noise(1000, 900, 97))]);
  await expect(tray(far).getByLabel(/^sending, [1-9]\d %$/)).toBeVisible();
  wire.cut();
  await expect(tray(far).getByLabel(/^connection lost/)).toBeVisible();
  expect(await media('Broken line')).toBeUndefined();
  await line(far, -1);
  wire.mend();
  await expect.poll(() => media('Broken line')).toMatchObject({ width: 1000 });
  expect(sent.at(-1)?.offset).toBeGreaterThan(50_000);
  await far.close();
  wire.close();
});

test('after a reload it goes on by itself, where it stood, with what was said of it', async () => {
  await line(page, 400_000);
  await choose(page, [png('Reloaded.png', await noise(1000, 900, 98))]);
  await tray(page).getByLabel('Tags').fill('reloaded');
  await page.keyboard.press('Tab');
  await expect(tray(page).getByLabel(/^sending, [1-9]\d %$/)).toBeVisible();
  page.once('dialog', (dialog) => void dialog.accept());
  await page.reload();
  const sent = parts(page);
  await expect(tray(page).getByRole('button', { name: 'Remove tag reloaded' })).toBeVisible();
  await line(page, -1);
  await expect.poll(() => media('Reloaded')).toMatchObject({ width: 1000, tags: ['reloaded'] });
  expect(sent.at(-1)?.offset).toBeGreaterThan(50_000);
  await tray(page).getByRole('button', { name: 'Clear the list' }).click();
});

test('a server that is killed and comes back gets the rest', async () => {
  const sent = parts(page);
  await line(page, 400_000);
  await choose(page, [png('Server gone.png', await noise(1000, 900, 99))]);
  await expect(tray(page).getByLabel(/^sending, [1-9]\d %$/)).toBeVisible();
  process.kill(webPid(), 'SIGKILL');
  await expect(tray(page).getByLabel(/^connection lost/)).toBeVisible();
  await line(page, -1);
  await expect.poll(() => media('Server gone')).toMatchObject({ width: 1000 });
  expect(sent.at(-1)?.offset).toBeGreaterThan(50_000);
});

test('a library that is full says so before it is hit, and refuses with a sentence', async () => {
  await page.goto(server('/library'));
  await expect(
    page.getByText(/of 1,000 GB used, \d+ of 100,000 files; a single file may have up to 4.3 GB\./),
  ).toBeVisible();
});
