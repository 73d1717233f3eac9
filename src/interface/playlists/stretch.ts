import { itemFiles, type Turn } from '@/core/forecast';
import { isShown, type Item, type Plan } from '@/core/plan';

/** The shortest and the longest duration by stretching, in milliseconds; longer ones are typed. */
const LEAST_MS = 1000;
const MOST_MS = 3_600_000;
/** What a length snaps to, and with Shift. */
const STEP_MS = 500;
const FINE_MS = 100;

/** Whether you can set an item's duration: a video has its own, and so has a playlist. */
export function hasSeconds(plan: Plan, item: Item): boolean {
  if (item.playlist !== undefined) return false;
  if (item.collect !== undefined) return true;
  // A sound is among no files that are shown.
  const files = itemFiles(plan, item);
  return files.length > 0 && files.every((file) => isShown(file) && file.kind === 'image');
}

/** How long an item lasts, in milliseconds, when its end is pulled by so much: in half seconds, or in tenths. */
export function stretched(durationMs: number, byMs: number, fine: boolean): number {
  const step = fine ? FINE_MS : STEP_MS;
  return Math.min(MOST_MS, Math.max(LEAST_MS, Math.round((durationMs + byMs) / step) * step));
}

/** The turns of a pass when those of one item last so long: the rest moves along. */
export function turnsWith(turns: readonly Turn[], item: number, durationMs: number): Turn[] {
  let startMs = 0;
  return turns.map((turn) => {
    const own = { ...turn, startMs, ...(turn.item === item ? { durationMs } : {}) };
    startMs += own.durationMs;
    return own;
  });
}
