import type { Browser, Page } from '@playwright/test';
import { booked, draft } from './support/plan';
import { goTo, IDA, openSession, pick, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** What is written in a form is saved, or stays and is offered again: whatever becomes of the sheet, the page, the session, the line. */
const sheet = (page: Page) => page.getByRole('dialog');
const offer = (page: Page) => page.getByTestId('draft');

async function newBooking(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'New booking' }).click();
  await expect(sheet(page).getByLabel('Name')).toBeFocused();
}

test.describe('a booking that is half written', () => {
  test.describe.configure({ mode: 'serial' });
  let page: Page;
  test.beforeAll(async ({ browser }) => {
    page = await browser.newPage();
    await signIn(page, '/plan');
  });

  test('is offered again after Esc, word for word', async () => {
    await newBooking(page);
    await page.keyboard.type('Ice on the pier');
    await pick(sheet(page).getByLabel('What'), 'playlist:crew', 'Crew notices');
    await sheet(page).getByLabel('Where', { exact: true }).fill('pier and (');
    await sheet(page).getByLabel('When', { exact: true }).fill('weekdays 05:30-10:00 until the ice');
    await sheet(page).getByText('5', { exact: true }).click();
    await page.keyboard.press('Escape');
    await expect(sheet(page)).toHaveCount(0);

    await newBooking(page);
    await expect(sheet(page).getByLabel('Name')).toHaveValue('');
    await offer(page).getByRole('button', { name: 'Continue editing' }).click();
    await expect(sheet(page).getByLabel('Name')).toHaveValue('Ice on the pier');
    await expect(sheet(page).getByLabel('Name')).toBeFocused();
    await expect(sheet(page).getByLabel('What')).toHaveValue('Crew notices');
    await expect(sheet(page).getByLabel('Where', { exact: true })).toHaveValue('pier and (');
    await expect(sheet(page).getByLabel('When', { exact: true })).toHaveValue('weekdays 05:30-10:00 until the ice');
    await expect(sheet(page).getByRole('radio', { name: '5' })).toBeChecked();
    await expect(offer(page)).toHaveCount(0);
  });

  test('is there after a reload, after a lost session, and gone when it is booked', async () => {
    await page.reload();
    await page.context().clearCookies();
    await page.reload();
    await signIn(page, '/plan');
    await newBooking(page);
    await offer(page).getByRole('button', { name: 'Continue editing' }).click();
    await sheet(page).getByLabel('Where', { exact: true }).fill('quay');
    await sheet(page).getByLabel('When', { exact: true }).fill('weekdays 05:30-10:00');
    await sheet(page).getByRole('button', { name: 'Book it' }).click();
    await expect(sheet(page)).toHaveCount(0);
    expect((await draft()).bookings.find(({ name }) => name === 'Ice on the pier')).toMatchObject({
      where: 'quay',
      priority: 5,
      content: { playlist: 'crew' },
    });
    await newBooking(page);
    await expect(offer(page)).toHaveCount(0);
    await page.keyboard.press('Escape');
  });

  test('is discarded when you say so', async () => {
    await newBooking(page);
    await page.keyboard.type('Nothing much');
    await page.keyboard.press('Escape');
    await newBooking(page);
    await offer(page).getByRole('button', { name: 'Discard' }).click();
    await expect(sheet(page).getByLabel('Name')).toBeFocused();
    await page.keyboard.press('Escape');
    await newBooking(page);
    await expect(offer(page)).toHaveCount(0);
    await page.keyboard.press('Escape');
  });
});

test('a press counts where it began, though a sentence comes above it before the button is let go', async ({
  page,
}) => {
  await signIn(page, '/plan');
  await newBooking(page);
  const five = sheet(page).getByText('5', { exact: true });
  const before = await five.boundingBox();
  if (!before) throw new Error('not visible');
  await page.mouse.move(before.x + before.width / 2, before.y + before.height / 2);
  await page.mouse.down();
  await expect(sheet(page).getByText('Write a name.')).toBeVisible();
  // By now the pointer is over something else.
  expect((await five.boundingBox())?.y).toBeGreaterThan(before.y + before.height);
  await page.mouse.up();
  await expect(sheet(page).getByRole('radio', { name: '5' })).toBeChecked();
});

