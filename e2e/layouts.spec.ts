import type { Locator, Page } from '@playwright/test';
import { forecast, placeOf, screenProgram, zonePlays } from '@/core/forecast';
import { violations } from './support/access';
import { atThePier } from './support/pier';
import { booked, draft, ternholm } from './support/plan';
import { server } from './support/session';
import { expect, test } from './support/test';

/** Several things on one screen: each zone of a real player against the forecast, each for itself. */
let page: Page;
let player: Page;
atThePier((pier) => ({ page, player } = pier));

const HERE = 'screen:pier-end';
const zone = (id: string) => player.locator(`[data-zone="${id}"]`);

async function publish(): Promise<void> {
  const { publishEdition } = await import('@/services/editions');
  const { lastChange } = await import('@/services/plan');
  const actor = await ternholm();
  await publishEdition(actor, await lastChange(actor.networkId));
}

/** Writes down, at each frame, what each zone shows by the clock of this machine; a zone without a picture as nothing. */
const watchZones = () =>
  player.evaluate(() => {
    const log: [at: number, zone: string, shown: string][] = [];
    Object.assign(window, { zones: log });
    const look = () => {
      for (const one of document.querySelectorAll<HTMLElement>('#stage > .layer:not([hidden]) .zone')) {
        const seen = one.querySelector<HTMLElement>(':scope > .layer:not([hidden])');
        const isDrawn = seen instanceof HTMLImageElement ? seen.complete && seen.naturalWidth > 0 : seen !== null;
        log.push([Date.now(), one.dataset.zone ?? '', isDrawn ? (one.dataset.media ?? '') : '']);
      }
      requestAnimationFrame(look);
    };
    look();
  });
const watched = () =>
  player.evaluate(() => (window as unknown as { zones: [number, string, string][] }).zones.splice(0));

test('a layout of four zones plays each by its own clock, and none is ever blank', async () => {
  const { edit } = await import('@/services/plan');
  const zones = [
    { id: 'main', x: 0, y: 0, width: 1440, height: 810, content: { playlist: 'pier-loop' }, fit: 'fill' as const },
    { id: 'film', x: 1440, y: 0, width: 480, height: 540, content: { media: 'departure' } },
    { id: 'other', x: 1440, y: 540, width: 480, height: 540, content: { media: 'night-lights', durationMs: 3000 } },
    { id: 'foot', x: 0, y: 810, width: 1440, height: 270, content: { bulletin: 'pier-notice' } },
  ];
  await edit(await ternholm(), [
    { kind: 'bulletin', id: 'pier-notice', add: { name: 'Notice', kind: 'notice', text: 'Mind the step' } },
    {
      kind: 'playlist',
      id: 'pier-loop',
      add: {
        name: 'Pier loop',
        items: ['route-map', 'line-flag', 'map-tall'].map((media) => ({ media, durationMs: 1500 })),
      },
    },
    { kind: 'layout', id: 'pier-board', add: { name: 'Pier board', width: 1920, height: 1080, zones } },
  ]);
  await booked('pier-board', {
    ...{ name: 'Pier board', where: HERE, priority: 5, when: {} },
    content: { layout: 'pier-board' },
  });
  await publish();
  await expect(player.locator('#stage')).toHaveAttribute('data-media', 'pier-board');
  await expect(zone('foot')).toContainText('Mind the step');
  await watchZones();
  await expect(zone('main')).toHaveAttribute('data-media', 'map-tall');
  await watched();
  await expect(zone('main')).toHaveAttribute('data-media', 'route-map');
  await expect(zone('main')).toHaveAttribute('data-media', 'map-tall');
  await expect(zone('main')).toHaveAttribute('data-media', 'line-flag');
  const log = await watched();
  expect(new Set(log.map(([, id]) => id))).toEqual(new Set(zones.map(({ id }) => id)));
  expect(log.filter(([, , shown]) => shown === '')).toEqual([]);
  // Each frame against the forecast: late it may be on a busy machine, for a few frames; wrong never.
  const program = screenProgram(await draft(), 'pier-end');
  const [from, to] = [(log[0]?.[0] ?? 0) - 5000, (log.at(-1)?.[0] ?? 0) + 1000];
  const { segments, plays } = forecast(program, from, to, { plays: true });
  const [segment, play] = [segments[0], plays[0]];
  if (!segment || !play) throw new Error('nothing is planned');
  const due = new Map(zonePlays(program, placeOf(program), segment, play)?.map((one) => [one.zone, one.plays]));
  const around = (id: string, at: number) => {
    const own = due.get(id) ?? [];
    const i = own.findIndex((one) => one.from <= at && at < one.to);
    return own.slice(Math.max(0, i - 1), i + 1).map((one) => one.media ?? one.bulletin);
  };
  expect(log.filter(([at, id, shown]) => ![...around(id, at), ...around(id, at + 60)].includes(shown))).toEqual([]);
  const late = log.filter(([at, id, shown]) => ![at - 400, at, at + 60].some((t) => around(id, t).at(-1) === shown));
  expect(late.length).toBeLessThanOrEqual(log.length * 0.05);
  // People see each zone's picture on Now.
  await page.goto(server('/'));
  const tile = page.locator('[data-screen="pier-end"]');
  await expect(tile).toHaveAccessibleName(/^Pier end: lit, Pier board/);
  await expect(tile.getByText('Mind the step', { exact: true })).toBeAttached();
  await expect(tile.locator('img')).toHaveCount(3);
  await tile.click();
  await expect(page.getByText('Pier board, because it is booked with priority 5', { exact: false })).toBeVisible();
});

