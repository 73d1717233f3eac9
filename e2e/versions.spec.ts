import type { Page } from '@playwright/test';
import { film, sidewaysPhoto } from './support/files';
import { draft } from './support/plan';
import { goTo, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** What takes another's place, what is put away, and what is kept to go back to. */
test.describe.configure({ mode: 'serial' });

let page: Page;
test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  await signIn(page);
});
test.afterAll(() => page.close());

const file = async (id: string) => (await draft()).media.find((one) => one.id === id);
const versions = () => page.getByRole('region', { name: 'Versions' });

test('a file is replaced by a new version on its page, the docket tells it, and the old one is brought back', async () => {
  const before = await file('route-map');
  await page.goto(server('/library/route-map'));
  await versions()
    .getByTestId('new-version')
    .setInputFiles(await sidewaysPhoto());
  const earlier = versions().getByRole('list', { name: 'Earlier versions' });
  await expect(earlier).toContainText('1920 × 1080');
  await expect(earlier).toContainText('Ida Lunde');
  await expect.poll(async () => (await file('route-map'))?.height).toBe(1920);
  // What uses it follows, under the same name.
  expect(await file('route-map')).toMatchObject({ name: before?.name, width: 1080, tags: before?.tags });
  await expect(page.getByText('1080 × 1920').first()).toBeVisible();
  await page.goto(server('/publish'));
  await expect(page.getByTestId('change').filter({ hasText: 'Route map' })).toContainText(/file replaced/);
  await page.goBack();
  await earlier.getByRole('button', { name: 'Bring back' }).click();
  await expect.poll(() => file('route-map')).toEqual(before);
  await expect(earlier).toContainText('1080 × 1920');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await file('route-map'))?.height).toBe(1920);
  await page.keyboard.press('Control+z');
  await expect.poll(() => file('route-map')).toEqual(before);
});

test('a file that can’t be the new version says why, and is dismissed', async () => {
  await page.goto(server('/library/bell-buoy'));
  await versions().getByTestId('new-version').setInputFiles(film());
  await expect(versions().getByRole('alert')).toContainText('“Bell buoy” is a sound');
  await versions().getByRole('button', { name: 'Dismiss' }).click();
  await expect(versions().getByRole('alert')).toHaveCount(0);
  expect((await file('bell-buoy'))?.kind).toBe('sound');
});

test('an archived file is out of sight and out of all loops, and comes back', async () => {
  await page.goto(server('/library/crew-drill'));
  await page.getByRole('button', { name: 'Archive', exact: true }).click();
  await expect(page.getByText('This file is archived')).toBeVisible();
  await expect(page.getByText(/no longer shows in \d+ places?/)).toBeVisible();
  await goTo(page, 'Library');
  await page.getByLabel('Find media').fill('boat drill');
  await expect(page.getByText('No file has all of this')).toBeVisible();
  await page
    .getByRole('group', { name: 'Narrow down' })
    .getByRole('button', { name: /^Archived/ })
    .click();
  await expect(page.locator('[data-media="crew-drill"]')).toBeVisible();
  await page.getByRole('checkbox', { name: 'Choose Boat drill' }).click();
  await page.getByRole('button', { name: 'Restore from the archive' }).click();
  await expect.poll(async () => (await file('crew-drill'))?.archived).toBeUndefined();
});

test('an archived playlist is apart from the others, and is offered nowhere', async () => {
  await page.goto(server('/playlists/crew'));
  await page.getByRole('button', { name: 'Archive', exact: true }).click();
  await expect(page.getByText('This playlist is archived')).toBeVisible();
  await goTo(page, 'Playlists');
  await expect(page.getByRole('list', { name: 'Playlists', exact: true })).not.toContainText('Crew notices');
  await page.getByText('1 archived playlist').click();
  await expect(page.getByRole('list', { name: 'Archived playlists' })).toContainText('Crew notices');
  await page.goto(server('/network'));
  const backdrop = page.getByLabel('The network’s backdrop');
  await backdrop.fill('crew no');
  await expect(page.getByRole('option', { name: /Crew notices/ })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await page.goto(server('/playlists/crew'));
  await page.getByRole('button', { name: 'Restore from the archive' }).click();
  await expect.poll(async () => (await draft()).playlists.find(({ id }) => id === 'crew')?.archived).toBeUndefined();
});

test('how long things are kept is set by numbers, and shown beside the editions', async () => {
  await page.goto(server('/network'));
  const days = page.getByLabel('And all of the last: how many days');
  await days.fill('a year');
  await days.press('Enter');
  await expect(page.getByRole('region', { name: 'How long we keep things' }).getByRole('alert')).toHaveText(
    'Write a whole number.',
  );
  await days.fill('9000');
  await days.press('Enter');
  await expect(page.getByRole('region', { name: 'How long we keep things' }).getByRole('alert')).toHaveText(
    'At most 4000 days.',
  );
  await days.fill('90');
  await days.press('Enter');
  await expect(page.getByRole('region', { name: 'How long we keep things' }).getByRole('alert')).toHaveCount(0);
  await page.goto(server('/publish'));
  await expect(page.getByRole('complementary', { name: 'Editions' })).toContainText('all of the last 90 days');
});
