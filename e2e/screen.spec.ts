import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { atThePier } from './support/pier';
import { Operator } from './support/operator';
import { draft, ternholm } from './support/plan';
import { server } from './support/session';
import { expect, test } from './support/test';

/** One screen from afar: what it really shows, why, how it was, and what people noted. */
let page: Page;
let player: Page;
atThePier((pier) => ({ page, player } = pier));

const picture = () => page.getByRole('region', { name: 'Picture of the screen' });
const take = () => picture().getByRole('button', { name: 'Take a picture' }).click();

test('a picture of a screen is taken and compared with what is planned; a wrong one is found and told', async () => {
  await page.goto(server('/screens/pier-end'));
  await expect(page.getByRole('heading', { level: 1, name: 'Pier end' })).toBeVisible();
  await take();
  await expect(picture()).toContainText('Shows what is planned');
  await expect(picture().getByRole('img', { name: 'What was planned' })).toBeVisible();
  // Another program's window covers it, as far as the glass is concerned: until the next turn, every ten seconds.
  const cover = () =>
    player.evaluate(async () => {
      const layer = document.querySelector<HTMLImageElement>('#stage .layer:not([hidden])');
      const canvas = Object.assign(document.createElement('canvas'), { width: 64, height: 36 });
      canvas.getContext('2d')?.fillRect(0, 0, 64, 36);
      const black = await new Promise<Blob | null>((done) => canvas.toBlob(done));
      if (!layer || !black) throw new Error('nothing is shown');
      layer.src = URL.createObjectURL(black);
      await layer.decode();
    });
  await expect(async () => {
    await cover();
    await take();
    await expect(picture()).toContainText('Black, but something is planned', { timeout: 8000 });
  }).toPass();
  await expect(page.getByRole('region', { name: 'Troubles' })).toContainText(
    'The last picture of this screen is black.',
  );
});

test('its page says why, how its day and its last hours were, and keeps notes; a private screen has no pictures', async () => {
  await expect(page.getByTestId('why')).toContainText('The screen’s backdrop');
  await expect(page.getByRole('region', { name: 'The last 24 hours' }).getByRole('img').first()).toBeVisible();
  await expect(page.getByRole('region', { name: 'Tags' })).toContainText('pier-end: brings no booking');
  await page.getByRole('textbox', { name: 'Notes' }).fill('Behind the ticket machine. The key is with Otto.');
  await page.getByRole('heading', { name: 'Notes' }).click();
  const screen = async () => (await draft()).screens.find(({ id }) => id === 'pier-end');
  await expect.poll(async () => (await screen())?.notes).toBe('Behind the ticket machine. The key is with Otto.');
  const place = page.getByRole('region', { name: 'Its place' });
  await page
    .getByTestId('place-photo')
    .setInputFiles({ name: 'a.txt', mimeType: 'text/plain', buffer: Buffer.from('no photo') });
  await expect(place.getByRole('alert')).toHaveText('This isn’t a picture. Send JPEG, PNG or WebP.');
  await page.getByTestId('place-photo').setInputFiles('docs/screenshots/player.png');
  const photo = place.getByRole('img', { name: 'Where Pier end hangs' });
  await expect.poll(() => photo.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(1280);
  await place.getByRole('button', { name: 'Delete…' }).click();
  await place.getByRole('button', { name: 'Delete the photo' }).click();
  await expect(place).toContainText('No photo of it yet.');
  await page.getByRole('button', { name: 'Settings' }).click();
  // Lights-out is painted by keys: two half hours, beginning where the focus is.
  await page.getByRole('button', { name: 'Paint the week' }).click();
  await page.getByRole('gridcell', { name: 'Mon 00:00, on' }).focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByLabel('Lights out', { exact: true })).toHaveValue(/^Mon 00:00–01:00, from /);
  const pictures = page.getByLabel('Pictures of it');
  await pictures.focus();
  await pictures.selectOption('Never: this screen is private');
  await page.keyboard.press('Tab');
  await expect.poll(async () => (await screen())?.private).toBe(true);
  expect((await screen())?.lightsOut).toMatchObject([
    { repeat: 'FREQ=WEEKLY;BYDAY=MO', windows: [['00:00', '01:00']] },
  ]);
  await page.keyboard.press('Escape');
  await expect(page.getByText('This screen is private. No pictures are taken of it.')).toBeVisible();
  const list = await page.request.get(server('/api/glimpses?of=pier-end'));
  expect(await list.json()).toEqual([]);
});