test('a foot line is drawn over whatever plays, and the screen goes on below it', async () => {
  const { edit } = await import('@/services/plan');
  const foot = { id: 'foot', x: 0, y: 900, width: 1920, height: 180, content: { bulletin: 'pier-notice' } };
  await edit(await ternholm(), [
    { kind: 'booking', id: 'pier-board', remove: true },
    { kind: 'layout', id: 'pier-line', add: { name: 'Pier line', width: 1920, height: 1080, zones: [foot] } },
  ]);
  await booked('pier-line', {
    ...{ name: 'Pier line', where: HERE, priority: 3, when: {}, overlay: {} },
    content: { layout: 'pier-line' },
  });
  await publish();
  await expect(player.locator('#stage')).toHaveAttribute('data-media', 'line-flag');
  await expect(player.locator('.overlay [data-zone="foot"]')).toContainText('Mind the step');
  expect(await player.locator('.overlay [data-zone="foot"]').boundingBox()).toEqual({
    x: 0,
    y: 450,
    width: 960,
    height: 90,
  });
  await edit(await ternholm(), [{ kind: 'booking', id: 'pier-line', remove: true }]);
  await publish();
  await expect(player.locator('.overlay')).toHaveCount(0);
  await edit(await ternholm(), [
    ...['pier-line', 'pier-board'].map((id) => ({ kind: 'layout' as const, id, remove: true as const })),
    { kind: 'playlist', id: 'pier-loop', remove: true },
    { kind: 'bulletin', id: 'pier-notice', remove: true },
  ]);
});

/** Drags with the mouse, from the middle of one thing to a place in another. */
async function drag(from: Locator, to: Locator, across = 0.5): Promise<void> {
  await from.hover();
  await page.mouse.down();
  const [a, b] = [await from.boundingBox(), await to.boundingBox()];
  if (!a || !b) throw new Error('It is hidden.');
  await page.mouse.move(a.x + a.width / 2 + 10, a.y + a.height / 2, { steps: 3 });
  await page.mouse.move(b.x + b.width * across, b.y + b.height / 2, { steps: 5 });
  await page.mouse.up();
}

