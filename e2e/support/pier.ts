import type { Browser, Page, ViewportSize } from '@playwright/test';
import { draft, planned, ternholm } from './plan';
import { server, signIn } from './session';
import { expect, test } from './test';

interface Pier {
  /** Ida's. */
  readonly page: Page;
  /** The real player of `pier-end`, a screen of its own with the flag behind it. */
  readonly player: Page;
}

/** Makes a spec one row of tests at the pier; `take` gets what is there as they begin. The player goes by the web server, or the gateway. */
export function atThePier(
  take: (pier: Pier) => void,
  { viewport, by = 'web' }: { readonly viewport?: ViewportSize; readonly by?: 'web' | 'gateway' } = {},
): void {
  test.describe.configure({ mode: 'serial' });
  let pier: Pier | undefined;
  test.beforeAll(async ({ browser }) => {
    const page = await browser.newPage(viewport ? { viewport } : {});
    await signIn(page);
    const address = new URL(server('/player'));
    if (by === 'gateway') address.port = String(Number(address.port) + 1);
    pier = { page, player: await pierPlayer(browser, address.href) };
    await watchStage(pier.player);
    take(pier);
  });
  test.afterAll(() => Promise.all([pier?.page.close(), pier?.player.close()]));
}

/** Publishes the screen, and pairs a player with it. Its size is one that the sample network has, so no smaller files have to be made for it. */
async function pierPlayer(browser: Browser, address: string): Promise<Page> {
  const actor = await ternholm();
  const { edit, lastChange } = await import('@/services/plan');
  const { publishEdition } = await import('@/services/editions');
  const { pairScreen } = await import('@/services/screens');
  await clearPier();
  await edit(actor, [
    {
      ...{ kind: 'screen' as const, id: 'pier-end' },
      add: {
        ...{ name: 'Pier end', site: 'sillarvik', width: 1920, height: 1080, tags: ['pier-end'] },
        backdrop: { media: 'line-flag' },
      },
    },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  const player = await browser.newPage({ viewport: { width: 960, height: 540 } });
  await player.goto(address);
  await expect(player.locator('#code')).toHaveText(/-/);
  await pairScreen(actor, 'pier-end', await player.locator('#code').innerText(), '127.0.0.1');
  await expect(player.locator('#stage')).toHaveAttribute('data-media', 'line-flag');
  return player;
}

/** Removes what another spec left on this instance: its screen, what is booked there, and what is planned. */
async function clearPier(): Promise<void> {
  const actor = await ternholm();
  const { edit, lastChange } = await import('@/services/plan');
  const { callOffPlanned, publishEdition } = await import('@/services/editions');
  for (const { id } of await planned()) await callOffPlanned(actor, id);
  const { bookings, screens } = await draft();
  const there = screens.filter(({ id }) => id === 'pier-end');
  if (there.length === 0) return;
  const left = bookings.filter(({ where }) => where.includes('pier-end'));
  await edit(actor, [
    ...left.map((one) => ({ kind: 'booking' as const, id: one.id, remove: true as const })),
    ...there.map((one) => ({ kind: 'screen' as const, id: one.id, remove: true as const })),
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
}

/** Makes its backdrop another: a change that waits. */
export async function pierBackdrop(media: string): Promise<void> {
  const { edit } = await import('@/services/plan');
  await edit(await ternholm(), [{ kind: 'screen', id: 'pier-end', set: { backdrop: { media } } }]);
}

/** Keeps when the player's stage changes, by the clock of this machine. */
async function watchStage(player: Page): Promise<void> {
  await player.evaluate(() => {
    const log: [number, string][] = [];
    Object.assign(window, { seen: log });
    const element = document.getElementById('stage') as HTMLElement;
    new MutationObserver(() => log.push([Date.now(), element.dataset.media ?? ''])).observe(element, {
      attributes: true,
      attributeFilter: ['data-media'],
    });
  });
}

/** When the stage came to show something last; 0 for never. */
export const shownAt = (player: Page, media: string): Promise<number> =>
  player.evaluate(
    (wanted) =>
      (window as unknown as { seen: [number, string][] }).seen.findLast(([, one]) => one === wanted)?.[0] ?? 0,
    media,
  );
