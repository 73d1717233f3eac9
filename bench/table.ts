import type { Page } from '@playwright/test';
import { median, print, timed } from './figure';
import { printScroll, scrollCost } from './frames';
import { playersThatBeat, printIdle } from './idle';
import { bindAgain, withLargeNetwork } from './instance';

const SCREENS = 5000;
const ROUNDS = 5;
const ROW = '[role=grid] [data-row]';

/** The table of 5 000 screens: its first rows, a filter, a sort, scrolling; and what it costs to leave it, or the list by sites, open while all players beat. */
export async function tableBench(): Promise<void> {
  await withLargeNetwork(SCREENS, async (page, browser, url, actor) => {
    bindAgain();
    const beat = await playersThatBeat(actor);
    await beat(0, SCREENS);
    const table = `${url}/screens/table`;
    // The bench's compiler keeps functions' names by this, and the page doesn't have it.
    await page.addInitScript({ content: 'globalThis.__name = (one) => one;' });
    await firstRows(page, url, table);
    await beat(0, SCREENS);
    await page.waitForTimeout(3000);
    await answers(page);
    printScroll('table/5000-scroll-frame-p95', await scrollCost(browser, page, { x: 600, y: 500 }));
    const minutely = '/api/screens/overview';
    await printIdle('table/idle', { page, url: table, ready: ROW, minutely }, beat, SCREENS);
    await printIdle('screens/idle', { page, url: `${url}/screens`, ready: '[data-screen-row]' }, beat, SCREENS);
  });
}

async function firstRows(page: Page, url: string, table: string): Promise<void> {
  const load = (address: string, ready: () => boolean) =>
    timed(async () => {
      await page.goto(address, { waitUntil: 'commit' });
      await page.waitForFunction(ready);
    });
  const [values, references]: [number[], number[]] = [[], []];
  for (let i = 0; i < ROUNDS; i++) {
    references.push(await load(`${url}/player`, () => document.readyState === 'complete'));
    values.push(await load(table, () => document.querySelectorAll('[role=grid] [data-row]').length >= 10));
  }
  const value = median(values);
  print({
    ...{ bench: 'table/5000-first-rows', value, unit: 's', goal: 'value < 0.6', met: value < 0.6 },
    reference: { what: 'the player page, which is nearly empty', value: median(references) },
  });
}

/** From what a person does to the frame in which the table shows it, in milliseconds. */
async function shownAfter(page: Page, act: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    const grid = document.querySelector('[role=grid]') as HTMLElement;
    let begun = 0;
    const begin = () => (begun ||= performance.now());
    for (const event of ['input', 'click']) addEventListener(event, begin, { capture: true, once: true });
    Object.assign(window, {
      shown: new Promise<number>((done) => {
        const observer = new MutationObserver(() => {
          observer.disconnect();
          // After the frame in which it is painted.
          requestAnimationFrame(() => setTimeout(() => done(performance.now() - begun)));
        });
        observer.observe(grid, { subtree: true, childList: true, attributes: true, characterData: true });
      }),
    });
  });
  await act();
  return page.evaluate(() => (window as unknown as { shown: Promise<number> }).shown);
}

/** How quickly it answers to a filter and to a sort. */
async function answers(page: Page): Promise<void> {
  const find = page.getByLabel('Find screens');
  const [filters, sorts]: [number[], number[]] = [[], []];
  for (const words of ['Screen 1', 'Screen 12', '', 'Site 7', '']) {
    filters.push(await shownAfter(page, () => find.fill(words)));
    await page.waitForTimeout(500);
  }
  for (const column of ['Site', 'State', 'Screen', 'Site', 'Screen']) {
    const header = page.getByRole('columnheader', { name: column, exact: true }).getByRole('button');
    sorts.push(await shownAfter(page, () => header.click()));
    await page.waitForTimeout(500);
  }
  const reference = { what: 'what is still taken for at once (0.1 s, common practice)', value: 100 };
  for (const [bench, values] of [
    ['table/5000-filter', filters],
    ['table/5000-sort', sorts],
  ] as const) {
    const value = median(values);
    print({ bench, value, unit: 'ms', reference, goal: 'value < 100', met: value < 100 });
  }
}
