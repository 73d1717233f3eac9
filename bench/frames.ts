import type { Browser, Page } from '@playwright/test';
import { quantile } from 'd3-array';
import { print } from './figure';

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

/** What frames cost during scrolling, in milliseconds of scripting and layout. */
export interface ScrollCost {
  /** 95 of 100 frames cost at most this of the thread's own time. */
  readonly p95: number;
  /** The same on the clock, with what other programs took of it. */
  readonly onTheClock: number;
  readonly frames: number;
  /** Pixels a second. */
  readonly pace: number;
}

/** Scrolls what is under a point of the page, and takes the cost of every frame from Chromium's trace. */
export async function scrollCost(
  browser: Browser,
  page: Page,
  at: { readonly x: number; readonly y: number },
): Promise<ScrollCost> {
  await page.mouse.move(at.x, at.y);
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
  const own = frameCosts(traceEvents, ({ tdur, dur = 0 }) => tdur ?? dur);
  return {
    p95: quantile(own, 0.95) ?? NaN,
    onTheClock:
      quantile(
        frameCosts(traceEvents, ({ dur = 0 }) => dur),
        0.95,
      ) ?? NaN,
    frames: own.length,
    pace: Math.round((WHEEL_STEPS * WHEEL_PIXELS) / seconds),
  };
}

/** Prints the cost of scrolling as a figure. */
export function printScroll(bench: string, { p95, onTheClock, frames, pace }: ScrollCost): void {
  print({
    bench,
    value: p95,
    unit: 'ms',
    reference: {
      what: `a frame at 60 a second; ${frames} frames at ${pace} pixels a second, ${onTheClock.toFixed(1)} ms on the clock, with what other programs took of it`,
      value: 1000 / 60,
    },
    goal: 'value < 8',
    met: p95 < 8,
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