test('pictures of many screens stand side by side, are kept fresh, and a wrong one comes first', async () => {
  await page.goto(server('/screens/pictures'));
  await page.getByLabel('Find screens').fill('kiosk');
  const pictures = page.getByTestId('picture');
  // One of the sample network's displays is switched to another input.
  await expect(pictures.first()).toContainText('Skerrow Pier');
  await expect(pictures.first()).toContainText('Doesn’t show what is planned');
  await expect(pictures.nth(1)).toContainText('Shows what is planned');
  const time = pictures.nth(1).getByRole('time');
  const first = await time.textContent();
  await expect(time).not.toHaveText(first ?? '');
  // It is switched back from here.
  await page.goto(server('/screens/skerrow-kiosk'));
  await expect(page.getByRole('region', { name: 'Its player' })).toContainText('InputHDMI 1');
  await page.getByRole('button', { name: 'Commands', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Switch input…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Switch input: Kiosk' });
  await expect(dialog.getByLabel('Input').getByRole('option')).toHaveText(['The player', 'Service laptop']);
  await dialog.getByRole('button', { name: 'Switch input' }).click();
  await expect(page.getByTestId('command').first()).toContainText('Switch input to the player · done');
  await take();
  await expect(picture()).toContainText('Shows what is planned');
});

test('several screens are changed at once, in five acts, with a word of what it means, and undone at once', async () => {
  const lightsOut = async () =>
    (await draft()).screens.filter(({ tags }) => tags?.includes('hall')).map((one) => one.lightsOut);
  const before = await lightsOut();
  // A change that is not published yet: what the page looks at is the published plan.
  const { edit } = await import('@/services/plan');
  const tagsOf = async () => (await draft()).screens.find(({ id }) => id === 'ternholm-hall')?.tags;
  await edit(await ternholm(), [{ kind: 'screen', id: 'ternholm-hall', set: { tags: ['hall', 'marble'] } }]);
  await page.goto(server('/'));
  const operator = new Operator(page);
  await operator.fill(page.getByLabel('Show only screens that match'), 'hall');
  await operator.click(page.getByRole('button', { name: /^Choose all/ }));
  await operator.click(page.getByRole('button', { name: 'Change them' }));
  const field = page.getByRole('textbox', { name: 'Lights out' });
  await field.fill('6 to 23');
  await expect(page.getByRole('status').filter({ hasText: 'may be swapped' })).toBeVisible();
  await operator.fill(field, 'weekends, except in advent');
  await expect(page.getByRole('status').filter({ hasText: 'may be swapped' })).toHaveCount(0);
  await page.getByRole('combobox', { name: 'Add tags' }).fill('quiet');
  await operator.click(page.getByRole('button', { name: /^Change \d+ screens$/ }));
  await expect.poll(async () => JSON.stringify(await lightsOut())).toContain('FREQ=WEEKLY;BYDAY=SA,SU');
  expect(new Set((await lightsOut()).map((one) => JSON.stringify(one))).size).toBe(1);
  expect(await tagsOf()).toEqual(['hall', 'marble', 'quiet']);
  expect(operator.acts).toBeLessThanOrEqual(8);
  await page.keyboard.press('Control+z');
  await expect.poll(lightsOut).toEqual(before);
});

test('in the table screens are filtered, sorted, chosen by keys and saved as a file', async () => {
  await page.goto(server('/screens/table'));
  const rows = page.locator('[data-table-row]');
  await page.getByLabel('Find screens').fill('hall and quay');
  await page.getByRole('button', { name: 'Site', exact: true }).click();
  await page.getByRole('button', { name: 'Site', exact: true }).click();
  const sites = await rows.getByRole('gridcell').nth(3).allInnerTexts();
  await expect(page.getByRole('columnheader', { name: 'Site' })).toHaveAttribute('aria-sort', 'descending');
  expect(sites[0]).toBe('Ternholm Terminal');
  await page.getByRole('button', { name: 'Columns' }).click();
  await page.getByRole('checkbox', { name: 'Lights out' }).check();
  await page.keyboard.press('Escape');
  await rows.first().focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByRole('complementary', { name: '2 screens' })).toBeVisible();
  await expect(rows.nth(1)).toBeFocused();
  await page.keyboard.press('Escape');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const text = await readFile(await (await saved).path(), 'utf8');
  expect(text.split('\n')[0]).toBe('\ufeffId,Screen,State,Since,Site,Trouble,Tags,Size,Profile,Lights out');
  expect(text.split('\n')[1]).toContain('Ternholm Terminal');
  // What one likes is there after a reload; a filter is not.
  await page.reload();
  await expect(page.getByRole('columnheader', { name: 'Lights out' })).toBeVisible();
  await page.getByLabel('Show only screens with a problem').selectOption('Clock off');
  await expect(rows).toHaveCount(1);
  await expect(rows).toContainText('Car lanes');
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(rows.nth(1)).toBeVisible();
});

test('a kind of display gets a profile, and what it can’t play is told before it is published', async () => {
  await page.goto(server('/screens/profiles'));
  await page.getByRole('button', { name: 'Add profile' }).click();
  await page.getByRole('menuitem', { name: 'Like “Electronic paper”' }).click();
  await expect(page.getByLabel('Name')).toHaveValue('Electronic paper 2');
  await page.getByLabel('Name').fill('Pier sign');
  await page.getByRole('button', { name: 'Add profile' }).last().click();
  await expect(page.getByRole('button', { name: 'Pier sign' })).toBeVisible();
  await page.goto(server('/screens?screen=pier-end'));
  const profile = page.getByLabel('Profile', { exact: true });
  await profile.focus();
  await profile.selectOption('Pier sign');
  await page.keyboard.press('Tab');
  const screen = async () => (await draft()).screens.find(({ id }) => id === 'pier-end');
  await expect.poll(async () => (await screen())?.profile).toBe('pier-sign');
  // Its own backdrop is a picture; a video is booked for it.
  const { edit } = await import('@/services/plan');
  await edit(await ternholm(), [{ kind: 'screen', id: 'pier-end', set: { backdrop: { media: 'departure' } } }]);
  await page.goto(server('/plan'));
  await page.getByRole('button', { name: /^Findings/ }).click();
  await expect(page.getByRole('region', { name: 'can’t play it' })).toContainText(
    'by its profile, each plays no videos',
  );
  await page.goto(server('/screens/pier-end'));
  // The browser that plays there says of itself what it can do.
  await expect(page.getByRole('region', { name: 'Its display' })).toContainText('The player says that it can');
});

test('screens come from a spreadsheet: what is wrong is told by line, and then all are there at once, and gone at once', async () => {
  await page.goto(server('/screens/table'));
  await page.getByRole('button', { name: 'Add from a list' }).click();
  const list = page.getByRole('textbox', { name: 'Screens', exact: true });
  await list.fill('Screen;Site;Size\nStern;MS Havlys;1080 × 1920\nBow;MS Havlys;large');
  await expect(page.getByRole('row').filter({ hasText: 'Bow' })).toContainText('Write the size as width × height');
  await expect(page.getByRole('button', { name: /^Save/ })).toBeDisabled();
  await list.fill('Screen;Site;Size;Time zone\nStern;MS Havlys;1080 × 1920;\nBow;Slipway;1920 × 1080;Europe/Oslo');
  await expect(page.getByRole('status').filter({ hasText: '2 new' })).toContainText('1 new site: Slipway');
  await page.getByRole('button', { name: 'Save 2 screens' }).click();
  await page.getByRole('navigation', { name: 'Views of the screens' }).getByRole('link', { name: 'By site' }).click();
  await expect(page.getByRole('region', { name: 'Slipway' })).toContainText('Bow');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('region', { name: 'Slipway' })).toBeHidden();
  expect((await draft()).screens.some(({ name }) => name === 'Stern')).toBe(false);
});

