import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { letGoAtOnce } from './support/operator';
import { draft } from './support/plan';
import { goTo, pick, press, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** Playlists that are shuffled, films that are cut, and bookings that are woven into what shows. */
test.describe.configure({ mode: 'serial' });

const CUT = 'lane-flow';

let page: Page;
test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  await signIn(page);
});
test.afterAll(() => page.close());

const bookingNamed = async (name: string) => (await draft()).bookings.find((one) => one.name === name);
/** The files of the crew's playlist, in their order. */
const order = async () =>
  (await draft()).playlists
    .find(({ id }) => id === 'crew')
    ?.items.map(({ media }) => media)
    .join(' ');
const lanes = async () => (await draft()).playlists.find(({ id }) => id === 'lanes');

test('a playlist is shuffled, and goes as listed again', async () => {
  await page.goto(server('/playlists/lanes'));
  const order = page.getByLabel('Order');
  await expect(order).toHaveValue('listed');
  await order.selectOption('shuffled');
  await expect.poll(async () => (await lanes())?.order).toBe('shuffled');
  await page.reload();
  await expect(order).toHaveValue('shuffled');
  await order.selectOption('listed');
  await expect.poll(async () => (await lanes())?.order).toBeUndefined();
});

test('a video is cut where you say; an impossible cut gets a message and stays in its field', async () => {
  const clip = page.getByLabel(/^Clip of /);
  const total = page.getByTestId('loop');
  const before = await total.innerText();
  await clip.fill('1 to 3');
  await clip.press('Enter');
  await expect
    .poll(async () => (await lanes())?.items.map((item) => item.clip))
    .toEqual([undefined, undefined, [1000, 3000]]);
  await expect(clip).toHaveValue('1–3');
  await expect(total).not.toHaveText(before);
  await clip.fill('1 to 3000');
  await clip.press('Tab');
  await expect(clip).toHaveAttribute('aria-invalid', 'true');
  await expect(page.getByText(/ends at .*\. End the clip there or before\./)).toBeVisible();
  await clip.focus();
  await clip.press('Escape');
  await expect(clip).toHaveValue('1–3');
  await clip.fill('');
  await clip.press('Enter');
  await expect.poll(async () => (await lanes())?.items.every((item) => item.clip === undefined)).toBe(true);
  await expect(total).toHaveText(before);
});

test('a video is cut on its own pictures, by keys too; all of it counts as uncut', async () => {
  const crossing = async () =>
    (await draft()).playlists.flatMap(({ items }) => items).find(({ media }) => media === CUT)?.clip;
  const list = (await draft()).playlists.find(({ items }) => items.some(({ media }) => media === CUT));
  await page.goto(server(`/playlists/${list?.id}`));
  const name = (await draft()).media.find(({ id }) => id === CUT)?.name ?? '';
  await page
    .getByRole('button', { name: `How ${name} looks, sounds, and when` })
    .first()
    .click();
  const cut = page.getByRole('group', { name: `Cut of ${name}` });
  const place = cut.getByRole('slider');
  await place.fill('2000');
  await expect
    .poll(() => cut.locator('video').evaluate((film: HTMLVideoElement) => film.currentTime))
    .toBeCloseTo(2, 1);
  await cut.getByRole('button', { name: 'Begin here' }).click();
  await expect.poll(async () => (await crossing())?.[0]).toBe(2000);
  await place.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  // Too near to where it begins.
  await expect(cut.getByRole('button', { name: 'End here' })).toBeDisabled();
  await place.fill('5000');
  await cut.getByRole('button', { name: 'End here' }).click();
  await expect.poll(crossing).toEqual([2000, 5000]);
  await page.getByLabel(`Clip of ${name}`).first().fill('');
  await page.getByLabel(`Clip of ${name}`).first().press('Enter');
  await expect.poll(crossing).toBeUndefined();
});

