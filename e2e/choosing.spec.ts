import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { draft } from './support/plan';
import { goTo, pick, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** Whatever is named is found by its name: screens, tags, towns, places, acts. */
test.describe.configure({ mode: 'serial' });

let page: Page;
test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  await signIn(page);
});
test.afterAll(() => page.close());

const sheet = () => page.getByRole('dialog');
const tile = (id: string) => page.locator(`[data-screen="${id}"]`);
const panel = () => page.getByRole('complementary');

test('Now finds by name, and its counts are filters', async () => {
  const find = page.getByLabel('Show only screens that match');
  await find.fill('gangw');
  await expect(page.locator('[data-screen]')).toHaveCount(7);
  await find.fill('skerrow');
  await expect(page.locator('[data-screen]')).toHaveCount(4);
  await find.fill('');
  const states = page.getByRole('group', { name: 'States' });
  const behind = states.getByRole('button', { name: /behind/ });
  await behind.click();
  // Players catch up during this: there are as many tiles as the count says, all of them behind.
  const shown = () =>
    behind.evaluate((button) => {
      const counted = Number.parseInt(button.textContent, 10);
      const tiles = [...document.querySelectorAll('[data-screen]')];
      const right = tiles.filter((one) => one.matches('[data-state="behind"]'));
      return counted < 36 && counted === tiles.length && counted === right.length;
    });
  await expect.poll(shown).toBe(true);
  await behind.click();
  await expect(page.locator('[data-screen]')).toHaveCount(36);
});

test('several tiles are chosen by Shift, Ctrl, a drag and keys; the panel names them by their sites', async () => {
  const tiles = page.locator('[data-screen]');
  const chosen = page.locator('[data-screen][aria-pressed="true"]');
  await tiles.nth(0).click();
  await expect(panel()).toHaveAccessibleName('Brennøy Landing · Office door');
  await tiles.nth(3).click({ modifiers: ['Shift'] });
  await expect(chosen).toHaveCount(4);
  await expect(panel().getByRole('region', { name: 'Kaldavík Harbour' })).toBeVisible();
  await tiles.nth(1).click({ modifiers: ['ControlOrMeta'] });
  await expect(chosen).toHaveCount(3);
  await page.keyboard.press('Escape');
  await expect(chosen).toHaveCount(0);

  const [first, third] = [await tiles.nth(0).boundingBox(), await tiles.nth(2).boundingBox()];
  if (!first || !third) throw new Error('no tiles');
  await page.mouse.move(first.x - 8, first.y - 4);
  await page.mouse.down();
  await page.mouse.move(third.x + 20, third.y + 20, { steps: 5 });
  await page.mouse.up();
  await expect(chosen).toHaveCount(3);
  await page.keyboard.press('Escape');

  // By keys alone: one stop, arrows, Shift.
  await page.getByRole('group', { name: 'States' }).getByRole('button').last().focus();
  await page.keyboard.press('Tab');
  // Where the focus was, it comes in again.
  await expect(tiles.nth(1)).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expect(tiles.nth(0)).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(chosen).toHaveCount(2);
  await page.keyboard.press('ControlOrMeta+a');
  await expect(chosen).toHaveCount(36);
  await page.keyboard.press('Escape');
});

test('the chosen screen stays visible when the panel opens', async () => {
  const last = page.locator('[data-screen]').last();
  await last.scrollIntoViewIfNeeded();
  await last.click();
  await expect(panel()).toBeVisible();
  await expect(last).toBeInViewport({ ratio: 0.5 });
  await page.keyboard.press('Escape');
});

test('“where” finds names as you type, and shows no ids', async () => {
  await tile('skerrow-gangway').click();
  await page.locator('[data-screen="skerrow-hall"]').click({ modifiers: ['ControlOrMeta'] });
  await panel().getByRole('link', { name: 'Make a booking for them' }).click();
  const where = sheet().getByLabel('Where', { exact: true });
  await expect(where).toHaveValue(/^"Skerrow Pier · .+" or "Skerrow Pier · .+"$/);
  await where.fill('quay and not kaldav');
  await page.getByRole('option', { name: 'Kaldavík Harbour site, 4 screens' }).click();
  await expect(where).toHaveValue('quay and not "Kaldavík Harbour"');
  await sheet().getByRole('button', { name: 'show' }).click();
  await expect(sheet().getByRole('listitem').filter({ hasText: 'Kaldavík Harbour' })).toHaveCount(0);
  await sheet().getByLabel('Name').fill('Not in the west');
  await pick(sheet().getByLabel('What'), 'playlist:crew', 'Crew notices');
  await where.fill('"Skerow Pier"');
  await where.press('Enter');
  await expect(sheet().getByText('No site and no screen is called “Skerow Pier”.')).toBeVisible();
  await where.fill('"Skerrow Pier" and hall');
  await sheet().getByLabel('When', { exact: true }).fill('tomorrow 10-12');
  await sheet().getByRole('button', { name: 'Book it' }).click();
  await expect(sheet()).toHaveCount(0);
  expect((await draft()).bookings.find(({ name }) => name === 'Not in the west')?.where).toBe('site:skerrow and hall');
  await page.getByRole('button', { name: 'list', exact: true }).click();
  await expect(page.locator('[data-booking="not-in-the-west"]')).toContainText('"Skerrow Pier" and hall');
});

