import { DAY, MINUTE, type Instant } from '../instant';
import type { LocalTime } from './dates';

/** The offset changes of a time zone: `offsets[0]` (milliseconds east of UTC) holds before `changes[0]`, `offsets[i]` from `changes[i - 1]` on. */
export interface ZoneTable {
  readonly name: string;
  readonly changes: readonly Instant[];
  readonly offsets: readonly number[];
}

const FIRST = Date.UTC(1990, 0, 1);
const LAST = Date.UTC(2061, 0, 1);
/** Shorter than the shortest time between two changes (a month of fasting with an offset of its own). */
const STEP = 14 * DAY;

const tables = new Map<string, ZoneTable>();

/** Whether this runtime knows the IANA zone. */
export function isZone(name: string): boolean {
  if (!/^[A-Za-z][A-Za-z0-9_+\-/]*$/.test(name)) return false;
  try {
    new Intl.DateTimeFormat('en-US', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/** The zone's offset changes from 1990 to 2060, read from the runtime's own zone data. Throws RangeError for an unknown zone. */
export function zoneTable(name: string): ZoneTable {
  let table = tables.get(name);
  if (!table) tables.set(name, (table = readZone(name)));
  return table;
}

/**
 * Takes zone data from elsewhere, in place of this runtime's own: a browser's may be older or newer than the server's, and a
 * forecast must not depend on where it is made.
 */
export function adoptZones(from: readonly ZoneTable[]): void {
  for (const table of from) tables.set(table.name, table);
}

/** The part of a table that a player needs: changes in `from`..`to` only. */
export function trimZone(table: ZoneTable, from: Instant, to: Instant): ZoneTable {
  const first = table.changes.findIndex((at) => at >= from);
  const begin = first < 0 ? table.changes.length : first;
  const changes = table.changes.slice(begin).filter((at) => at < to);
  return { name: table.name, changes, offsets: table.offsets.slice(begin, begin + changes.length + 1) };
}

function readZone(name: string): ZoneTable {
  const format = new Intl.DateTimeFormat('en-US', { timeZone: name, timeZoneName: 'longOffset', year: 'numeric' });
  const offsetAt = (instant: Instant): number => {
    const match = /GMT(?:([+-])(\d{2}):(\d{2})(?::(\d{2}))?)?$/.exec(format.format(instant));
    if (!match?.[1]) return 0;
    const size = Number(match[2]) * 60 * MINUTE + Number(match[3]) * MINUTE + Number(match[4] ?? 0) * 1000;
    return match[1] === '-' ? -size : size;
  };
  const changes: Instant[] = [];
  const offsets = [offsetAt(FIRST)];
  let before = offsets[0];
  for (let at = FIRST; at < LAST; at += STEP) {
    const after = offsetAt(at + STEP);
    if (after === before) continue;
    let [low, high] = [at, at + STEP];
    while (high - low > 1000) {
      const middle = Math.floor((low + high) / 2000) * 1000;
      if (offsetAt(middle) === before) low = middle;
      else high = middle;
    }
    changes.push(high);
    offsets.push(offsetAt(high));
    before = after;
  }
  return { name, changes, offsets };
}

/** Index of the last value of an ascending list that is at most `value`, or -1. */
function lastAtMost(list: readonly number[], value: number): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((list[middle] ?? Infinity) <= value) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

const thresholds = new WeakMap<ZoneTable, number[]>();

/**
 * The instant at which a wall in this zone reads `time` (RFC 5545 section 3.3.5): a reading that a change of clocks skips
 * is taken with the offset before the gap, one that occurs twice is the first.
 */
export function toInstant(zone: ZoneTable, time: LocalTime): Instant {
  let walls = thresholds.get(zone);
  if (!walls) {
    walls = zone.changes.map((at, i) => at + Math.max(zone.offsets[i] ?? 0, zone.offsets[i + 1] ?? 0));
    thresholds.set(zone, walls);
  }
  return time - (zone.offsets[lastAtMost(walls, time) + 1] ?? 0);
}

/** What a wall in this zone reads at an instant. */
export function toLocalTime(zone: ZoneTable, instant: Instant): LocalTime {
  return (instant + (zone.offsets[lastAtMost(zone.changes, instant) + 1] ?? 0)) as LocalTime;
}
