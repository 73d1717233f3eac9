import { existsSync, readFileSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { createServer } from 'node:net';
import type { Page } from '@playwright/test';
import { sidewaysPhoto } from './support/files';
import { draft } from './support/plan';
import { answersAgain, postmasterFile, thinkPid, webPid } from './support/processes';
import { goTo, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** Processes killed hard, at bad moments: what was confirmed is there, the rest is finished or cleanly failed. */
test.describe.configure({ mode: 'serial' });

test('the web server in an upload: nothing is half stored, and the file can be sent again', async ({ page }) => {
  await signIn(page);
  const cookies = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join('; ');
  const beside = thinkPid();
  expect(beside).toBeGreaterThan(0);
  const broken = new Promise<void>((done) => {
    const sending = httpRequest(server('/api/uploads?name=Half%20sent.png'), {
      method: 'POST',
      headers: { cookie: cookies, 'content-length': 5_000_000 },
    });
    sending.on('error', () => done());
    sending.on('close', () => done());
    sending.write(Buffer.alloc(1_000_000), () => process.kill(webPid(), 'SIGKILL'));
  });
  await broken;
  await answersAgain(page);
  // What worked beside it ended with it.
  await expect.poll(() => existsSync(`/proc/${beside}`)).toBe(false);
  expect(await (await page.request.get(server('/api/uploads'))).json()).toEqual([]);
  await page.goto(server('/library'));
  await expect(page.getByText('42 files', { exact: true })).toBeVisible();
});

const WAITING = "SELECT 1 FROM pg_locks WHERE NOT granted AND relation = 'programs'::regclass";

test('what compiles, in a publication: nothing of the edition is there, and it can be published', async ({ page }) => {
  await signIn(page, '/plan');
  await page.getByRole('button', { name: 'list', exact: true }).click();
  await page.locator('[data-booking="kiosk-card"]').click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Seconds').fill('11');
  await sheet.getByLabel('Name').focus();
  await page.keyboard.press('Escape');
  await expect
    .poll(async () => (await draft()).bookings.find((one) => one.id === 'kiosk-card')?.content.durationMs)
    .toBe(11_000);
  await page.getByTestId('docket').click();
  const editions = page.getByRole('complementary', { name: 'Editions' }).getByRole('listitem');
  await expect(editions.first()).toBeVisible();
  const before = await editions.count();
  const { rows, transaction } = await import('@/database');
  await transaction(async (within) => {
    // The publication waits here, half done.
    await rows('LOCK TABLE programs IN SHARE ROW EXCLUSIVE MODE', [], within);
    await page.getByRole('button', { name: /^Publish edition/ }).click();
    await expect.poll(async () => (await rows(WAITING)).length, { timeout: 30_000 }).toBe(1);
    process.kill(thinkPid(), 'SIGKILL');
  });
  await expect(page.getByRole('alert').filter({ hasText: 'This was interrupted' })).toBeVisible();
  await page.goto(server('/publish'));
  await expect(editions.first()).toBeVisible();
  const button = page.getByRole('button', { name: /^Publish edition/ });
  await expect(editions).toHaveCount(before);
  await button.click();
  await expect(page.getByText(/Edition \d+ is published\./)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Nothing to publish' })).toBeVisible();
  await expect(editions).toHaveCount(before + 1);
});

/** Most screens play again, or rest: players come back one by one, after longer and longer waits. */
async function networkIsLit(page: Page): Promise<void> {
  await page.goto(server('/'));
  await expect
    .poll(() => page.locator('[data-screen][data-state="lit"], [data-screen][data-state="resting"]').count(), {
      timeout: 90_000,
    })
    .toBeGreaterThan(30);
}

test('PostgreSQL: it comes back, and everybody goes on', async ({ page }) => {
  await signIn(page);
  const [killed] = postmasterFile();
  process.kill(Number(killed), 'SIGKILL');
  await expect.poll(() => postmasterFile()[0] ?? killed).not.toBe(killed);
  await expect
    .poll(
      () =>
        page.request.get(server('/api/statuses')).then(
          (response) => response.status(),
          () => 0,
        ),
      { timeout: 60_000 },
    )
    .toBe(200);
  await networkIsLit(page);
  // An edit and its live echo work again.
  await goTo(page, 'Playlists');
  await page.getByLabel('Name of a new playlist').fill('After the storm');
  await page.getByRole('button', { name: 'Make playlist' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'After the storm' })).toBeAttached();
  await page.getByRole('button', { name: 'Delete this playlist' }).click();
  await expect(page.getByText('Ctrl Z brings it back')).toBeVisible();
});

test('PostgreSQL, its port taken by another program: everything follows it to a new port, the worker and the players too', async ({
  page,
}) => {
  await signIn(page);
  const [killed, , , port] = postmasterFile();
  const taken = createServer();
  process.kill(Number(killed), 'SIGKILL');
  // The port is free once the last of its processes has ended.
  await expect
    .poll(
      () =>
        new Promise((done) =>
          taken.once('error', () => done(false)).listen(Number(port), '127.0.0.1', () => done(true)),
        ),
    )
    .toBe(true);
  await expect.poll(() => postmasterFile()[3] ?? port).not.toBe(port);
  await answersAgain(page);
  await networkIsLit(page);
  await goTo(page, 'Library');
  await page.locator('[data-testid="files"]').setInputFiles(await sidewaysPhoto());
  await expect(page.locator('[data-media="pier-at-dawn"]')).toContainText('1080×1920');
  taken.close();
});

test('memory: the web server stays under 450 MB', () => {
  const status = readFileSync(`/proc/${webPid()}/status`, 'utf8');
  const megabytes = Number(/VmRSS:\s+(\d+)/.exec(status)?.[1]) / 1024;
  expect(megabytes).toBeLessThan(450);
});
