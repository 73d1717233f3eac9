import type { BrowserContext, Page } from '@playwright/test';
import { screenProgram } from '@/core/forecast';
import { forecastAt } from '@/core/playing';
import { film, sidewaysPhoto, truncatedFilm } from './support/files';
import { draft } from './support/plan';
import { goTo, pick, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** What a newcomer does, step by step: the tests go on from each other, in one window, with a real browser as the player. */
test.describe.configure({ mode: 'serial' });

let page: Page;
let player: Page;
let hardware: BrowserContext;
/** The booked window, as instants. */
let begins: number;
let ends: number;

test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  hardware = await browser.newContext();
  player = await hardware.newPage();
});

const shown = () => player.locator('#stage').getAttribute('data-media');
const docket = () => page.getByTestId('docket');

test('log in, and see the network as streets', async () => {
  await signIn(page);
  await expect(page.getByRole('region', { name: 'Sillarvik Quay' })).toBeVisible();
  const tiles = page.locator('[data-screen]');
  await expect(tiles).toHaveCount(36);
  // The simulated players report: most are lit or resting, and the pictures are what the forecast gives.
  await expect
    .poll(() => page.locator('[data-screen][data-state="lit"], [data-screen][data-state="resting"]').count(), {
      timeout: 120_000,
    })
    .toBeGreaterThan(30);
  await expect(page.getByText('Clock 4 min slow')).toBeVisible();
  await expect(page.getByTestId('standing')).toHaveText('1 screen behind');
});