test('a layout is begun, filled, pulled and swapped, and put on screens of both orientations', async () => {
  const widths = async () =>
    (await draft()).layouts
      .find(({ name }) => name === 'Main and side')
      ?.zones.map(({ id, x, width }) => [id, x, width]);
  await page.goto(server('/layouts'));
  await page.getByRole('button', { name: 'Main and side' }).click();
  const zoneBox = (id: string) => page.getByTestId('layout').locator(`[data-zone="${id}"]`);
  await expect(page.getByTestId('seen-on').first()).toBeVisible();
  expect(await violations(page)).toEqual([]);

  await page.getByLabel('Find what to show').fill('route map');
  // Until all that doesn’t match is gone, the list still moves.
  await expect(page.locator('[data-shelf]:not([data-shelf^="Route map"])')).toHaveCount(0);
  await drag(page.locator('[data-shelf="Route map"]'), zoneBox('main'));
  await expect(zoneBox('main')).toHaveAccessibleName(/^main: Route map/);
  await zoneBox('side').click();
  await page.getByLabel('Text for side').fill('Boat at 5');
  await page.getByLabel('Text for side').blur();
  await expect(page.getByLabel('Text of the card')).toHaveValue('Boat at 5');

  const border = page.getByRole('separator', { name: 'Border between main and side' });
  await border.focus();
  for (const key of ['Shift+ArrowLeft', 'Shift+ArrowLeft', 'ArrowRight']) await page.keyboard.press(key);
  await expect(border).toHaveAttribute('aria-valuenow', '1421');
  // What is done at once after it takes nothing back.
  await page.getByLabel('Its loop goes on while the layout is away').check();
  await expect.poll(widths).toEqual([
    ['main', 0, 1421],
    ['side', 1421, 499],
  ]);
  // Pulled near two thirds, it stops there.
  await drag(border, page.getByTestId('layout'), 0.67);
  await expect.poll(widths).toEqual([
    ['main', 0, 1280],
    ['side', 1280, 640],
  ]);
  expect((await draft()).layouts.find(({ name }) => name === 'Main and side')?.zones[1]?.goesOn).toBe(true);
  await drag(zoneBox('side'), zoneBox('main'), 0.3);
  await expect.poll(widths).toEqual([
    ['side', 0, 1280],
    ['main', 1280, 640],
  ]);
  await page.keyboard.press('Control+z');
  await expect.poll(widths).toEqual([
    ['main', 0, 1280],
    ['side', 1280, 640],
  ]);

  await page.getByRole('button', { name: 'Put on screens' }).click();
  await page.getByLabel('Where').fill('pier-end or gangway');
  await expect(page.getByText('a portrait version of this layout', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: /^Book it on \d+ screens \(1 landscape, \d+ portrait\)$/ }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  const { layouts, bookings } = await draft();
  const made = layouts.filter(({ name }) => name.startsWith('Main and side'));
  expect(made.map(({ width, height }) => [width, height])).toEqual([
    [1920, 1080],
    [1080, 1920],
  ]);
  const booked = bookings.filter(({ content }) => made.some(({ id }) => id === content.layout));
  expect(booked.map(({ where }) => where)).toEqual([
    '(pier-end or gangway) and not is:portrait',
    '(pier-end or gangway) and is:portrait',
  ]);
  await publish();
  await expect(player.locator('#stage')).toHaveAttribute('data-media', made[0]?.id ?? '');
  await expect(zone('side')).toContainText('Boat at 5');
  await expect(page.getByText('booked for this moment').first()).toBeVisible();
  // One act, and one undo; then the layout goes, too.
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await draft()).bookings.filter(({ id }) => booked.some((one) => one.id === id)))
    .toEqual([]);
  await page.getByRole('button', { name: 'Delete this layout' }).click();
  await expect(page.getByRole('heading', { name: 'Begin with an arrangement' })).toBeVisible();
  expect((await draft()).layouts.filter(({ name }) => name.startsWith('Main and side'))).toEqual([]);
  await publish();
  await expect(player.locator('#stage')).toHaveAttribute('data-media', 'line-flag');
});

test('a picture in a picture is moved by keys, and what is changed right after it stays changed', async () => {
  await page.goto(server('/layouts'));
  await page.getByRole('button', { name: 'Picture in picture' }).click();
  const inset = page.getByTestId('layout').locator('[data-zone="inset"]');
  await inset.click();
  await inset.press('Shift+ArrowLeft');
  await page.getByRole('checkbox', { name: 'Heard' }).check();
  const now = async () => (await draft()).layouts.flatMap(({ zones }) => zones).find(({ id }) => id === 'inset');
  await expect.poll(now).toMatchObject({ x: 1174, y: 666, width: 640, sound: true });
  await page.getByRole('button', { name: 'Delete this layout' }).click();
  await expect.poll(now).toBeUndefined();
});