test('players that came today are paired from a list of their codes; a wrong code stays with what is wrong', async ({
  browser,
}) => {
  const actor = await ternholm();
  const { edit } = await import('@/services/plan');
  const size = { width: 1920, height: 1080 };
  await edit(
    actor,
    ['New 1', 'New 2'].map((name, i) => ({
      ...{ kind: 'screen' as const, id: `new-${i + 1}`, add: { name, site: 'sillarvik', ...size } },
    })),
  );
  const players = await Promise.all([1, 2].map(() => browser.newPage()));
  const codes = await Promise.all(
    players.map(async (one) => {
      await one.goto(server('/player'));
      await expect(one.locator('#code')).toHaveText(/-/);
      return one.locator('#code').innerText();
    }),
  );
  await page.goto(server('/screens'));
  await page.getByRole('button', { name: 'Pair several' }).click();
  await page
    .getByLabel('Codes, one per line')
    .fill(`${codes[0]?.toLowerCase().replace('-', ' ')}\n${codes[1]};New 1\nBCDF-GHJK;Sillarvik Quay Gangway`);
  await expect(page.getByText('This replaces the player of 1 screen.')).toBeVisible();
  await page.getByRole('button', { name: 'Pair 3 players' }).click();
  await expect(page.getByLabel('Codes, one per line')).toHaveValue('BCDF-GHJK Sillarvik Quay Gangway');
  await expect(page.getByRole('table').getByRole('alert')).toContainText('No player shows this code now.');
  await expect(players[1]?.locator('#name') ?? page.locator('none')).toHaveText('New 1');
  await expect(players[0]?.locator('#name') ?? page.locator('none')).toHaveText('New 2');
  await Promise.all(players.map((one) => one.close()));
});