test('Enter means the first that is seen, also where the list stood there before one typed', async () => {
  await page.goto(server('/network'));
  const field = page.getByRole('combobox', { name: 'The network’s backdrop' });
  const listed = (id: string) => page.locator(`[data-choice="media:${id}"]`);
  await field.focus();
  // The newest goes first: of these two the one that is not meant.
  await expect(listed('map-tall')).toBeAttached();
  await expect(listed('route-map')).toBeAttached();
  const order = await page
    .locator('[data-choice^="media:"]')
    .evaluateAll((all) => all.map((one) => (one as HTMLElement).dataset.choice));
  expect(order.indexOf('media:map-tall')).toBeLessThan(order.indexOf('media:route-map'));
  await field.fill('Route map');
  await expect(page.locator('[data-choice]')).toHaveCount(2);
  await expect(page.locator('[data-choice]').first()).toHaveAttribute('data-choice', 'media:route-map');
  await field.press('Enter');
  await expect(field).toHaveValue('Route map');
});

test('tags are chips: a comma ends one, a space doesn’t, and known ones are offered', async () => {
  await goTo(page, 'Screens');
  await page.getByRole('region', { name: 'Sillarvik Quay' }).getByRole('button', { name: 'Add screen' }).click();
  await sheet().getByLabel('Name').fill('Pier end');
  const tags = sheet().getByRole('combobox', { name: 'Tags' });
  await tags.pressSequentially('North coast, hal');
  await expect(page.getByRole('option', { name: /^hall/ })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await tags.pressSequentially('wet');
  await page.keyboard.press('Enter');
  await expect(tags).toHaveValue('');
  await sheet().getByRole('button', { name: 'Remove tag wet' }).click();
  await expect(tags).toBeFocused();
  await sheet().getByRole('button', { name: 'Add screen' }).click();
  await expect(sheet().getByLabel('Code of the player for Pier end')).toBeVisible();
  const added = async () => (await draft()).screens.find(({ name }) => name === 'Pier end');
  expect((await added())?.tags).toEqual(['north-coast', 'hall']);
  // A known screen's tags are saved as they are left.
  await tags.press('Backspace');
  await tags.press('Tab');
  await expect.poll(async () => (await added())?.tags).toEqual(['north-coast']);
  await page.keyboard.press('Escape');
});

test('Enter in the palette means the first that is found, however long that takes', async () => {
  let lift = () => {};
  const held = new Promise<void>((go) => (lift = go));
  await page.route('**/api/media?*', async (route) => {
    await held;
    await route.continue();
  });
  await page.goto(server('/people'));
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog').getByRole('combobox')).toBeFocused();
  await page.keyboard.type('hold the rail');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText('Looking…');
  lift();
  await expect(page).toHaveURL(/\/library\/gangway-rail$/);
  await page.unroute('**/api/media?*');
});

test('a screen that was added is on Now at once, and included when you next publish', async () => {
  await page.goto(server('/'));
  await expect(tile('pier-end')).toHaveAccessibleName('Pier end: unpaired, included when you next publish');
  await tile('pier-end').click();
  await expect(panel()).toContainText('It will be included when you next publish');
  await expect(page.getByTestId('which-is-seen')).toContainText(
    'This is what the screens show. 3 changes aren’t included.',
  );
  await page.getByRole('button', { name: 'See it with my changes' }).click();
  await expect(page.getByTestId('which-is-seen')).toContainText('This includes my changes');
  await expect(panel()).toContainText('Sillarvik Quay');
  await page.getByRole('button', { name: 'See what the screens show' }).click();
  await page.keyboard.press('Escape');
});

test('lights-out, hours and a place in the words of people', async () => {
  await page.goto(server('/screens?screen=pier-end'));
  const lightsOut = sheet().getByLabel('Lights out');
  await lightsOut.fill('an hour after closing until opening');
  await lightsOut.press('Tab');
  const ofScreen = async () => (await draft()).screens.find(({ id }) => id === 'pier-end')?.lightsOut;
  await expect.poll(ofScreen).toEqual([{ windows: [['closes+01:00', 'opens']] }]);
  await expect(lightsOut).toHaveValue('daily 1 h after closing–opening');

  await page.goto(server('/screens?site=ms-ternen'));
  // The sheet takes the focus as it opens: who writes before would be interrupted.
  await expect(page.locator('[role="dialog"]:focus-within')).toBeAttached();
  await sheet().getByLabel('Opening hours').fill('weekdays 6 to 22, weekends 8-18');
  await sheet().getByLabel('Hours on single dates').fill('Christmas Day closed');
  const place = sheet().getByRole('combobox', { name: 'Place' });
  await place.fill('reykja');
  await page.getByRole('option', { name: /^Reykjavík, IS/ }).click();
  await expect(place).toHaveValue(/^64\.1\d*, -21\.\d+$/);
  await place.press('Tab');
  const site = async () => (await draft()).sites.find(({ id }) => id === 'ms-ternen');
  await expect.poll(async () => (await site())?.hours?.weekly?.SA).toEqual([['08:00', '18:00']]);
  await expect.poll(async () => Math.round((await site())?.location?.latitude ?? 0)).toBe(64);
  expect(Object.values((await site())?.hours?.dates ?? {})).toEqual([[]]);
});

test('Ctrl K reaches every place, thing and act by its name', async () => {
  const go = async (words: string, name: RegExp) => {
    await page.keyboard.press('ControlOrMeta+k');
    const field = page.getByRole('combobox', { name: 'Go to, or do' });
    await expect(field).toBeFocused();
    await page.keyboard.type(words);
    await expect(page.getByRole('listbox').getByRole('option').first()).toHaveAccessibleName(name);
    await page.keyboard.press('Enter');
    await expect(field).toHaveCount(0);
  };
  await page.goto(server('/'));
  await go('skerrow kiosk', /^screen Kiosk/);
  await expect(sheet()).toHaveAccessibleName('Skerrow Pier · Kiosk');
  await page.keyboard.press('Escape');
  await go('not in the west', /^booking Not in the west/);
  await expect(sheet()).toHaveAccessibleName('Not in the west');
  await page.keyboard.press('Escape');
  await go('house loop', /^playlist House loop/);
  await expect(page.getByRole('heading', { level: 1, name: 'House loop' })).toBeAttached();
  await go('lane arrows', /^file Lane arrows/);
  await expect(page.getByRole('heading', { level: 1, name: 'Lane arrows' })).toBeAttached();
  await go('add screen', /^act Add a screen/);
  await expect(sheet().getByRole('combobox', { name: 'Site' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('ControlOrMeta+k');
  await page.keyboard.type('net');
  await expect(page.getByRole('listbox').getByRole('option').first()).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('combobox', { name: 'Go to, or do' })).toHaveCount(0);
  await go('new book', /^act New booking/);
  await expect(sheet()).toHaveAccessibleName('A new booking');
  await page.keyboard.press('Escape');
  await go('network', /^place Network/);
  await expect(page.getByRole('heading', { level: 1, name: 'Network' })).toBeVisible();
});

test('the network has a place: name, usual duration, backdrop', async () => {
  const seconds = page.getByLabel('Usual duration in seconds');
  await seconds.fill('0:12');
  await seconds.press('Enter');
  await expect.poll(async () => (await draft()).network.defaultDurationMs).toBe(12_000);
  await expect(seconds).toHaveValue('12');
  await seconds.fill('twelve');
  await seconds.press('Tab');
  await expect(page.getByRole('alert').first()).toBeVisible();
  await seconds.press('Escape');
  await expect(seconds).toHaveValue('12');
});

test('the plan is downloaded as a file, and read back after a look at its changes', async () => {
  await page.goto(server('/network'));
  const downloading = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download the plan' }).click();
  const download = await downloading;
  expect(download.suggestedFilename()).toBe('Ternholm-Line-plan.json');
  const plan = JSON.parse(await readFile(await download.path(), 'utf8')) as { network: object };
  const give = (text: string) =>
    page
      .getByLabel('A plan file')
      .setInputFiles({ name: 'mine.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await give(JSON.stringify(plan));
  await expect(page.getByText('“mine.json” is the same as your plan. There’s nothing to change.')).toBeVisible();
  await give('{ no plan');
  await expect(page.getByRole('alert').first()).toContainText('JSON');
  await give(JSON.stringify({ ...plan, network: { ...plan.network, name: '' } }));
  await expect(page.getByRole('alert').first()).toContainText('/network/name');
  await give(JSON.stringify({ ...plan, network: { ...plan.network, name: 'Ternholm Lines' } }));
  await expect(page.getByTestId('plan-look')).toContainText('“mine.json” makes 1 change: the network changed.');
  await expect(page.getByRole('list', { name: 'What the file changes' })).toContainText(
    'name “Ternholm Lines”, was “Ternholm Line”',
  );
  expect((await draft()).network.name).toBe('Ternholm Line');
  await page.getByRole('button', { name: 'Make 1 change' }).click();
  await expect(page.getByText('1 change made from “mine.json”. Ctrl Z undoes it.')).toBeVisible();
  await expect.poll(async () => (await draft()).network.name).toBe('Ternholm Lines');
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(async () => (await draft()).network.name).toBe('Ternholm Line');
});

test('Now is now, whatever was looked at before', async () => {
  await page.goto(server('/'));
  await expect(page.getByRole('button', { name: 'Ida', exact: true })).toBeEnabled();
  const back = page.getByRole('button', { name: 'Back to now' });
  for (const way of ['press', 'keys']) {
    await page.getByRole('slider', { name: 'Moment' }).press('PageUp');
    await expect(back).toHaveAttribute('aria-pressed', 'false');
    await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Library' }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeAttached();
    await expect(back).toHaveAttribute('aria-pressed', 'false');
    if (way === 'keys') for (const key of ['g', 'n']) await page.keyboard.press(key);
    else await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Now' }).click();
    await expect(back).toHaveAttribute('aria-pressed', 'true');
  }
});

test('the first Tab leads past the bar, and help tells the keys of the place', async () => {
  await page.goto(server('/'));
  await expect(page.getByRole('button', { name: 'Ida', exact: true })).toBeEnabled();
  await page.keyboard.press('Tab');
  const skip = page.getByRole('link', { name: 'Skip to the content' });
  await expect(skip).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Tab');
  await expect(page.getByLabel('Show only screens that match')).toBeFocused();
  await page.getByRole('group', { name: 'States' }).getByRole('button').last().focus();
  await page.keyboard.press('?');
  await expect(sheet()).toContainText('Choose all tiles that are shown');
  await page.keyboard.press('Escape');
});

test('a playlist goes round as its screens see it, and its strip answers a press', async () => {
  await page.goto(server('/playlists/house'));
  // The page comes with the saved values, and walking through the fields saves nothing.
  const where = page.getByLabel('Screens of House flag');
  await expect(where).toHaveValue('is:landscape');
  const saved = (await draft()).playlists;
  await where.focus();
  await where.press('Tab');
  await expect(where).toHaveValue('is:landscape');
  const passes = page.getByRole('region', { name: 'Passes' });
  const kinds = passes.getByRole('radio');
  await expect(kinds.first()).toBeChecked();
  const before = await page.getByTestId('loop').innerText();
  await kinds.nth(1).check();
  await expect(page.getByTestId('loop')).not.toHaveText(before);
  await passes
    .getByRole('button', { name: /^Route map, / })
    .first()
    .click();
  const row = page.locator('[data-item]').filter({ hasText: 'Route map' }).first();
  await expect(row.getByRole('button').first()).toBeFocused();
  await page.getByRole('link', { name: 'Offers' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Offers' })).toBeAttached();
  expect((await draft()).playlists).toEqual(saved);
});

test('what is written is meant, whatever its accents, and though Enter comes before the list', async () => {
  await goTo(page, 'Plan');
  await page.keyboard.press('n');
  const what = sheet().getByLabel('What', { exact: true });
  await what.fill('cafe');
  await expect(page.locator('[data-choice]')).toHaveText([/^Café cards/]);
  await page.keyboard.press('Enter');
  await expect(what).toHaveValue('Café cards');

  // The library answers late: results of an earlier search must not be chosen.
  let lift = () => {};
  const held = new Promise<void>((go) => (lift = go));
  await page.route('**/api/media?*', async (route) => {
    await held;
    await route.continue();
  });
  await what.fill('safety film');
  await expect(page.getByText('Looking…')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(what).toHaveValue('safety film');
  lift();
  await expect(what).toHaveValue('Lifejackets');
  await page.unroute('**/api/media?*');
  const where = sheet().getByLabel('Where', { exact: true });
  await where.fill('saloon');
  await page.keyboard.press('Escape');
  await expect(sheet().getByText('No screen has the tag “saloon”.')).toBeVisible();
  await page.keyboard.press('Escape');
});