test('an invalid change of a booking is offered when it is opened again', async ({ page }) => {
  await signIn(page);
  await booked('tide-tables', {
    name: 'Tide tables',
    content: { playlist: 'crew' },
    where: 'quay',
    when: { windows: [['08:00', '09:00']] },
    priority: 2,
  });
  await goTo(page, 'Plan');
  await page.getByRole('button', { name: 'list', exact: true }).click();
  const open = () => page.locator('button[data-booking="tide-tables"]').click();
  await open();
  const where = sheet(page).getByLabel('Where', { exact: true });
  await where.fill('quay and (');
  // The first closes the list of suggestions, the second the sheet.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(sheet(page)).toHaveCount(0);
  await open();
  await expect(where).toHaveValue('quay');
  await offer(page).getByRole('button', { name: 'Continue editing' }).click();
  await expect(where).toHaveValue('quay and (');
  // The answer comes when the form is gone: the saved text is no longer offered.
  let lift = () => {};
  const held = new Promise<void>((go) => (lift = go));
  await page.route('**/plan**', async (route) => {
    if (route.request().method() !== 'POST') return route.fallback();
    const response = await route.fetch();
    await held;
    await route.fulfill({ response });
  });
  await where.fill('quay and not hall');
  await page.keyboard.press('Tab');
  await expect
    .poll(async () => (await draft()).bookings.find(({ id }) => id === 'tide-tables')?.where)
    .toBe('quay and not hall');
  await page.keyboard.press('Escape');
  await expect(sheet(page)).toHaveCount(0);
  const answered = page.waitForResponse((response) => response.request().method() === 'POST');
  lift();
  await answered;
  await expect
    .poll(() => page.evaluate(() => Object.keys(localStorage).filter((key) => key.endsWith('tide-tables'))))
    .toEqual([]);
  await open();
  await expect(where).toHaveValue('quay and not hall');
  await expect(offer(page)).toHaveCount(0);
});

test('choices that are made and not carried out are offered again: days to copy to, a country of holidays', async ({
  page,
}) => {
  await signIn(page, '/plan');
  const more = async (what: string) => {
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: what }).click();
  };
  const targets = sheet(page).getByRole('group', { name: 'On to' }).getByRole('checkbox');
  await more('Copy days to other days');
  await sheet(page).getByRole('radio', { name: 'A week, Monday to Sunday' }).check();
  await targets.nth(2).check();
  await sheet(page).getByRole('checkbox', { name: 'Replace what is booked there' }).check();
  await page.keyboard.press('Escape');
  await page.reload();
  await more('Copy days to other days');
  await expect(targets.nth(2)).not.toBeChecked();
  await offer(page).getByRole('button', { name: 'Continue editing' }).click();
  await expect(sheet(page).getByRole('radio', { name: 'A week, Monday to Sunday' })).toBeChecked();
  await expect(targets.nth(2)).toBeChecked();
  await expect(targets.nth(1)).not.toBeChecked();
  await expect(sheet(page).getByRole('checkbox', { name: 'Replace what is booked there' })).toBeChecked();
  await page.keyboard.press('Escape');

  await more('Calendars of dates');
  const holidays = sheet(page).getByRole('region', { name: 'Public holidays' });
  await holidays.getByLabel('Country').selectOption({ label: 'Germany' });
  await holidays.getByLabel('Region').selectOption({ label: 'Hansestadt Hamburg' });
  await page.keyboard.press('Escape');
  await more('Calendars of dates');
  await expect(holidays.getByLabel('Country')).toHaveValue('');
  await offer(page).getByRole('button', { name: 'Continue editing' }).click();
  await expect(holidays.getByLabel('Country')).toHaveValue('DE');
  await expect(holidays.getByLabel('Region')).toHaveValue('HH');
  await holidays.getByRole('button', { name: 'Add public holidays' }).click();
  await expect(
    page.getByText('“Public holidays, Hansestadt Hamburg” is added. Its dates stay up to date by themselves.'),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  await more('Calendars of dates');
  await expect(holidays.getByLabel('Country')).toHaveValue('');
  await expect(offer(page)).toHaveCount(0);
});

