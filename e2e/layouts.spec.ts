import type { Page } from '@playwright/test';
import { forecast, placeOf, screenProgram, zonePlays } from '@/core/forecast';
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
  await expect(tile.getByText('Notice', { exact: true })).toBeAttached();
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
