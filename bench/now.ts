import type { Browser, Page } from '@playwright/test';
import { withLargeNetwork } from './instance';
import { median, print, timed } from './figure';

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

const WHEEL_STEPS = 300;
const WHEEL_PIXELS = 60;
const FRAME_MS = 16;

interface TraceEvent {
  readonly name: string;
  readonly ph: string;
  readonly ts: number;
  readonly dur?: number;
  /** The thread's own time within it: what other programs took in between is not in it. */
  readonly tdur?: number;
  readonly pid: number;
  readonly tid: number;
}

/** Scrolls through the streets, and takes the scripting and layout of every frame from Chromium's trace. */
async function scrolling(browser: Browser, page: Page): Promise<void> {
  await page.waitForFunction(
    () => document.querySelectorAll('.mini-tile[style*="background-image"]').length > 20,
    null,
    {
      timeout: 60_000,
    },
  );
  await page.mouse.move(600, 400);
  await browser.startTracing(page, {
    categories: [
      'devtools.timeline',
      'devtools.timeline.frame',
      'disabled-by-default-devtools.timeline',
      'disabled-by-default-devtools.timeline.frame',
      'cc',
      'benchmark',
      'v8',
    ],
  });
  const begun = await page.evaluate(() => performance.now());
  for (let i = 0; i < WHEEL_STEPS; i++) {
    await page.mouse.wheel(0, WHEEL_PIXELS);
    await page.waitForTimeout(FRAME_MS);
  }
  const seconds = ((await page.evaluate(() => performance.now())) - begun) / 1000;
  const { traceEvents } = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: TraceEvent[] };
  const p95 = (frames: readonly number[]) => [...frames].sort((a, b) => a - b)[Math.floor(frames.length * 0.95)] ?? NaN;
  const frames = frameCosts(traceEvents, ({ tdur, dur = 0 }) => tdur ?? dur);
  const onTheClock = p95(frameCosts(traceEvents, ({ dur = 0 }) => dur));
  const value = p95(frames);
  const pace = Math.round((WHEEL_STEPS * WHEEL_PIXELS) / seconds);
  print({
    bench: 'now/5000-scroll-frame-p95',
    value,
    unit: 'ms',
    reference: {
      what: `a frame at 60 a second; ${frames.length} frames at ${pace} pixels a second, ${onTheClock.toFixed(1)} ms on the clock, with what other programs took of it`,
      value: 1000 / 60,
    },
    goal: 'value < 8',
    met: value < 8,
  });
}

const WORK = new Set([
  'FunctionCall',
  'EvaluateScript',
  'EventDispatch',
  'FireAnimationFrame',
  'RunMicrotasks',
  'TimerFire',
  'Layout',
  'UpdateLayoutTree',
  'MinorGC',
  'MajorGC',
]);

/** Milliseconds of scripting and layout in each frame of the page's main thread, by `lasting` in microseconds; what is nested counts once. */
function frameCosts(events: readonly TraceEvent[], lasting: (event: TraceEvent) => number): number[] {
  const perThread = new Map<string, TraceEvent[]>();
  for (const event of events) {
    const key = `${event.pid} ${event.tid}`;
    const list = perThread.get(key);
    if (list) list.push(event);
    else perThread.set(key, [event]);
  }
  // The page's thread is the one that makes layouts most.
  const [main = []] = [...perThread.values()].sort(
    (a, b) => b.filter((one) => one.name === 'Layout').length - a.filter((one) => one.name === 'Layout').length,
  );
  const begins = main
    .filter((one) => one.name === 'BeginMainThreadFrame')
    .map((one) => one.ts)
    .sort((a, b) => a - b);
  const work = main.filter((one) => one.ph === 'X' && WORK.has(one.name)).sort((a, b) => a.ts - b.ts);
  const costs = begins.map(() => 0);
  let covered = 0;
  let frame = 0;
  for (const event of work) {
    const { ts, dur = 0 } = event;
    if (ts < covered) continue;
    covered = ts + dur;
    while (frame + 1 < begins.length && (begins[frame + 1] ?? Infinity) <= ts) frame++;
    costs[frame] = (costs[frame] ?? 0) + lasting(event) / 1000;
  }
  return costs;
}
