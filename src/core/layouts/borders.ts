import { LEAST_SIDE, isFree, otherAxis, span, withSpan, withZone, type Axis, type Placed, type Size } from './frame';

/** An edge that is pulled as one: where some zones end (`before`), and others begin (`after`). */
export interface Border {
  /** The axis along which it moves: `x` for an upright line. */
  readonly axis: Axis;
  readonly at: number;
  /** How far it reaches, along the other axis. */
  readonly from: number;
  readonly to: number;
  readonly before: readonly string[];
  readonly after: readonly string[];
}

interface Edge {
  readonly id: string;
  readonly isEnd: boolean;
  readonly from: number;
  readonly to: number;
}

/** All borders of some zones. Edges on one line are one border as far as they touch each other, so that pulling it leaves no gap. */
export function bordersOf(zones: readonly Placed[]): Border[] {
  return (['x', 'y'] as const).flatMap((axis) => {
    const lines = new Map<number, Edge[]>();
    for (const zone of zones) {
      const [along, end] = span(zone, axis);
      const [from, to] = span(zone, otherAxis(axis));
      for (const [at, isEnd] of [
        [along, false],
        [end, true],
      ] as const)
        lines.set(at, [...(lines.get(at) ?? []), { id: zone.id, isEnd, from, to }]);
    }
    return [...lines].flatMap(([at, edges]) => joined(edges).map((part) => borderOf(axis, at, part)));
  });
}

/** Edges on one line, parted where none reaches over. */
function joined(edges: readonly Edge[]): Edge[][] {
  const parts: Edge[][] = [];
  let reach = -Infinity;
  for (const edge of [...edges].sort((a, b) => a.from - b.from)) {
    const part = parts.at(-1);
    if (part && edge.from < reach) part.push(edge);
    else parts.push([edge]);
    reach = Math.max(part && edge.from < reach ? reach : -Infinity, edge.to);
  }
  return parts;
}

const borderOf = (axis: Axis, at: number, edges: readonly Edge[]): Border => ({
  ...{ axis, at },
  from: Math.min(...edges.map(({ from }) => from)),
  to: Math.max(...edges.map(({ to }) => to)),
  before: edges.filter(({ isEnd }) => isEnd).map(({ id }) => id),
  after: edges.filter(({ isEnd }) => !isEnd).map(({ id }) => id),
});

/** Between which pixels a border can be pulled: its zones keep `LEAST_SIDE`, and stay in the layout. */
export function limitsOf(
  zones: readonly Placed[],
  { axis, before, after }: Border,
  { width, height }: Size,
): [number, number] {
  const of = (ids: readonly string[]) => zones.filter(({ id }) => ids.includes(id)).map((zone) => span(zone, axis));
  const least = Math.max(0, ...of(before).map(([from]) => from + LEAST_SIDE));
  const most = Math.min(axis === 'x' ? width : height, ...of(after).map(([, to]) => to - LEAST_SIDE));
  return [least, most];
}

/** The zones with a border pulled to a pixel, or as far as it can go. */
export function pulled<Z extends Placed>(zones: readonly Z[], border: Border, to: number, size: Size): Z[] {
  const [least, most] = limitsOf(zones, border, size);
  if (least > most) return [...zones];
  const at = Math.round(Math.min(most, Math.max(least, to)));
  const { axis, before, after } = border;
  return zones.map((zone) => {
    const [from, end] = span(zone, axis);
    if (before.includes(zone.id)) return withSpan(zone, axis, from, at);
    return after.includes(zone.id) ? withSpan(zone, axis, at, end) : zone;
  });
}

/**
 * The margin at each side in which a display's frame may hide something, as a share of the picture: 5 %. From memory, SMPTE ST 2046-1 (2009):
 * titles stay within the middle 90 % of width and height.
 */
export const SAFE_MARGIN = 0.05;

/** Where a border that is pulled along an axis likes to stop: twelfths, the safe margins, and the other zones' edges. */
export function stopsFor(zones: readonly Placed[], axis: Axis, size: Size, without: readonly string[] = []): number[] {
  const whole = axis === 'x' ? size.width : size.height;
  const twelfths = Array.from({ length: 13 }, (_, i) => Math.round((whole * i) / 12));
  const margins = [Math.round(whole * SAFE_MARGIN), Math.round(whole * (1 - SAFE_MARGIN))];
  const edges = zones.flatMap((zone) => (without.includes(zone.id) ? [] : span(zone, axis)));
  return [...new Set([...twelfths, ...margins, ...edges])].sort((a, b) => a - b);
}

/** The nearest stop within so many pixels; else the place itself. */
export function snapped(at: number, stops: readonly number[], within: number): number {
  const near = stops.reduce((best, one) => (Math.abs(one - at) < Math.abs(best - at) ? one : best), Infinity);
  return Math.abs(near - at) <= within ? near : at;
}

/** The four numbers of a zone. */
export type Measure = 'x' | 'y' | 'width' | 'height';

/**
 * The zones with one number of one of them set. A free zone moves, or changes its size alone. In one that is not free the border moves, and the zones
 * beside it follow: for a width the border on the right, or, at the layout's edge, the one on the left.
 */
export function measured<Z extends Placed>(
  zones: readonly Z[],
  id: string,
  measure: Measure,
  pixels: number,
  size: Size,
): Z[] {
  const zone = zones.find((one) => one.id === id);
  if (!zone) return [...zones];
  const axis = measure === 'x' || measure === 'width' ? 'x' : 'y';
  const whole = axis === 'x' ? size.width : size.height;
  const isPlace = measure === 'x' || measure === 'y';
  const [from, to] = span(zone, axis);
  if (isFree(zones, id)) {
    const long = isPlace ? to - from : Math.min(Math.max(pixels, LEAST_SIDE), whole);
    const begin = Math.min(Math.max(isPlace ? pixels : from, 0), whole - long);
    return withZone(zones, id, (one) => withSpan(one, axis, begin, begin + long));
  }
  const atFar = !isPlace && (to < whole || from === 0);
  const border = bordersOf(zones).find(
    (one) => one.axis === axis && (atFar ? one.before : one.after).includes(id) && one.at === (atFar ? to : from),
  );
  const target = isPlace ? pixels : atFar ? from + pixels : to - pixels;
  return border ? pulled(zones, border, target, size) : [...zones];
}
