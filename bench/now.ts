import type { Browser, Page } from '@playwright/test';
import { withLargeNetwork } from './instance';
import { median, print, timed } from './figure';
import { printScroll, scrollCost } from './frames';

const SCREENS = 5000;
const ROUNDS = 5;

/** Now with 5 000 screens: how soon the first tiles are there, and what a frame costs during scrolling. */
export async function nowBench(): Promise<void> {
  await withLargeNetwork(SCREENS, async (page, browser, url) => {
    await firstTiles(page, url);
    await scrolling(browser, page);
  });
}

async function firstTiles(page: Page, url: string): Promise<void> {
  const load = (path: string, ready: () => boolean) =>
    timed(async () => {
      await page.goto(url + path, { waitUntil: 'commit' });
      await page.waitForFunction(ready);
    });
  const values: number[] = [];
  const references: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    references.push(await load('/player', () => document.readyState === 'complete'));
    values.push(await load('/', () => document.querySelectorAll('[data-screen]').length >= 20));
  }
  const value = median(values);
  print({
    bench: 'now/5000-first-tiles',
    value,
    unit: 's',
    reference: { what: 'the player page, which is nearly empty', value: median(references) },
    goal: 'value < 1',
    met: value < 1,
  });
}

/** Scrolls through the streets once their pictures are there. */
async function scrolling(browser: Browser, page: Page): Promise<void> {
  await page.waitForFunction(
    () => document.querySelectorAll('.mini-tile[style*="background-image"]').length > 20,
    null,
    {
      timeout: 60_000,
    },
  );
  printScroll('now/5000-scroll-frame-p95', await scrollCost(browser, page, { x: 600, y: 400 }));
}