test('a booking is woven in by a share, and why tells it; a takeover is not', async () => {
  await goTo(page, 'Plan');
  await page.getByRole('button', { name: 'list', exact: true }).click();
  await page.locator('[data-booking="kiosk-card"]').click();
  const sheet = page.getByRole('dialog');
  const woven = sheet.getByLabel('Share of the loop');
  await woven.fill('sometimes');
  await woven.press('Tab');
  await expect(sheet.getByText('Write a share like 10 %, or how often it comes, like every 5 min.')).toBeVisible();
  await woven.fill('25%');
  await sheet.getByLabel('Name').focus();
  await expect.poll(async () => (await bookingNamed('Kiosk card'))?.weave).toEqual({ share: 0.25 });
  await expect(woven).toHaveValue('25 % of the time');
  await expect(page.getByText('changed this while you were editing')).toHaveCount(0);
  await sheet.getByText('Takeover: ahead of every priority').click();
  await expect(
    sheet.getByText('A takeover shows alone, so it can’t share the loop. Turn one of the two off.'),
  ).toBeVisible();
  await sheet.getByText('Takeover: ahead of every priority').click();
  await woven.fill('');
  await sheet.getByLabel('Name').focus();
  await expect.poll(async () => (await bookingNamed('Kiosk card'))?.weave).toBeUndefined();
  await page.keyboard.press('Escape');
});

const item = async (list: string, media: string) =>
  (await draft()).playlists.find(({ id }) => id === list)?.items.find((one) => one.media === media);

test('transition, fit and times of an item are shown beside it; impossible values stay and get a message', async () => {
  await page.goto(server('/playlists/sailings-pm'));
  await page.getByRole('button', { name: 'How Evening sailings looks, sounds, and when' }).click();
  await page.getByLabel('Transition of Evening sailings', { exact: true }).selectOption('slide');
  await expect
    .poll(async () => (await item('sailings-pm', 'sailings-evening'))?.transition)
    .toEqual({ kind: 'slide', ms: 600 });
  const seconds = page.getByLabel('Seconds of the transition of Evening sailings');
  await seconds.fill('7');
  await seconds.press('Tab');
  await expect(seconds).toHaveAttribute('aria-invalid', 'true');
  await expect(page.getByText('A transition lasts at most 5 seconds.')).toBeVisible();
  await seconds.fill('1.5');
  await seconds.press('Tab');
  await page.getByLabel('Fit of Evening sailings').selectOption('fill');
  const when = page.getByLabel('When Evening sailings plays');
  await when.fill('weekends 18:00 to 22:00');
  await when.press('Enter');
  await expect
    .poll(() => item('sailings-pm', 'sailings-evening'))
    .toMatchObject({
      transition: { kind: 'slide', ms: 1500 },
      fit: 'fill',
      when: { repeat: 'FREQ=WEEKLY;BYDAY=SA,SU', windows: [['18:00', '22:00']] },
    });
  await expect(page.locator('[data-item]').first()).toContainText('slide 1.5 s · filling the screen, cropped');
  await page.getByLabel('Transition of Evening sailings', { exact: true }).selectOption('cut');
  await expect.poll(async () => (await item('sailings-pm', 'sailings-evening'))?.transition).toBeUndefined();
});

test('several items are changed together, and moved to another playlist', async () => {
  const box = (name: string) => page.getByRole('checkbox', { name: `Choose ${name}`, exact: true });
  await box('Evening sailings').click();
  await box('Sea weather').click();
  const bar = page.getByRole('region', { name: 'Chosen items' });
  await expect(bar.getByRole('status')).toHaveText('2 items chosen');
  const seconds = bar.getByLabel('Seconds of 2 items');
  await expect(seconds).toHaveAttribute('placeholder', 'mixed');
  await seconds.fill('0:12');
  await seconds.press('Enter');
  await bar.getByLabel('Transition of 2 items', { exact: true }).selectOption('wipe');
  for (const media of ['sailings-evening', 'weather-outlook'])
    await expect
      .poll(() => item('sailings-pm', media))
      .toMatchObject({ durationMs: 12_000, transition: { kind: 'wipe', ms: 600 } });
  // A field that differs, and was not written, is left as it was.
  expect((await item('sailings-pm', 'sailings-evening'))?.fit).toBe('fill');
  expect((await item('sailings-pm', 'weather-outlook'))?.fit).toBeUndefined();
  await press(bar.getByLabel('Move the chosen items to a playlist'), 'playlist:crew', 'Crew notices');
  await expect(bar).toHaveCount(0);
  await expect.poll(() => item('sailings-pm', 'sailings-evening')).toBeUndefined();
  expect(await item('crew', 'sailings-evening')).toMatchObject({ durationMs: 12_000, fit: 'fill' });
  await page.keyboard.press('Control+z');
  await expect.poll(() => item('sailings-pm', 'sailings-evening')).toBeDefined();
  expect(await item('crew', 'sailings-evening')).toBeUndefined();
});

