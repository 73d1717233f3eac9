import type { Page } from '@playwright/test';
import { print } from './figure';
import { withLargeNetwork } from './instance';

const SCREENS = 5000;
const VIEWS = ['day', 'week', 'month', 'year', 'list'] as const;
const LOOK_MS = 5000;
const DRAG_STEPS = 60;
const STEP_MS = 30;

/** Plan with 5 000 screens and 500 bookings: for how long the page's thread is held up at most. */
export async function planBench(): Promise<void> {
  await withLargeNetwork(SCREENS, async (page, _browser, url) => {
    await page.addInitScript(watch);
    await page.goto(`${url}/plan`);
    await page.locator('[data-outcome]').first().waitFor({ timeout: 120_000 });
    await page.waitForTimeout(LOOK_MS);
    for (const view of VIEWS) {
      // Not by its role: looking for that holds up the page's thread itself.
      const button = page.getByLabel('View').locator('button', { hasText: view });
      const open = async () => {
        await button.evaluate((one: HTMLButtonElement) => one.click());
        await page.waitForTimeout(LOOK_MS);
      };
      figure(`plan/${view}-drawn`, await longest(page, open));
      figure(`plan/${view}-looked-at`, await longest(page, () => page.waitForTimeout(LOOK_MS)));
    }
    await page.getByLabel('View').locator('button', { hasText: 'week' }).click();
    await page.waitForTimeout(LOOK_MS);
    figure('plan/week-carrying', await longest(page, () => carry(page)));
  });
}

declare global {
  interface Window {
    /** Milliseconds of each task of more than 50. */
    longTasks: number[];
  }
}

function watch(): void {
  window.longTasks = [];
  new PerformanceObserver((list) => window.longTasks.push(...list.getEntries().map((one) => one.duration))).observe({
    type: 'longtask',
  });
}

/** The longest task on the page's thread during some work, in milliseconds; less than 50 counts as 50. */
async function longest(page: Page, work: () => Promise<unknown>): Promise<number> {
  await page.evaluate(() => {
    window.longTasks = [];
  });
  await work();
  return page.evaluate(() => Math.max(50, ...window.longTasks));
}

/** Carries a bar through the week, and lets it go where it was. */
async function carry(page: Page): Promise<void> {
  const bar = await page.locator('[data-layer="5"] [data-bar]').nth(5).boundingBox();
  if (!bar) throw new Error('the plan has no bar to move');
  const [x, y] = [bar.x + bar.width / 2, bar.y + bar.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 0; i < DRAG_STEPS; i++) {
    await page.mouse.move(x + i * 3, y + (i % 2));
    await page.waitForTimeout(STEP_MS);
  }
  await page.mouse.move(x, y);
  await page.mouse.up();
}

function figure(bench: string, value: number): void {
  print({
    bench,
    value,
    unit: 'ms',
    reference: { what: 'the shortest task that the browser reports', value: 50 },
    goal: 'value <= 50',
    met: value <= 50,
  });
}