test('boxes that start with an enrolment key wait in the tray, told apart by number and colour, and are paired by one press', async ({
  browser,
}) => {
  const { edit } = await import('@/services/plan');
  const size = { width: 1920, height: 1080 };
  await edit(
    await ternholm(),
    ['Box 1', 'Box 2'].map((name, i) => ({
      ...{ kind: 'screen' as const, id: `box-${i + 1}`, add: { name, site: 'brennoy', ...size } },
    })),
  );
  await page.goto(server('/screens/tray'));
  // One of the sample network's own waits. Who isn't expected is sent away.
  const own = page.getByRole('listitem').filter({ hasText: 'by “New boxes”' });
  await own.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText('No player is waiting')).toBeVisible();
  await page.getByLabel('Name of the key').fill('Boxes of today');
  await page.getByLabel('Players', { exact: true }).fill('2');
  await page.getByRole('button', { name: 'Make a key' }).click();
  const address = await page.getByLabel('Address for players').inputValue();
  const boxes = await Promise.all([1, 2, 3].map(() => browser.newPage()));
  const [first, second, third] = boxes as [Page, Page, Page];
  await first.goto(`${address}&serial=SN-1`);
  await expect(first.locator('#mark')).toHaveText('1');
  await second.goto(`${address}&serial=SN-2`);
  await expect(second.locator('#mark')).toHaveText('2');
  // The key is used up: one more shows a code, as any player does.
  await third.goto(`${address}&serial=SN-3`);
  await expect(third.locator('#code')).toHaveText(/-/);
  await expect(third.locator('#mark')).toBeHidden();
  // Switched off and on it has the same number.
  await first.reload();
  await expect(first.locator('#mark')).toHaveText('1');
  const row = page.getByRole('listitem').filter({ hasText: 'SN-1' });
  await expect(row).toContainText('amber');
  await page.getByLabel('Screen for player 1').selectOption({ label: 'Brennøy Landing · Box 2' });
  await page.getByRole('button', { name: 'Pair 2 players' }).click();
  await expect(page.getByText('No player is waiting')).toBeVisible();
  await expect(first.locator('#name')).toHaveText('Box 2');
  await expect(second.locator('#name')).toHaveText('Box 1');
  const key = page.getByRole('listitem').filter({ hasText: 'Boxes of today' });
  await key.getByRole('button', { name: 'End this key' }).click();
  await expect(page.getByText('2 of 2 used')).toBeHidden();
  await Promise.all(boxes.map((one) => one.close()));
});

