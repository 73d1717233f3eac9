import type { Page } from '@playwright/test';
import { HOUR } from '@/core/instant';
import { booked, newest, planned, ternholm } from './support/plan';
import { atThePier, pierBackdrop, shownAt } from './support/pier';
import { workerPid } from './support/processes';
import { server, signIn } from './support/session';
import { expect, test } from './support/test';

/** Editions that are planned, from the docket to a real player: seen before, moved, called off, early, on the instant. */
let page: Page;
let player: Page;
atThePier((pier) => ({ page, player } = pier));
test.beforeAll(() => pierBackdrop('weather-outlook'));

const stage = () => player.locator('#stage');
const list = () => page.getByRole('region', { name: 'Planned' });

test('an edition is planned in words, shows on no screen before, and a wrong time gets a message', async () => {
  await page.goto(server('/publish'));
  const when = page.getByLabel('When');
  await when.fill('whenever');
  await expect(page.getByText('“whenever” isn’t a time')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Publish edition/ })).toBeDisabled();
  await when.fill('tomorrow');
  await expect(page.getByText('Add a time')).toBeVisible();
  await when.fill('tomorrow 06:00');
  await page.getByLabel('Note').fill('For the fair');
  await page.getByRole('button', { name: /^Plan it for \w{3} \d+ \w{3}, 06:00 to 1 screen$/ }).click();
  await expect(page.getByText(/^Planned. It goes out .*, 06:00\.$/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Nothing to publish' })).toBeVisible();
  await expect(list()).toContainText('For the fair');
  // The player says so when it has all of it.
  await expect(list()).toContainText('1 screen changes; it has downloaded it already.');
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
});

test('it can be viewed as it will be, and the rail marks it', async () => {
  await list().getByRole('button', { name: 'View on Now' }).click();
  await expect(page.getByTestId('by')).toHaveText(/^from the edition planned for .*, 06:00$/);
  const tile = page.locator('[data-screen="pier-end"]');
  await expect(tile).toHaveAccessibleName('Pier end: Sea weather');
  await expect(page.getByRole('slider', { name: 'Moment' }).getByText('planned')).toBeVisible();
  const looking = page.getByLabel('Looking at');
  await expect(looking.locator('option:checked')).toHaveText(/^planned, .*, 06:00$/);
  await looking.selectOption({ label: 'on the screens' });
  await expect(page.getByRole('button', { name: 'Back to now' })).toHaveAttribute('aria-pressed', 'true');
  await expect(tile).toHaveAccessibleName(/flag/i);
});

test('another person sees and moves it; later changes come on top of it', async ({ browser }) => {
  const other = await browser.newPage();
  await signIn(other, '/publish', { email: 'otto@ternholm.example', password: 'lamps-at-dawn' });
  const theirs = other.getByRole('region', { name: 'Planned' });
  await expect(theirs).toContainText('planned by Ida Lunde');
  await theirs.getByRole('button', { name: 'Move…' }).click();
  const form = theirs.getByRole('form');
  await expect(form.getByLabel('To')).toBeFocused();
  await form.getByLabel('To').fill('tomorrow 07:15');
  await form.getByLabel('To').press('Enter');
  await expect(theirs).toContainText('07:15');
  await page.goto(server('/publish'));
  await expect(list()).toContainText('07:15');
  await pierBackdrop('route-map');
  await expect(
    page.getByRole('heading', { name: /^1 change on top of the edition planned for .*, 07:15$/ }),
  ).toBeVisible();
  await other.close();
});

test('published now, a change goes ahead of what is planned', async () => {
  await page.getByRole('button', { name: /^Publish edition \d+ to 1 screen$/ }).click();
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  // How far it came, by the player's own word.
  await expect(page.getByTestId('progress')).toContainText(/The screen that it changed was updated after \d/);
  await expect(page.getByText(/^Edition \d+ is on the screen that it changes\.$/)).toBeVisible();
  await expect(list()).toContainText('It changes no screens.');
});