test('a playlist has the sounds of another as its music, at the chosen volume', async () => {
  const music = async () => (await draft()).playlists.find(({ id }) => id === 'sailings-pm')?.music;
  const field = page.getByRole('combobox', { name: 'Music', exact: true });
  await pick(field, 'playlist:harbour-sounds', 'Harbour sounds');
  await expect.poll(music).toEqual({ playlist: 'harbour-sounds', volume: 0.5 });
  const volume = page.getByLabel('Volume of the music');
  await volume.fill('loud');
  await volume.press('Tab');
  await expect(volume).toHaveAttribute('aria-invalid', 'true');
  await volume.fill('20 %');
  await volume.press('Enter');
  await expect.poll(music).toEqual({ playlist: 'harbour-sounds', volume: 0.2 });
  await page.getByRole('button', { name: 'Remove “Harbour sounds”' }).click();
  await expect.poll(music).toBeUndefined();
});

test('a playlist is saved as a file and read again, with the missing files listed; a screen’s day is saved', async () => {
  await page.goto(server('/playlists/cafe'));
  const [xspf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'XSPF', exact: true }).click(),
  ]);
  expect(xspf.suggestedFilename()).toBe('cafe.xspf');
  const text = readFileSync(await xspf.path(), 'utf8');
  await goTo(page, 'Playlists');
  const [name, type] = ['From elsewhere.xspf', 'application/xspf+xml'];
  const more = text.replace('</trackList>', '<track><location>file:///c/nowhere.png</location></track></trackList>');
  await page.getByTestId('playlist-file').setInputFiles({ name, mimeType: type, buffer: Buffer.from(more) });
  await expect(page.getByText('1 file that it names is not in the library:')).toBeVisible();
  await expect(page.getByText('file:///c/nowhere.png')).toBeVisible();
  await page.getByRole('link', { name: 'Café cards (2)' }).first().click();
  await expect(page.getByRole('heading', { level: 1, name: 'Café cards (2)' })).toBeAttached();
  await goTo(page, 'Playlists');
  await page.getByTestId('playlist-file').setInputFiles({ name, mimeType: type, buffer: Buffer.from('<a>') });
  await expect(page.getByText('This isn’t XSPF: line 1 is broken.')).toBeVisible();
  await page.goto(server('/'));
  await page.locator('[data-screen]').first().click();
  const [day] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'This day as SMIL' }).click(),
  ]);
  expect(readFileSync(await day.path(), 'utf8')).toContain('<seq begin="wallclock(');
});

test('a playlist is seen as on a screen: it plays there, is stepped through, and what is left out says why', async () => {
  await page.goto(server('/playlists/house'));
  await page.getByRole('button', { name: 'Preview on' }).click();
  const seen = page.getByRole('region', { name: 'As seen on' });
  const stage = seen.getByTestId('seen');
  await expect(stage).toHaveAttribute('data-media', 'line-flag');
  await seen.getByRole('button', { name: 'Pause' }).click();
  await seen.getByRole('button', { name: 'Next item' }).click();
  await expect(stage).toHaveAttribute('data-media', 'departure');
  await expect(seen.getByTestId('seen-name')).toHaveText('Departure');
  await seen.getByRole('button', { name: 'Previous item' }).click();
  await expect(stage).toHaveAttribute('data-media', 'line-flag');
  await seen.getByLabel('Time in the pass').fill('10000');
  await expect(stage).toHaveAttribute('data-media', 'departure');
  await expect
    .poll(() => stage.locator('video').evaluate((film: HTMLVideoElement) => film.currentTime))
    .toBeCloseTo(2, 0);
  await expect(seen.getByRole('listitem').filter({ hasText: 'Route map, tall' })).toContainText('is:portrait');
  const upright = seen.locator('option').filter({ hasText: '1080 × 1920' }).first();
  await seen.getByLabel('Screen for the preview').selectOption((await upright.getAttribute('value')) ?? '');
  await expect(seen.getByRole('listitem').filter({ hasText: 'House flag' })).toContainText('is:landscape');
  await seen.getByLabel('Time in the pass').fill('0');
  await expect(stage).toHaveAttribute('data-media', 'gangway-welcome');
});

