import type { Page } from '@playwright/test';
import type { Player } from '@/services/screens';
import type { Report } from '@/protocol/schemas';
import { ternholm } from './support/plan';
import { goTo, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** How an edition arrives, by the word of two players that are no more than their heartbeats here. */
test.describe.configure({ mode: 'serial' });

const SCREENS = ['slip-north', 'slip-south'];
const players: Player[] = [];
const tokens: string[] = [];
let page: Page;
const progress = () => page.getByTestId('progress');
const missing = () => progress().getByRole('list', { name: 'Not updated yet' });

async function beat(player: Player | undefined, report: Partial<Report>): Promise<void> {
  if (!player) throw new Error('the player is missing');
  const { heartbeat, flushHeartbeats } = await import('@/services/screens');
  heartbeat(player, {
    ...{ state: 'playing', edition: 1, program: null, playing: null, download: null, clockOffsetMs: 0, storage: null },
    ...{ errors: [], software: 'test', ...report },
  });
  await flushHeartbeats();
}

/** What the newest edition gives a screen. */
async function programOf(screen: string | undefined): Promise<string> {
  const { deliveredPrograms } = await import('@/services/editions');
  return (await deliveredPrograms((await ternholm()).networkId)).get(screen ?? '') ?? '';
}

async function backdrop(media: string): Promise<void> {
  const { edit } = await import('@/services/plan');
  await edit(
    await ternholm(),
    SCREENS.map((id) => ({ kind: 'screen' as const, id, set: { backdrop: { media } } })),
  );
}

test.beforeAll(async ({ browser }) => {
  const actor = await ternholm();
  const { edit, lastChange } = await import('@/services/plan');
  const { publishEdition } = await import('@/services/editions');
  const { collectToken, pairScreen, playerOf, startPairing } = await import('@/services/screens');
  await edit(
    actor,
    SCREENS.map((id) => ({
      ...{ kind: 'screen' as const, id },
      add: { name: id, site: 'sillarvik', width: 640, height: 360, tags: ['slip'], backdrop: { media: 'line-flag' } },
    })),
  );
  await publishEdition(actor, await lastChange(actor.networkId));
  for (const id of SCREENS) {
    const { deviceCode, userCode } = await startPairing('127.0.0.1');
    await pairScreen(actor, id, userCode, '127.0.0.1');
    const collected = await collectToken(deviceCode);
    const token = typeof collected === 'string' ? collected : collected.token;
    const player = await playerOf(token);
    if (player) players.push(player);
    tokens.push(token);
  }
  for (const [i, player] of players.entries()) await beat(player, { program: await programOf(SCREENS[i]) });
  page = await browser.newPage();
  await signIn(page);
  await page.getByTestId('docket').click();
});
test.afterAll(() => page.close());

test('before it goes out: when each player will have it, which storage is too small, and which pictures don’t fit', async () => {
  await beat(players[0], { bytesPerSecond: 1e6, storage: { usedBytes: 0, limitBytes: 1e9 } });
  await beat(players[1], { kinds: ['video'], bytesPerSecond: 200, storage: { usedBytes: 1e6, limitBytes: 1.001e6 } });
  await backdrop('gale-tall');
  await page.goto(server('/publish'));
  const told = page.getByRole('list', { name: 'Players', exact: true });
  await expect(told).toContainText(
    /At the speed of their lines 1 of 2 players ready within \d+ s; Sillarvik Quay · slip-south at 1\.6 kbit\/s by \d\d:\d\d\./,
  );
  await expect(told).toContainText(/slip-south: storage \d+ kB too small for it\./);
  await expect(told).not.toContainText('not ready by the time');
  await page.getByLabel('When').fill('in 2 minutes');
  await expect(told).toContainText('Sillarvik Quay · slip-south: not ready by the time it goes out');
  await page.getByLabel('When').fill('');
  const sizes = page.getByRole('region', { name: 'Sizes that do not match' });
  await expect(sizes.getByRole('listitem')).toHaveText(
    /^Gale notice, tall 68 % bars, reduced to 19 %1080 × 1920, whole, with bars, on 640 × 360: .*slip-north, .*slip-south$/,
  );
  await expect(page.getByRole('region', { name: 'What can’t be played' }).getByRole('listitem')).toHaveText(
    'Gale notice, tall is passed over on Sillarvik Quay · slip-south: it plays no pictures.',
  );
  await expect(told.getByRole('link', { name: 'Sillarvik Quay · slip-south' }).first()).toHaveAttribute(
    'href',
    '/screens?screen=slip-south',
  );
  await sizes.getByRole('link', { name: 'Gale notice, tall' }).click();
  await expect(page).toHaveURL(/library/);
  await page.goBack();
  await expect(sizes).toBeVisible();
  await backdrop('line-flag');
  await expect(page.getByRole('heading', { name: 'Nothing to publish' })).toBeVisible();
});

test('what is missing is named with its reason, and how long it will take', async () => {
  await backdrop('route-map');
  await page.getByRole('button', { name: /^Publish edition \d+ to 2 screens$/ }).click();
  await expect(progress()).toContainText('None of the 2 screens that it changes has updated yet.');
  await expect(missing()).toContainText('slip-north');
  let doneBytes = 0;
  const line = missing().getByRole('listitem').filter({ hasText: 'slip-south' });
  await expect
    .poll(async () => {
      const download = { doneBytes: (doneBytes += 100_000), totalBytes: 900_000_000 };
      await beat(players[1], { download, errors: [{ at: Date.now(), message: 'The line is slow.' }] });
      return line.innerText();
    })
    .toMatch(/Downloading: [\d.]+ of 900 MB, about .* left/);
  await expect(line).toContainText('The line is slow.');
});

test('who is behind is asked to try again, and hears it at once', async () => {
  const { ProtocolClient } = await import('@/protocol/client');
  const client = new ProtocolClient(new URL(server('/')).origin, tokens[1] ?? '');
  const heard: string[] = [];
  const stop = new AbortController();
  void client.events(({ kind }) => heard.push(kind), stop.signal).catch(() => undefined);
  await expect.poll(() => heard).toEqual(['target']);
  await progress().getByRole('button', { name: 'Try again: Sillarvik Quay · slip-south' }).click();
  await expect(page.getByText('1 player asked to try again at once.')).toBeVisible();
  await expect.poll(() => heard).toEqual(['target', 'hurry']);
  await progress()
    .getByRole('button', { name: /^Try again on all \d+ that are online$/ })
    .click();
  await expect(page.getByText(/^\d+ players asked to try again at once\.$/)).toBeVisible();
  await expect.poll(() => heard).toEqual(['target', 'hurry', 'hurry']);
  stop.abort();
});

test('one screen after the other updates; the person who published gets a message at the end, even after a reload', async () => {
  await beat(players[0], { program: await programOf(SCREENS[0]) });
  await expect(progress()).toContainText(/Of the 2 screens that it changes, 1 was updated so far: the last after \d/);
  await expect(progress().getByRole('img', { name: /^Of the 2 screens/ })).toBeVisible();
  await page.reload();
  await expect(progress()).toContainText('Of the 2 screens that it changes, 1 was updated so far');
  await goTo(page, 'Screens');
  await beat(players[1], { program: await programOf(SCREENS[1]) });
  await expect(page.getByText(/^Edition \d+ is on all 2 screens that it changes\.$/)).toBeVisible();
  await page.getByTestId('docket').click();
  await expect(progress()).toContainText('All 2 screens that it changed were updated');
});

test('a screen that doesn’t update is reported after five minutes, and beside the edition from then on', async () => {
  await backdrop('weather-outlook');
  await page.getByRole('button', { name: /^Publish edition \d+ to 2 screens$/ }).click();
  await expect(progress()).toContainText('None of the 2 screens that it changes has updated yet.');
  await beat(players[0], { program: await programOf(SCREENS[0]) });
  await expect(progress()).toContainText('1 was updated so far');
  // As if it had gone out six minutes before.
  await page.evaluate(() => {
    const key = 'lanternpost:arriving';
    const kept = JSON.parse(sessionStorage.getItem(key) ?? '{}') as { since: number };
    sessionStorage.setItem(key, JSON.stringify({ ...kept, since: kept.since - 360_000 }));
  });
  await page.reload();
  await expect(page.getByRole('alert').filter({ hasText: 'isn’t everywhere after 5 minutes' })).toContainText(
    'slip-south has not been updated',
  );
  await backdrop('line-flag');
  await page.getByRole('button', { name: /^Publish edition \d+ to 2 screens$/ }).click();
  const editions = page.getByRole('complementary', { name: 'Editions' }).getByRole('listitem');
  await expect(editions.nth(1)).toContainText('2 screens changed, 1 was updated');
  await expect(editions.nth(2)).toContainText(/2 screens changed, all were updated within \d/);
});