test('add a screen, open a player, and pair it by its code', async () => {
  await goTo(page, 'Screens');
  const site = page.getByRole('region', { name: 'Sillarvik Quay' });
  await site.getByRole('button', { name: 'Add screen' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: 'Add screen' }).click();
  await expect(sheet.getByText('Write a name.')).toBeVisible();
  await sheet.getByLabel('Name').fill('Pier end');
  await sheet.getByLabel('Tags').fill('pier, outdoor');
  await sheet.getByRole('button', { name: 'Add screen' }).click();

  await player.goto(server('/player'));
  const code = player.locator('#code');
  await expect(code).toHaveText(/^[BCDFGHJKLMNPQRSTVWXZ]{4}-[BCDFGHJKLMNPQRSTVWXZ]{4}$/);
  const field = sheet.getByLabel('Code of the player for Pier end');
  await field.fill('BBBB-BBBB');
  await sheet.getByRole('button', { name: 'Pair', exact: true }).click();
  await expect(sheet.getByText('No player shows this code')).toBeVisible();
  // Typing is forgiving: small letters, no dash.
  await field.fill((await code.innerText()).toLowerCase().replace('-', ' '));
  await sheet.getByRole('button', { name: 'Pair', exact: true }).click();
  await expect(player.locator('body')).toHaveAttribute('data-pairing', '');
  await expect(player.locator('#name')).toHaveText('Pier end');
  await expect(sheet.getByText('Not in the newest edition yet')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(docket()).toContainText('1 change, 1 screen');
});

test('drop a picture and a film into the library; a broken one gets a sentence', async () => {
  await goTo(page, 'Library');
  const files = page.locator('[data-testid="files"]');
  await files.setInputFiles([await sidewaysPhoto(), film()]);
  const photo = page.locator('[data-media="pier-at-dawn"]');
  await expect(photo).toContainText('1080×1920', { timeout: 30_000 });
  await expect(page.locator('[data-media="buoy"]')).toContainText('0:04', { timeout: 30_000 });
  await expect(photo.locator('img')).toBeVisible();

  await files.setInputFiles(truncatedFilm());
  const tray = page.getByTestId('uploads');
  await expect(tray.getByRole('alert')).toHaveText(
    'This video is damaged or incomplete. Export it again, then upload it.',
  );
  await tray.getByRole('button', { name: 'Dismiss Cut short' }).click();
  await tray.getByRole('button', { name: 'Clear the list' }).click();
  await expect(tray).toBeHidden();
  await expect(page.locator('[data-media="cut-short"]')).toHaveCount(0);

  await files.setInputFiles(await sidewaysPhoto());
  await expect(page.getByText('The library has this file already, as “Pier at dawn”.')).toBeVisible();
});

test('make a playlist: drag in, order by keys, set seconds, see the loop', async () => {
  await goTo(page, 'Playlists');
  await page.getByLabel('Name of a new playlist').fill('Pier loop');
  await page.getByRole('button', { name: 'Make playlist' }).click();
  const items = page.getByTestId('items');
  await expect(items).toContainText('Drag files');

  const drag = async (media: string) => {
    const from = await page.locator(`[data-palette="${media}"]`).boundingBox();
    const to = await items.boundingBox();
    if (!from || !to) throw new Error('nothing to drag');
    await page.mouse.move(from.x + 20, from.y + 10);
    await page.mouse.down();
    await page.mouse.move(from.x - 60, from.y + 20, { steps: 4 });
    await page.mouse.move(to.x + 200, to.y + to.height - 12, { steps: 8 });
    await page.mouse.up();
  };
  await drag('buoy');
  await expect(items.getByRole('listitem')).toHaveCount(1);
  await page.getByRole('button', { name: 'Add Pier at dawn' }).click();
  await page.getByRole('button', { name: 'Add House flag' }).click();
  await expect(items.getByRole('listitem')).toHaveCount(3);

  // The grip by keys: space takes, an arrow moves, space puts down.
  await page.getByRole('button', { name: 'Move House flag', exact: true }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('House flag is at 3 of 3.')).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('House flag is at 2 of 3.')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(items.getByRole('listitem').nth(1)).toContainText('House flag');

  const seconds = page.getByLabel('Seconds of Pier at dawn');
  // An invalid value stays as it was typed, marked, with a visible message; a clock's way of writing is understood.
  await seconds.fill('0.05');
  await seconds.press('Enter');
  await expect(items.getByRole('alert')).toHaveText('Write a time from 0.1 seconds to 24 hours.');
  await expect(seconds).toHaveAttribute('aria-invalid', 'true');
  await page.getByLabel('Screens of House flag').focus();
  await expect(seconds).toHaveValue('0.05');
  await seconds.fill('1:30');
  await seconds.press('Enter');
  await expect(seconds).toHaveValue('90');
  await expect(items.getByRole('alert')).toHaveCount(0);
  const screens = page.getByLabel('Screens of House flag');
  await screens.fill('hall and (');
  await screens.press('Enter');
  await expect(items.getByRole('alert')).toBeVisible();
  await screens.press('Escape');
  await expect(screens).toHaveValue('');
  await screens.fill('nowhere');
  await expect(items.getByText('No screen matches this.')).toBeVisible();
  await screens.press('Escape');
  await seconds.fill('2');
  await seconds.press('Enter');
  const flag = page.getByLabel('Seconds of House flag');
  await flag.fill('3.5');
  await flag.press('Enter');
  await expect(page.getByTestId('loop')).toContainText('0:09.5');
});

/** HH:MM:SS on Oslo's clock. */
const osloTime = (at: number) =>
  new Intl.DateTimeFormat('en-GB', { timeZone: 'Europe/Oslo', hourCycle: 'h23', timeStyle: 'medium' }).format(at);

test('a backdrop for the screen; the docket counts; publish; the player plays it', async () => {
  await goTo(page, 'Screens');
  await page.locator('[data-screen-row="pier-end"]').click();
  const sheet = page.getByRole('dialog');
  await pick(sheet.getByLabel('Backdrop'), 'playlist:pier-loop', 'Pier loop');
  await sheet.getByLabel('Name').focus();
  await page.keyboard.press('Escape');
  // What is saved is in the docket before it is reviewed.
  await expect
    .poll(async () => (await draft()).screens.find((one) => one.id === 'pier-end')?.backdrop)
    .toEqual({ playlist: 'pier-loop' });
  await expect(docket()).toContainText('4 changes, 1 screen');

  await docket().click();
  await expect(page.getByTestId('change')).toHaveCount(4);
  await page.getByRole('button', { name: 'Publish edition 2 to 1 screen' }).click();
  await expect(page.getByText('Edition 2 is published.')).toBeVisible();
  await expect(page.getByTestId('progress')).toContainText('Edition 2');
  await expect.poll(shown).toMatch(/^(buoy|line-flag|pier-at-dawn)$/);
  await goTo(page, 'Now');
  await expect(page.locator('[data-screen="pier-end"]')).toHaveAttribute('data-state', 'lit');
});

test("a booking's window switches the player on the second, in step with the forecast", async () => {
  await goTo(page, 'Plan');
  await page.getByRole('button', { name: 'New booking' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Name').fill('Tide at the pier');
  await pick(sheet.getByLabel('What'), 'media:tide-ternholm', 'Tide at Ternholm');
  await sheet.getByLabel('Where').fill('pier and not staff');
  await expect(sheet.getByText('1 screen').first()).toBeVisible();
  begins = Math.ceil(Date.now() / 1000) * 1000 + 20_000;
  ends = begins + 8_000;
  await sheet.getByLabel('When').fill(`daily ${osloTime(begins)} to ${osloTime(ends)}`);
  await sheet.getByText('4', { exact: true }).click();
  await sheet.getByRole('button', { name: 'Book it' }).click();
  await expect(docket()).toContainText('1 change, 1 screen');

  // Watch the stage from inside: when it changed, by the clock of this machine.
  await player.evaluate(() => {
    const log: [number, string][] = [];
    Object.assign(window, { seen: log });
    const stage = document.getElementById('stage') as HTMLElement;
    new MutationObserver(() => log.push([Date.now(), stage.dataset.media ?? ''])).observe(stage, {
      attributes: true,
      attributeFilter: ['data-media'],
    });
  });
  await docket().click();
  await page.getByRole('button', { name: 'Publish edition 3 to 1 screen' }).click();
  await expect(page.getByText('Edition 3 is published.')).toBeVisible();
  await expect.poll(shown, { timeout: 40_000 }).toBe('tide-ternholm');
  await expect.poll(shown).not.toBe('tide-ternholm');
  const seen = await player.evaluate(() => (window as unknown as { seen: [number, string][] }).seen);
  const start = seen.findIndex(([, media]) => media === 'tide-ternholm');
  expect(Math.abs((seen[start]?.[0] ?? 0) - begins)).toBeLessThan(1000);
  expect(Math.abs((seen[start + 1]?.[0] ?? 0) - ends)).toBeLessThan(1000);
});

test('Now looks at any moment, and says why', async () => {
  await goTo(page, 'Now');
  const tile = page.locator('[data-screen="pier-end"]');
  await tile.click();
  await expect(page.getByTestId('why')).toContainText('The screen’s backdrop, because no booking has anything to show');
  const moment = page.getByTestId('moment');
  await page.keyboard.press('[');
  // The clock itself may read the same: the moment has left it once the button says so.
  await expect(page.getByRole('button', { name: 'Back to now' })).toHaveAttribute('aria-pressed', 'false');
  // Whole minutes are shown without seconds.
  const told = (at: number) => osloTime(at).replace(/:00$/, '');
  await expect(moment).toHaveText(told(ends));
  await page.keyboard.press('[');
  await expect(moment).toHaveText(told(begins));
  await expect(tile).toHaveAttribute('data-media', 'tide-ternholm');
  await expect(page.getByTestId('why')).toContainText('Tide at the pier, because it is booked with priority 4');
  // Past moments show the edition of that time, and states of screens are shown for now only.
  const by = page.getByTestId('by');
  await expect(by).toHaveText('from edition 3, which was published then');
  await expect(tile).not.toHaveAttribute('data-state');
  await page.keyboard.press('m');
  await page.getByLabel('Look at', { exact: true }).fill('yesterday 12:00');
  await page.keyboard.press('Enter');
  await expect(by).toHaveText('nothing was published yet');
  await expect(tile).toHaveAttribute('data-media', '');
  await page.keyboard.press('m');
  await page.getByLabel('Look at', { exact: true }).fill('tomorrow 12:00');
  await page.keyboard.press('Enter');
  await expect(by).toHaveText('as it is planned now');
  await page.keyboard.press('t');
  await expect(tile).toHaveAttribute('data-media', /buoy|line-flag|pier-at-dawn/);
  await expect(tile).toHaveAttribute('data-state', 'lit');
});

test('without a network the player plays on, and again after a reload', async () => {
  await hardware.setOffline(true);
  const first = await shown();
  await expect.poll(shown).not.toBe(first);
  await player.reload();
  await expect.poll(shown).toMatch(/^(buoy|line-flag|pier-at-dawn)$/);
  const again = await shown();
  await expect.poll(shown).not.toBe(again);
  await hardware.setOffline(false);
});

test('started again with a clock that is 7 min fast, the player goes on in step with the forecast', async () => {
  await player.addInitScript(() => {
    const real = Date.now;
    Date.now = () => real() + 7 * 60_000;
  });
  await player.reload();
  const plan = await draft();
  const due = () => forecastAt(screenProgram(plan, 'pier-end'), Date.now()).play?.media;
  // Three items in turn, each seen while it is due.
  for (let i = 0; i < 4; i++) {
    const before = await shown();
    await expect
      .poll(async () => {
        const now = await shown();
        return now !== before && now === due();
      })
      .toBe(true);
  }
});

test('unpaired, the player forgets the screen and shows a new code', async () => {
  await goTo(page, 'Screens');
  await page.locator('[data-screen-row="pier-end"]').click();
  await page.getByRole('dialog').getByRole('button', { name: 'Unpair' }).click();
  await expect(player.locator('#code')).toHaveText(/^[A-Z]{4}-[A-Z]{4}$/, { timeout: 30_000 });
  await expect(player.locator('#stage')).not.toHaveAttribute('data-media');
  await page.keyboard.press('Escape');
});

test('going back publishes an earlier edition again, and what was taken back can be undone', async () => {
  await docket().click();
  const list = page.getByRole('complementary', { name: 'Editions' });
  await list.getByRole('button', { name: 'Publish again: edition 1' }).click();
  // What it changes is shown first, and nothing has changed yet.
  const box = page.getByRole('region', { name: 'Publish edition 1 again' });
  await expect(box.getByRole('status')).toHaveText(/screens? looks? different from/);
  await expect(list.getByText('edition 1 again')).toHaveCount(0);
  await box.getByRole('button', { name: 'Publish again' }).click();
  await expect(page.getByText('Edition 4 is published.')).toBeVisible();
  await expect(list.getByText('edition 1 again')).toBeVisible();

  await goTo(page, 'Plan');
  await page.getByRole('button', { name: 'list', exact: true }).click();
  await page.locator('[data-booking="crew-board"]').click();
  await page.getByRole('dialog').getByRole('button', { name: 'Delete this booking' }).click();
  await expect(page.locator('[data-booking="crew-board"]')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-booking="crew-board"]')).toHaveCount(1);
});