test('a picture lasts longer when its end in the strip is pulled, or by a key; Escape leaves it; a film has no end to pull', async () => {
  await page.goto(server('/playlists/house'));
  const flagMs = async () => (await draft()).playlists.find(({ id }) => id === 'house')?.items[0]?.durationMs;
  const turn = page
    .getByRole('region', { name: 'Passes' })
    .getByRole('button', { name: /^House flag, / })
    .first();
  const end = page.locator('[data-end="0"]');
  await expect(turn).toHaveAccessibleName('House flag, 0:08, from 0:00');
  const pull = async (by: number, then: (to: { x: number; y: number }) => Promise<void>) => {
    const box = await end.boundingBox();
    const strip = await page.locator('[data-strip]').first().boundingBox();
    if (!box || !strip) throw new Error('no end to pull');
    const y = box.y + box.height / 2;
    await page.mouse.move(box.x + 5, y);
    await page.mouse.down();
    await page.mouse.move(box.x + 5 + by * strip.width, y, { steps: 5 });
    await then({ x: box.x + 5 + 2 * by * strip.width, y });
    await page.mouse.up();
  };
  // A pass of 1:06: a tenth of it is 6.6 s, which snaps to half seconds.
  await pull(0.1, async () => {
    await expect(end.locator('span')).toHaveText('14.5 s');
    await page.keyboard.press('Escape');
    await expect(end.locator('span')).toHaveCount(0);
  });
  expect(await flagMs()).toBe(8000);
  await pull(0.05, (to) => letGoAtOnce(end, to));
  await expect.poll(flagMs).toBe(14_500);
  await expect(turn).toHaveAccessibleName('House flag, 0:15, from 0:00');
  await turn.focus();
  await page.keyboard.press('-');
  await expect.poll(flagMs).toBe(13_500);
  await expect(page.locator('[data-end="1"]')).toHaveCount(0);
  await page.keyboard.press('ControlOrMeta+z');
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(flagMs).toBe(8000);
});

test('a turn in the strip is dragged to the place of another; Escape leaves it, a press is none', async () => {
  await page.goto(server('/playlists/crew'));
  const before = await order();
  const [first, second, third] = before?.split(' ') ?? [];
  const turns = page.getByRole('region', { name: 'Passes' }).locator('[data-strip]').first().getByRole('button');
  const drag = async (then: (to: { x: number; y: number }) => Promise<void>) => {
    const [from, to] = [await turns.nth(0).boundingBox(), await turns.nth(2).boundingBox()];
    if (!from || !to) throw new Error('no turns');
    await page.mouse.move(from.x + 20, from.y + 20);
    await page.mouse.down();
    await page.mouse.move(from.x + 60, from.y + 20, { steps: 3 });
    await then({ x: to.x + to.width / 2, y: to.y + 20 });
    await page.mouse.up();
  };
  await drag(async ({ x, y }) => {
    await page.mouse.move(x, y, { steps: 5 });
    await expect(turns.nth(2)).toHaveCSS('outline-style', 'solid');
    await page.keyboard.press('Escape');
    await expect(turns.nth(2)).not.toHaveCSS('outline-style', 'solid');
  });
  await turns.nth(1).click();
  await expect(page.locator('[data-item]').nth(1).getByRole('button', { name: /^Move/ }).first()).toBeFocused();
  expect(await order()).toBe(before);
  await drag((to) => letGoAtOnce(turns.nth(0), to));
  await expect.poll(order).toBe(`${second} ${third} ${first}`);
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(order).toBe(before);
});

test('several items are dragged together, in the list by mouse and keys, and from the library', async () => {
  await page.goto(server('/playlists/crew'));
  const items = page.getByTestId('items');
  const before = await order();
  const [first, second, third] = before?.split(' ') ?? [];
  const grip = items.getByRole('button', { name: /^Move (?!.* (up|down)$)/ }).nth(0);
  await items.getByRole('checkbox').nth(0).check();
  await items.getByRole('checkbox').nth(1).check();
  await grip.focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('2 items are at 1 of 3.')).toBeAttached();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText('2 items are at 2 of 3.')).toBeAttached();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText('2 items are at 3 of 3.')).toBeAttached();
  await page.keyboard.press('Space');
  await expect.poll(order).toBe(`${third} ${first} ${second}`);
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(order).toBe(before);
  await grip.hover();
  const held = await grip.boundingBox();
  if (!held) throw new Error('nothing to drag');
  await page.mouse.down();
  await page.mouse.move(held.x + 10, held.y + held.height / 2 + 8, { steps: 3 });
  await expect(page.getByText('2 items are at 1 of 3.')).toBeAttached();
  const last = await items.getByRole('listitem').nth(2).boundingBox();
  if (!last) throw new Error('nowhere to drag to');
  await letGoAtOnce(grip, { x: held.x + 10, y: last.y + last.height / 2 });
  await expect.poll(order).toBe(`${third} ${first} ${second}`);
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(order).toBe(before);

  const media = page.getByRole('complementary', { name: 'Media' });
  await media.getByRole('checkbox', { name: 'Choose the file Departure' }).check();
  await media.getByRole('checkbox', { name: 'Choose the file Night lights' }).check();
  const from = await page.locator('[data-palette="departure"]').boundingBox();
  const to = await items.getByRole('listitem').nth(1).boundingBox();
  if (!from || !to) throw new Error('nothing to drag');
  await page.mouse.move(from.x + 20, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(to.x + 200, to.y + to.height / 2 + 10, { steps: 4 });
  // A line says where they land: below the row that they are held over, once the last move is drawn.
  const line = page.getByTestId('lands');
  await expect.poll(async () => Math.abs(((await line.boundingBox())?.y ?? 0) - (to.y + to.height))).toBeLessThan(6);
  await page.mouse.up();
  await expect.poll(order).toBe(`${first} ${second} departure night-lights ${third}`);
  await expect(page.getByTestId('lands')).toHaveCount(0);
  await media.getByRole('button', { name: 'Clear selection' }).click();
  await expect(media.getByRole('checkbox', { checked: true })).toHaveCount(0);
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(order).toBe(before);
});