test('two displays become a wall: each player shows its part of one picture, also once it is restarted', async ({
  browser,
}) => {
  const { edit, lastChange } = await import('@/services/plan');
  const { publishEdition } = await import('@/services/editions');
  const actor = await ternholm();
  const gate = { name: 'Gate', site: 'brennoy', width: 1920, height: 1080, backdrop: { media: 'line-flag' } };
  await edit(actor, [{ kind: 'screen', id: 'gate', add: gate }]);
  await page.goto(server('/screens/gate'));
  await page.getByRole('button', { name: 'Settings' }).click();
  await page.getByLabel('Columns').fill('2');
  await page.getByLabel('Display width').fill('1000');
  await page.getByLabel('Display height').fill('500');
  await page.getByLabel('Between two').fill('0');
  await page.getByRole('button', { name: 'Use 1920 × 480' }).click();
  await expect(page.getByLabel('Height', { exact: true })).toBeFocused();
  await page.keyboard.press('Tab');
  const wall = { rows: 1, columns: 2, widthMm: 1000, heightMm: 500, betweenMm: 0 };
  await expect
    .poll(async () => (await draft()).screens.find(({ id }) => id === 'gate'))
    .toMatchObject({ wall, width: 1920, height: 480 });
  await page.keyboard.press('Escape');
  await publishEdition(actor, await lastChange(actor.networkId));
  const own = page.getByRole('region', { name: 'Player', exact: true });
  const displays: Page[] = [];
  for (const [i, name] of ['row 1, column 1', 'row 1, column 2'].entries()) {
    const display = await browser.newPage({ viewport: { width: 480, height: 240 } });
    displays.push(display);
    await display.goto(server('/player'));
    await expect(display.locator('#code')).toHaveText(/-/);
    await expect(own.getByLabel('Display of Gate')).toHaveValue(`gate/${i + 1}`);
    await own.getByLabel('Code of the player for Gate').fill(await display.locator('#code').innerText());
    await own.getByRole('button', { name: 'Pair', exact: true }).click();
    await expect(page.getByText(`Paired: Gate, ${name} has a player.`)).toBeVisible();
  }
  const where = (display: Page) =>
    display.locator('#stage').evaluate((stage) => {
      const { left, width, height } = stage.getBoundingClientRect();
      return [left, width, height];
    });
  const [first, second] = displays as [Page, Page];
  const isWhole = async () => {
    await expect(first.locator('#stage')).toHaveAttribute('data-media', 'line-flag');
    await expect(second.locator('#stage')).toHaveAttribute('data-media', 'line-flag');
    expect([await where(first), await where(second)]).toEqual([
      [0, 960, 240],
      [-480, 960, 240],
    ]);
  };
  await isWhole();
  await second.reload();
  await isWhole();
  await expect(own.getByRole('list', { name: 'Displays of this wall' })).toContainText('row 1, column 2: lit');
  // The server cuts the plan's picture into the same parts: each display shows its own.
  await take();
  await expect(picture()).toContainText('Shows what is planned');
  await expect(picture().getByRole('img', { name: /^What was planned, row 1, column/ })).toHaveCount(2);
  // Deleted by mistake: undo brings the players back, without a walk to them.
  await page.getByRole('button', { name: 'Settings' }).click();
  await page.getByRole('button', { name: 'Delete this screen' }).click();
  for (const display of displays) await expect(display.locator('#code')).toHaveText(/-/);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { level: 1, name: 'Gate' })).toBeVisible();
  await isWhole();
  await Promise.all(displays.map((one) => one.close()));
});

test('in front of a screen its own page opens with the PIN, tests the connection, and sets the edges by arrows', async () => {
  await page.goto(server('/network'));
  const field = page.getByLabel('PIN of the players’ own pages');
  await field.fill('27');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Write 4 to 8 digits.')).toBeVisible();
  await field.fill('2718');
  await page.keyboard.press('Enter');
  const { width = 0, height = 0 } = player.viewportSize() ?? {};
  const own = player.getByRole('region', { name: 'This player' });
  // The PIN reaches the player with what it is told next.
  await expect(async () => {
    for (const [x, y] of [
      [5, 5],
      [width - 5, 5],
      [width - 5, height - 5],
      [5, height - 5],
    ] as const)
      await player.mouse.click(x, y);
    await expect(own.getByLabel('PIN')).toBeVisible({ timeout: 500 });
  }).toPass();
  await player.keyboard.type('1111');
  await player.keyboard.press('Enter');
  await expect(own.getByRole('alert')).toHaveText('This isn’t the PIN. It is in Lanternpost, under Network.');
  for (const digit of '2718') await own.getByRole('button', { name: digit, exact: true }).click();
  await own.getByRole('button', { name: 'Open' }).click();
  await expect(own).toContainText('all are here, so it plays on without a network');
  await own.getByRole('button', { name: 'Test the connection' }).click();
  const steps = own.getByRole('list', { name: 'Test of the connection' }).getByRole('listitem');
  await expect(steps).toContainText([
    'Network: OK',
    'Name, address and TLS: OK',
    'Time: OK',
    'Token: OK',
    'Stream: OK',
    'Fetch: OK',
  ]);
  await own.getByRole('button', { name: 'Set the edges' }).click();
  for (const key of ['ArrowLeft', 'ArrowLeft', 'Enter', 'ArrowLeft']) await player.keyboard.press(key);
  await expect(own).toContainText('Now: left 0.5 %, top 0 %, right 0 %, bottom 0 %.');
  const glass = () => player.locator('#glass').evaluate((one) => one.getBoundingClientRect().left / innerWidth);
  expect(await glass()).toBeCloseTo(0.005);
  await player.keyboard.press('Escape');
  await expect(own).toBeHidden();
  await expect(player.locator('#test-picture')).toBeHidden();
});
