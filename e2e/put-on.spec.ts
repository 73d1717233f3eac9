import type { Page } from '@playwright/test';
import { draft, key } from './support/plan';
import { atThePier, pierBackdrop } from './support/pier';
import { press, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** What is put on at once, on a real player: from a tile, until a time, ended by hand, and by itself on a player that is offline. */
let page: Page;
let player: Page;
atThePier((pier) => ({ page, player } = pier));
// Another person's unfinished work, which stays unpublished.
test.beforeAll(() => pierBackdrop('weather-outlook'));

const stage = () => player.locator('#stage');
const on = () => page.getByRole('list', { name: 'Put on now' }).first();

test('in four acts from Now it is on the glass, and nothing else with it', async () => {
  await page.goto(server('/'));
  await page.locator('[data-screen="pier-end"]').click();
  await page.getByRole('complementary').getByRole('button', { name: 'Put on now' }).click();
  const form = page.getByRole('form', { name: 'Put on now' });
  await expect(form.getByRole('combobox', { name: 'What' })).toBeFocused();
  await press(form.getByRole('combobox', { name: 'What' }), 'media:route-map', 'Route map');
  await form.getByRole('button', { name: 'Put on 1 screen' }).click();
  await expect(page.getByText(/^Route map is on 1 screen until (\w{3} \d+ \w{3} )?\d\d:\d\d/)).toBeVisible();
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  await expect(on()).toContainText('Route map, put on');
  await expect(page.getByTestId('why')).toContainText('Route map, put on');
  // The change that waits is still one, and on no screen.
  await expect(page.getByTestId('docket')).toContainText('1');
  expect((await draft()).bookings.some(({ name }) => name === 'Route map, put on')).toBe(true);
});

test('it is seen by others and after a reload, and ended beside it', async ({ browser }) => {
  const other = await browser.newPage();
  await signIn(other, '/', { email: 'otto@ternholm.example', password: 'lamps-at-dawn' });
  const theirs = other.getByRole('list', { name: 'Put on now' });
  await expect(theirs).toContainText('Route map, put on1 screen, until');
  await page.reload();
  await expect(on()).toContainText('1 screen');
  await theirs.getByRole('button', { name: 'End Route map, put on now' }).click();
  await expect(other.getByText('Route map, put on has ended.')).toBeVisible();
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
  await expect(on()).toHaveCount(0);
  await other.close();
});

test('a wrong time, a time too long, and nothing chosen get a message, and nothing is put on', async () => {
  await page.goto(server('/'));
  // Nothing chosen is not everything.
  await page.getByRole('button', { name: 'Put on now…' }).click();
  await expect(page.getByText(/^Choose screens first/)).toBeVisible();
  await expect(page.getByLabel('Show only screens that match')).toBeFocused();
  await page.getByLabel('Show only screens that match').fill('pier-end');
  await page.getByRole('button', { name: 'Put on now…' }).click();
  const form = page.getByRole('form', { name: 'Put on now' });
  await form.getByLabel('Until').fill('whenever');
  await expect(form.getByText('“whenever” isn’t an end time')).toBeVisible();
  await expect(form.getByRole('button', { name: 'Put on 1 screen' })).toBeDisabled();
  await form.getByLabel('Until').fill('2 days');
  await expect(form.getByRole('button', { name: 'Put on 1 screen' })).toBeDisabled();
  await form.getByLabel('Until').fill('20 minutes');
  await form.getByRole('button', { name: 'Put on 1 screen' }).click();
  await expect(form.getByRole('alert')).toHaveText('Choose a file or a playlist first.');
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
});

test('it ends by itself on a player that is offline by then', async () => {
  const form = page.getByRole('form', { name: 'Put on now' });
  await form.getByLabel('Until').fill('20 seconds');
  await press(form.getByRole('combobox', { name: 'What' }), 'media:route-map', 'Route map');
  await form.getByLabel('Until').press('Enter');
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  await player.context().setOffline(true);
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
  await expect(on()).toHaveCount(0);
  await player.context().setOffline(false);
});

test('a time is that of the screens’ clock, and each clock says whose it is', async () => {
  const put = async (screens: string) => {
    await page.goto(server('/'));
    await page.getByLabel('Show only screens that match').fill(screens);
    await page.getByRole('button', { name: 'Put on now…' }).click();
    await page.getByLabel('Until').fill('23:55');
  };
  const form = page.getByRole('form', { name: 'Put on now' });
  await put('screen:lumisaari-hall');
  await expect(
    form.getByText(/^On until .*22:55 your time, .*23:55 in Helsinki\. Then the schedule continues\.$/),
  ).toBeVisible();
  await expect(form.getByLabel('Whose clock')).toHaveCount(0);
  // Of several clocks yours is used, until you choose another.
  await put('screen:lumisaari-hall or screen:ternholm-hall');
  await expect(form.getByLabel('Whose clock')).toHaveValue('Europe/Oslo');
  await expect(form.getByText(/^On until .*23:55 your time, .*00:55 in Helsinki\./)).toBeVisible();
  await form.getByLabel('Whose clock').selectOption('Helsinki');
  await expect(form.getByText(/^On until .*22:55 your time, .*23:55 in Helsinki\./)).toBeVisible();
});

test('commands: which screen it is shows on the glass, it is blanked and shown again, and each has its outcome', async ({
  request,
}) => {
  const said = page.getByRole('region', { name: 'Commands' }).getByTestId('command').first();
  const choose = async (name: RegExp) => {
    await page.getByRole('button', { name: 'Commands', exact: true }).click();
    await page.getByRole('menuitem', { name }).click();
  };
  await page.goto(server('/'));
  await page.locator('[data-screen="pier-end"]').click();
  await page.getByRole('button', { name: 'Identify' }).click();
  await expect(player.locator('#identify')).toContainText('Pier end');
  await expect(player.locator('#identify')).toContainText('Sillarvik');
  await expect(said).toContainText('Identify · done');
  await choose(/^Blank$/);
  await expect(player.locator('#blank')).toBeVisible();
  await expect(page.getByRole('complementary').getByText('Blanked by a person.')).toBeVisible();
  // What is behind it counts as not seen.
  const { rows } = await import('@/database');
  const [told] = await rows<{ report: { playing: unknown } }>(
    "SELECT p.report FROM players p JOIN plan_objects o ON o.id = p.screen_id WHERE o.slug = 'pier-end'",
  );
  expect(told?.report.playing).toBeNull();
  // What a page can’t do isn’t offered.
  await page.getByRole('button', { name: 'Commands', exact: true }).click();
  await expect(page.getByRole('menuitem', { name: 'Restart' })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await player.reload();
  await expect(player.locator('#blank')).toBeVisible();
  // The palette reaches it by its name, and a program by a key of this right alone.
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Go to, or do' }).fill('show again pier end');
  await page.getByRole('option', { name: 'Show again Pier end' }).click();
  await expect(player.locator('#blank')).toBeHidden();
  const send = async (right: string) =>
    request.post(server('/api/commands'), {
      data: { kind: 'turn', degrees: 180, where: 'pier-end' },
      headers: await key([right]),
    });
  expect((await send('takeovers')).status()).toBe(403);
  expect((await send('commands')).status()).toBe(200);
  await expect(player.locator('body')).toHaveAttribute('data-degrees', '180');
  await expect(said).toContainText('Turn 180° · done');
});
