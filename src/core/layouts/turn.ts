import { area, overlap, span, withSpan, type Axis, type Frame, type Placed, type Size } from './frame';

/** A zone so flat is a line of text across the screen: it stays one when the screen is turned. Height to width. */
const FLAT = 1 / 4;

/**
 * The zones for a screen of the other orientation, as a proposal. What stood side by side comes above each other, with the same shares of the
 * whole, so that the large zone stays the large one. A flat line across the screen stays a line across it, as high in pixels as before. A zone
 * that lies over others keeps its size, as far as there is room, and its distance from the nearest corner.
 */
export function turnedZones<Z extends Placed>(zones: readonly Z[], size: Size): Z[] {
  const next = turnedSize(size);
  const below: Z[] = [];
  const above: Z[] = [];
  for (const zone of zones) (below.some((one) => overlap(one, zone)) ? above : below).push(zone);
  const placed = new Map<string, Frame>();
  lay(below, { x: 0, y: 0, ...size }, { x: 0, y: 0, ...next }, placed);
  for (const zone of above) placed.set(zone.id, inCorner(zone, size, next));
  return zones.map((zone) => {
    const { x, y, width, height } = placed.get(zone.id) ?? zone;
    return { ...zone, x, y, width, height };
  });
}

export const turnedSize = ({ width, height }: Size): Size => ({ width: height, height: width });

/** Lays zones that filled `from` into `to`: parts that a straight cut divides one after the other, each in its own room. */
function lay(zones: readonly Placed[], from: Frame, to: Frame, placed: Map<string, Frame>): void {
  const [only] = zones;
  if (!only) return;
  const cut = zones.length > 1 ? cutOf(zones, from) : null;
  if (!cut) {
    for (const zone of zones) placed.set(zone.id, mirrored(zone, from, to));
    return;
  }
  const { axis, parts } = cut;
  const isLine = ({ frame }: Part) => axis === 'y' && frame.height <= FLAT * frame.width;
  // Rows with a line among them stay rows; all else stands the other way.
  const along: Axis = axis === 'y' && parts.some(isLine) ? 'y' : axis === 'x' ? 'y' : 'x';
  const [begin, end] = span(to, along);
  const long = (part: Part) => {
    const [a, b] = span(part.frame, axis);
    return b - a;
  };
  const all = parts.reduce((sum, part) => sum + long(part), 0);
  const evenly = (part: Part) => ((end - begin) * long(part)) / all;
  const lines = along === axis ? parts.filter(isLine) : [];
  // Where there is less room than before, lines give way as all do: the large zone does not pay for them.
  const asLine = (part: Part) => Math.min(long(part), evenly(part));
  const free = end - begin - lines.reduce((sum, line) => sum + asLine(line), 0);
  const rest = parts.filter((part) => !lines.includes(part)).reduce((sum, part) => sum + long(part), 0);
  const share = (part: Part) =>
    rest === 0 ? evenly(part) : lines.includes(part) ? asLine(part) : (free * long(part)) / rest;
  let at = begin;
  parts.forEach((part, i) => {
    const until = i === parts.length - 1 ? end : Math.round(at + share(part));
    lay(part.zones, part.frame, withSpan(to, along, at, until), placed);
    at = until;
  });
}

interface Part {
  readonly frame: Frame;
  readonly zones: readonly Placed[];
}

/** The parts into which straight cuts from side to side divide some zones: rows, or else columns. Null where no cut goes through. */
function cutOf(zones: readonly Placed[], from: Frame): { readonly axis: Axis; readonly parts: readonly Part[] } | null {
  for (const axis of ['y', 'x'] as const) {
    const sorted = [...zones].sort((a, b) => span(a, axis)[0] - span(b, axis)[0]);
    const groups: { end: number; zones: Placed[] }[] = [];
    for (const zone of sorted) {
      const [begin, end] = span(zone, axis);
      const last = groups.at(-1);
      if (last && begin < last.end) {
        last.zones.push(zone);
        last.end = Math.max(last.end, end);
      } else groups.push({ end, zones: [zone] });
    }
    if (groups.length < 2) continue;
    const [first, end] = span(from, axis);
    let begin = first;
    const parts = groups.map((group, i): Part => {
      const next = groups[i + 1]?.zones[0];
      const until = next ? span(next, axis)[0] : end;
      const part = { frame: withSpan(from, axis, begin, until), zones: group.zones };
      begin = until;
      return part;
    });
    return { axis, parts };
  }
  return null;
}

/** A frame within `from` in the same place of `to`, with across and down exchanged where the two stand otherwise. */
function mirrored(zone: Frame, from: Frame, to: Frame): Frame {
  const turns = from.width > from.height !== to.width > to.height;
  const left = (zone.x - from.x) / from.width;
  const top = (zone.y - from.y) / from.height;
  const [across, down] = [zone.width / from.width, zone.height / from.height];
  const isWhole = across === 1 && down === 1;
  const [x, y, width, height] = turns && !isWhole ? [top, left, down, across] : [left, top, across, down];
  return rounded({
    ...{ x: to.x + x * to.width, y: to.y + y * to.height },
    ...{ width: width * to.width, height: height * to.height },
  });
}

/** Each edge on the nearest pixel, so that zones that touched still do. */
function rounded({ x, y, width, height }: Frame): Frame {
  const [left, top] = [Math.round(x), Math.round(y)];
  return { x: left, y: top, width: Math.round(x + width) - left, height: Math.round(y + height) - top };
}

/** A frame at the same distance from its nearest corner, in its size or as much of it as there is room for. */
function inCorner(zone: Frame, size: Size, next: Size): Frame {
  const scale = Math.min(1, (next.width * 0.9) / zone.width, (next.height * 0.9) / zone.height);
  const [width, height] = [Math.round(zone.width * scale), Math.round(zone.height * scale)];
  const at = (begin: number, long: number, whole: number, nextWhole: number, nextLong: number) => {
    const after = whole - begin - long;
    const place = begin <= after ? begin : nextWhole - nextLong - after;
    return Math.min(Math.max(0, Math.round(place)), nextWhole - nextLong);
  };
  return {
    ...{ width, height },
    x: at(zone.x, zone.width, size.width, next.width, width),
    y: at(zone.y, zone.height, size.height, next.height, height),
  };
}

/** The zone with the most room: the one that people come for. */
export const largest = <Z extends Placed>(zones: readonly Z[]): Z | undefined =>
  zones.reduce<Z | undefined>((best, one) => (best && area(best) >= area(one) ? best : one), undefined);