async function twoAtOnce(browser: Browser): Promise<[Page, Page]> {
  const pages = [await browser.newPage(), await browser.newPage()] as const;
  await Promise.all(pages.map((page) => signIn(page)));
  return [...pages];
}

test('where two write the same, neither leaving the field nor Enter chooses; the other is named', async ({
  browser,
}) => {
  const [one, other] = await twoAtOnce(browser);
  const open = async (page: Page) => {
    await goTo(page, 'Screens');
    await page.getByRole('region', { name: 'Sillarvik Quay' }).getByRole('button', { name: 'Staff room' }).click();
  };
  await Promise.all([open(one), open(other)]);
  const field = (page: Page) => sheet(page).getByLabel('Height', { exact: true });
  await field(one).fill('1070');
  await field(other).fill('1060');
  await field(other).press('Tab');
  const told = sheet(one).getByTestId('conflicts');
  await expect(told).toContainText('Ida Lunde');
  await expect(told).toContainText('theirs is 1060');
  const height = async () => (await draft()).screens.find(({ name }) => name === 'Staff room')?.height;
  await expect.poll(height).toBe(1060);
  await field(one).press('Enter');
  await field(one).press('Tab');
  // Something that comes later is there: what would have been saved by leaving would be too.
  await sheet(other).getByLabel('Name').fill('Crew room');
  await sheet(other).getByLabel('Name').press('Tab');
  await expect(sheet(one).getByLabel('Name')).toHaveValue('Crew room');
  await expect(field(one)).toHaveValue('1070');
  expect((await draft()).screens.find(({ name }) => name === 'Crew room')?.height).toBe(1060);
  await told.getByRole('button', { name: 'Keep mine' }).click();
  await expect(field(other)).toHaveValue('1070');
  await expect(told).toHaveCount(0);
  await Promise.all([one.close(), other.close()]);
});

test('a playlist name that two people edit: the later one chooses', async ({ browser }) => {
  const [one, other] = await twoAtOnce(browser);
  await Promise.all([one, other].map((page) => page.goto(server('/playlists/crew'))));
  const name = (page: Page) => page.getByRole('textbox', { name: 'Name', exact: true });
  await name(one).fill('Crew board');
  await name(other).fill('Crew news');
  await name(other).press('Enter');
  await expect(one.getByText('Ida Lunde changed it to “Crew news” while you were editing.')).toBeVisible();
  await name(one).press('Enter');
  await name(one).press('Tab');
  await one.getByRole('button', { name: 'Keep mine' }).click();
  expect((await draft()).playlists.find(({ id }) => id === 'crew')?.name).toBe('Crew news');
  await name(one).press('Enter');
  await expect(name(other)).toHaveValue('Crew board');
  await Promise.all([one.close(), other.close()]);
});

