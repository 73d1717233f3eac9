import { MOST_ZONES } from '../plan/kinds/layout';
import { LEAST_SIDE, area, around, overlap, span, withSpan, type Axis, type Placed } from './frame';

/** An id for another zone like this one: `side` gives `side-2`. */
export function freeZoneId(zones: readonly Placed[], like: string): string {
  const taken = new Set(zones.map(({ id }) => id));
  const stem = like.replace(/-\d+$/, '');
  if (!taken.has(stem)) return stem;
  for (let count = 2; ; count++) if (!taken.has(`${stem}-${count}`)) return `${stem}-${count}`;
}

/** Whether a zone is large enough to be split along an axis, and there may be one more. */
export function canSplit(zones: readonly Placed[], id: string, axis: Axis): boolean {
  const zone = zones.find((one) => one.id === id);
  if (!zone || zones.length >= MOST_ZONES) return false;
  const [from, to] = span(zone, axis);
  return to - from >= 2 * LEAST_SIDE;
}

/** The zones with one of them split in the middle: side by side along `x`. The first half keeps what the zone was, `made` gives the other. */
export function split<Z extends Placed>(
  zones: readonly Z[],
  id: string,
  axis: Axis,
  made: (half: Placed, of: Z) => Z,
): Z[] {
  if (!canSplit(zones, id, axis)) return [...zones];
  return zones.flatMap((zone) => {
    if (zone.id !== id) return [zone];
    const [from, to] = span(zone, axis);
    const middle = Math.round((from + to) / 2);
    const { x, y, width, height } = zone;
    const other = withSpan({ id: freeZoneId(zones, id), x, y, width, height }, axis, middle, to);
    return [withSpan(zone, axis, from, middle), made(other, zone)];
  });
}

/** The zones that make a rectangle with a zone, so that both can be joined to one. */
export function joinable<Z extends Placed>(zones: readonly Z[], id: string): Z[] {
  const zone = zones.find((one) => one.id === id);
  if (!zone) return [];
  return zones.filter((one) => {
    if (one.id === id || overlap(one, zone)) return false;
    return area(around(one, zone)) === area(one) + area(zone);
  });
}

/** The zones with `other` taken into `id`: it stays, and gets the room of both. `keep` says what the joined zone is besides its place. */
export function join<Z extends Placed>(
  zones: readonly Z[],
  id: string,
  other: string,
  keep: (zone: Z, taken: Z) => Z = (zone) => zone,
): Z[] {
  const taken = joinable(zones, id).find((one) => one.id === other);
  if (!taken) return [...zones];
  return zones.flatMap((zone) =>
    zone.id === other ? [] : [zone.id === id ? { ...keep(zone, taken), ...around(zone, taken) } : zone],
  );
}

/** The zones with two of them in each other's places, above and below included. Each keeps what it shows, and its name. */
export function swapped<Z extends Placed>(zones: readonly Z[], id: string, other: string): Z[] {
  const [one, two] = [id, other].map((name) => zones.find((zone) => zone.id === name));
  if (!one || !two) return [...zones];
  const into = (zone: Z, { x, y, width, height }: Z): Z => ({ ...zone, x, y, width, height });
  return zones.map((zone) => (zone.id === id ? into(two, one) : zone.id === other ? into(one, two) : zone));
}

/** The zones with one of them a step nearer to the front, or to the back. */
export function lifted<Z extends Placed>(zones: readonly Z[], id: string, by: 1 | -1): Z[] {
  const at = zones.findIndex((one) => one.id === id);
  const to = at + by;
  const [zone, other] = [zones[at], zones[to]];
  if (!zone || !other) return [...zones];
  return zones.map((one, i) => (i === at ? other : i === to ? zone : one));
}