test('called off, it waits again; published early, it is out at once', async () => {
  await list().getByRole('button', { name: 'Cancel this edition' }).click();
  await expect(page.getByText('Cancelled. Its changes are unpublished again.')).toBeVisible();
  await expect(list()).toHaveCount(0);
  expect(await planned()).toEqual([]);
  await pierBackdrop('weather-outlook');
  await page.getByLabel('When').fill('in 3 hours');
  await page.getByRole('button', { name: /^Plan it for/ }).click();
  await list().getByRole('button', { name: 'Publish now…' }).click();
  const box = list().getByRole('region', { name: /^Publish now what is planned for/ });
  await expect(box.getByTestId('alike')).toContainText('Pier end');
  await box.getByRole('button', { name: 'Publish now' }).click();
  await expect(page.getByText(/^Edition \d+ is published, before its time\.$/)).toBeVisible();
  await expect(stage()).toHaveAttribute('data-media', 'weather-outlook');
  const editions = page.getByRole('complementary', { name: 'Editions' });
  await expect(editions).toContainText('planned for later');
  await expect(editions.getByRole('listitem').nth(1)).toContainText(/1 screen changed, all were updated within \d/);
  await expect(list()).toHaveCount(0);
});

test('it begins on the instant on a player that has no line by then', async () => {
  await pierBackdrop('line-flag');
  await page.getByLabel('When').fill('in 30 seconds');
  await page.getByRole('button', { name: /^Plan it for/ }).click();
  await expect(list()).toContainText('it has downloaded it already');
  const at = Date.parse((await planned())[0]?.at ?? '');
  await player.context().setOffline(true);
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
  await player.context().setOffline(false);
  expect(Math.abs((await shownAt(player, 'line-flag')) - at)).toBeLessThan(500);
  await expect(list()).toHaveCount(0);
  expect(await newest()).toMatchObject({ publishedAt: new Date(at).toISOString(), touched: 1 });
});

test('the worker is killed before the instant: screens switch on it, and it gets its number once', async () => {
  const before = (await newest())?.number ?? 0;
  const { planEdition } = await import('@/services/editions');
  const { lastChange } = await import('@/services/plan');
  const actor = await ternholm();
  await pierBackdrop('route-map');
  const { at } = await planEdition(actor, await lastChange(actor.networkId), Date.now() + 20_000);
  await expect.poll(async () => (await planned())[0]?.ready).toBe(1);
  process.kill(workerPid(), 'SIGKILL');
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  expect(Math.abs((await shownAt(player, 'route-map')) - Date.parse(at))).toBeLessThan(500);
  // It went out by itself: whoever is there gets a message.
  await expect(page.getByText(/^Edition \d+ is out, as planned for [\d:]+\.$/)).toBeVisible();
  await expect.poll(async () => (await newest())?.number).toBe(before + 1);
  expect(await planned()).toEqual([]);
  const { publishDue } = await import('@/services/editions');
  expect(await publishDue(new Date(Date.now() + HOUR))).toBe(0);
});

test('what comes next on a screen is what the planned edition shows, from its instant on', async () => {
  await booked('dawn', {
    ...{ name: 'Dawn on the pier', content: { media: 'route-map' }, where: 'pier-end', priority: 5 },
    when: { windows: [['00:00', '24:00']] },
  });
  await page.goto(server('/publish'));
  await page.getByLabel('When').fill('in 20 hours');
  await page.getByRole('button', { name: /^Plan it for/ }).click();
  await expect(list().getByRole('listitem')).toHaveCount(1);
  await page.goto(server('/'));
  const tile = page.locator('[data-screen="pier-end"]');
  await expect(tile).toContainText('Dawn on the pier');
  await tile.click();
  const aside = page.getByRole('complementary', { name: /Pier end/ });
  await expect(aside.getByRole('listitem').filter({ hasText: 'as planned' }).last()).toContainText('Dawn on the pier');
});