test.describe('on a slow line', () => {
  test('who logs in before the script has come is let in, and told what is wrong', async ({ browser }) => {
    const context = await browser.newContext({ javaScriptEnabled: false });
    const page = await context.newPage();
    await page.goto(server('/sign-in'));
    await page.getByLabel('E-mail').fill(IDA.email);
    await page.getByLabel('Password').fill('not the lamps');
    await page.getByLabel('Password').press('Enter');
    await expect(page.getByText('E-mail and password don’t match. Check both and try again.')).toBeVisible();
    await expect(page.getByLabel('E-mail')).toHaveValue(IDA.email);
    await expect(page.getByLabel('Password')).toHaveValue('');
    await page.getByLabel('Password').fill(IDA.password);
    await page.getByLabel('Password').press('Enter');
    await expect(page.getByRole('region', { name: 'Sillarvik Quay' })).toBeVisible();
    await context.close();
  });

  // Each place with a button beside the field: it can be pressed as soon as the script runs there.
  const fields: [path: string, label: string, beside: string][] = [
    ['/playlists', 'Name of a new playlist', 'Make playlist'],
    ['/library', 'Find media', 'Choose files'],
    ['/screens', 'Find screens', 'Add site'],
    ['/', 'Show only screens that match', 'Ida'],
    ['/plan', 'Find bookings', 'New booking'],
    ['/people', 'New person’s name', 'Create invitation link'],
    ['/playlists/crew', 'Collect all files that match', 'Collect'],
  ];
  const heldScripts = async (page: Page) => {
    let lift = () => {};
    const held = new Promise<void>((go) => (lift = go));
    await page.route('**/_next/static/**/*.js', async (route) => {
      await held;
      await route.continue();
    });
    return () => lift();
  };
  test('what is pressed before the script has come is done when it has', async ({ page }) => {
    await openSession(page);
    const lift = await heldScripts(page);
    await page.goto(server('/'), { waitUntil: 'commit' });
    await page.locator('[data-screen]').nth(1).click();
    await page
      .locator('[data-screen]')
      .nth(3)
      .click({ modifiers: ['Shift'] });
    await page.keyboard.press('Control+k');
    lift();
    await expect(page.getByRole('dialog').getByRole('combobox')).toBeFocused();
    await page.keyboard.press('Escape');
    await expect(page.locator('[data-screen][aria-pressed="true"]')).toHaveCount(3);
  });

  test('what is chosen and ticked before the script has come is', async ({ page }) => {
    await openSession(page);
    const lift = await heldScripts(page);
    await page.goto(server('/playlists/crew'), { waitUntil: 'commit' });
    await page.getByLabel('Order').selectOption('shuffled');
    const boxes = page.getByRole('checkbox', { name: /^Choose / });
    await boxes.nth(0).check();
    await boxes.nth(1).check();
    const looking = page.getByLabel('Looking at');
    await looking.selectOption('draft');
    lift();
    await expect(page.getByText('2 items chosen')).toBeVisible();
    await expect.poll(async () => (await draft()).playlists.find(({ id }) => id === 'crew')?.order).toBe('shuffled');
    await expect(looking).toHaveValue('draft');
    await expect(boxes.nth(1)).toBeChecked();
  });

  test('a page that was scrolled before its script came stays where it is', async ({ page }) => {
    await openSession(page);
    const lift = await heldScripts(page);
    await page.goto(server('/'), { waitUntil: 'commit' });
    // Streets come one after the other: the last one is known when the page is here whole.
    await page.waitForFunction(() => document.readyState !== 'loading');
    const last = await page.locator('[data-screen]').last().getAttribute('data-screen');
    const tile = page.locator(`[data-screen="${last}"]`);
    await tile.hover();
    const street = page.getByTestId('streets');
    const far = await street.evaluate(({ scrollTop }) => scrollTop);
    expect(far).toBeGreaterThan(200);
    lift();
    await page.waitForFunction(() => !('lanternpostEarly' in window));
    expect(await street.evaluate(({ scrollTop }) => scrollTop)).toBe(far);
    await tile.click();
    await expect(tile).toHaveAttribute('aria-pressed', 'true');
    await expect(page.locator('[data-screen][aria-pressed="true"]')).toHaveCount(1);
  });

  for (const [path, label, beside] of fields)
    test(`what is written at ${path} before the script has come stays`, async ({ page }) => {
      await openSession(page);
      const lift = await heldScripts(page);
      await page.goto(server(path), { waitUntil: 'commit' });
      const field = page.getByLabel(label).first();
      await field.fill('quay');
      lift();
      await expect(page.getByRole('button', { name: beside, exact: true })).toBeEnabled();
      await expect(field).toHaveValue('quay');
      await page.keyboard.press('Home');
      await page.keyboard.type('not ');
      await expect(field).toHaveValue('not quay');
    });
});