test('items have their numbers, and are found in their playlist; playlists are found by their names', async () => {
  await page.goto(server('/playlists/crew'));
  const before = await order();
  const rows = page.getByTestId('items').getByRole('listitem');
  await page.getByLabel('Find in this playlist').fill('DRILL');
  await expect(rows).toHaveCount(1);
  await expect(page.getByText('1 of 3 items')).toBeVisible();
  await expect(rows).toContainText('2');
  // What is moved goes by its place among all of them.
  await rows.getByRole('button', { name: /^Move .* up$/ }).click();
  const [first, second, third] = before?.split(' ') ?? [];
  await page.getByLabel('Find in this playlist').fill('');
  await expect.poll(order).toBe(`${second} ${first} ${third}`);
  await page.keyboard.press('Escape');
  await page.getByRole('main').focus();
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(order).toBe(before);
  await page.getByLabel('Find in this playlist').fill('no such');
  await expect(page.getByText('No item has “no such” in its name.')).toBeVisible();

  await page.goto(server('/playlists'));
  await page.keyboard.press('/');
  await page.keyboard.type('gangw');
  await expect(page.getByRole('list', { name: 'Playlists' }).getByRole('link')).toHaveCount(1);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Playlists' })).toContainText('Gangway');
  await page.getByLabel('Find a playlist').fill('xyz');
  await expect(page.getByText('No playlist has “xyz” in its name.')).toBeVisible();
});

test('items are dragged into another playlist, alone or together; let go elsewhere they stay', async () => {
  await page.goto(server('/playlists/crew'));
  const items = page.getByTestId('items');
  const before = await order();
  const [, second, third] = before?.split(' ') ?? [];
  const there = async () => (await draft()).playlists.find(({ id }) => id === 'cafe')?.items.length ?? 0;
  const count = await there();
  const grip = items.getByRole('button', { name: /^Move (?!.* (up|down)$)/ }).nth(0);
  const others = page.getByRole('region', { name: 'Other playlists' });
  const drag = async () => {
    // It may still be on its way back to where it was.
    await grip.hover();
    const from = await grip.boundingBox();
    if (!from) throw new Error('nothing to drag');
    await page.mouse.down();
    await page.mouse.move(from.x + 40, from.y + 10, { steps: 4 });
    await expect(others).toBeVisible();
    await expect(others.locator('[data-into="crew"]')).toHaveCount(0);
  };
  const into = async (letGo: (at: { x: number; y: number }) => Promise<void>) => {
    const to = await others.locator('[data-into="cafe"]').boundingBox();
    if (!to) throw new Error('nowhere to drag to');
    await letGo({ x: to.x + 30, y: to.y + to.height / 2 });
    await expect(others).toHaveCount(0);
  };
  await drag();
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect(others).toHaveCount(0);
  expect(await order()).toBe(before);
  await drag();
  await into(async ({ x, y }) => {
    await page.mouse.move(x, y, { steps: 8 });
    await page.mouse.up();
  });
  await expect.poll(order).toBe(`${second} ${third}`);
  expect(await there()).toBe(count + 1);
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(order).toBe(before);
  await items.getByRole('checkbox').nth(0).check();
  await items.getByRole('checkbox').nth(2).check();
  await drag();
  await into((at) => letGoAtOnce(others, at));
  await expect.poll(order).toBe(second);
  expect(await there()).toBe(count + 2);
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(order).toBe(before);
});
