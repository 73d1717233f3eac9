import type { Browser, BrowserContext, Page } from '@playwright/test';
import { ternholm } from './plan';
import { server } from './session';
import { expect } from './test';

/** A screen of its own on the pier, `pier-end`, published with the flag behind it; and the real player that shows it. */
export async function pierPlayer(
  browser: Browser,
  address = server('/player'),
): Promise<{ context: BrowserContext; player: Page }> {
  const actor = await ternholm();
  const { edit, lastChange } = await import('@/services/plan');
  const { publishEdition } = await import('@/services/editions');
  const { pairScreen } = await import('@/services/screens');
  await edit(actor, [
    {
      ...{ kind: 'screen' as const, id: 'pier-end' },
      add: {
        ...{ name: 'Pier end', site: 'sillarvik', width: 960, height: 540, tags: ['pier-end'] },
        backdrop: { media: 'line-flag' },
      },
    },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  const context = await browser.newContext({ viewport: { width: 960, height: 540 } });
  const player = await context.newPage();
  await player.goto(address);
  await expect(player.locator('#code')).toHaveText(/-/);
  await pairScreen(actor, 'pier-end', await player.locator('#code').innerText(), '127.0.0.1');
  await expect(player.locator('#stage')).toHaveAttribute('data-media', 'line-flag', { timeout: 60_000 });
  return { context, player };
}

/** Makes its backdrop another: a change that waits. */
export async function pierBackdrop(media: string): Promise<void> {
  const { edit } = await import('@/services/plan');
  await edit(await ternholm(), [{ kind: 'screen', id: 'pier-end', set: { backdrop: { media } } }]);
}

/** Keeps when the player's stage changes, by the clock of this machine. */
export async function watchStage(player: Page): Promise<void> {
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
