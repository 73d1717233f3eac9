import equal from 'fast-deep-equal';
import {
  drawnItems,
  loopsIn,
  overlays,
  placeOf,
  withoutProvenance,
  programOf,
  segments,
  type Loop,
  type ScreenProgram,
  type Segment,
  type Source,
} from '../forecast';
import type { Instant } from '../instant';
import type { Plan } from '../plan/schema';
import { canonicalJson } from './canonical';

/** What shows in an interval: who wins, and what that one plays. Absent where the plan has no such screen. */
export interface Shown {
  readonly source: Source;
  readonly id: string | null;
  /** The files of its loop, in order; those of a file that plays alone, too. */
  readonly media: readonly string[];
}

export interface Difference {
  readonly from: Instant;
  readonly to: Instant;
  readonly before: Shown | null;
  readonly after: Shown | null;
}

/** Screens that change alike. */
export interface DifferenceGroup {
  readonly screens: readonly string[];
  readonly differences: readonly Difference[];
}

/**
 * How two plans differ by what shows in `[from, to)`: the same winner with another loop differs, another name does not.
 * Screens that change alike are one group, the largest first; screens without a change are left out. With `only`, compares only those
 * screens.
 */
export function diffPlans(
  before: Plan,
  after: Plan,
  from: Instant,
  to: Instant,
  only?: ReadonlySet<string>,
): DifferenceGroup[] {
  // Screens that no selector can tell apart share a program: what is found of one holds for all of them.
  const known = new Map<ScreenProgram | undefined, Map<ScreenProgram | undefined, readonly Difference[]>>();
  const between = (a: ScreenProgram | undefined, b: ScreenProgram | undefined) => {
    const row = known.get(a) ?? new Map<ScreenProgram | undefined, readonly Difference[]>();
    known.set(a, row);
    const found = row.get(b) ?? differencesOf(a, b, from, to);
    row.set(b, found);
    return found;
  };
  const ids = [...new Set([...before.screens, ...after.screens].map(({ id }) => id))]
    .filter((id) => only?.has(id) ?? true)
    .sort();
  return joinedGroups(
    ids.map((id) => ({ screens: [id], differences: between(programOf(before, id), programOf(after, id)) })),
  );
}

/** Groups with those that change alike made one, the largest first; what does not change is left out. */
export function joinedGroups(groups: readonly DifferenceGroup[]): DifferenceGroup[] {
  const texts = new Map<readonly Difference[], string>();
  const joined = new Map<string, { screens: string[]; differences: readonly Difference[] }>();
  for (const { screens, differences } of groups) {
    if (differences.length === 0) continue;
    const text = texts.get(differences) ?? canonicalJson(differences);
    texts.set(differences, text);
    const group = joined.get(text);
    if (group) group.screens.push(...screens);
    else joined.set(text, { screens: [...screens], differences });
  }
  return [...joined.values()].sort((a, b) => b.screens.length - a.screens.length);
}

interface Span {
  readonly from: Instant;
  readonly to: Instant;
  readonly shown: Shown | null;
  /** What makes it the same as another: winner, start of its loop's clock, and the loop itself. */
  readonly key: string;
}

function spansOf(program: ScreenProgram | undefined, from: Instant, to: Instant): Span[] {
  if (!program) return [{ from, to, shown: null, key: '' }];
  const place = placeOf(program);
  const tiles = segments(program, place, from, to);
  return withOverlays(program, tiles, segmentSpans(program, tiles));
}

/** Spans cut where what is drawn above them changes, which is a part of what tells them apart. */
function withOverlays(program: ScreenProgram, tiles: readonly Segment[], spans: Span[]): Span[] {
  if (!program.overlays) return spans;
  const times = overlays(program, placeOf(program), tiles);
  const cuts = [...new Set(times.flatMap((one) => [one.from, one.to]))].sort((a, b) => a - b);
  return spans.flatMap((span) => {
    const within = cuts.filter((at) => at > span.from && at < span.to);
    return [span.from, ...within].map((begin, i): Span => {
      const above = times.filter((one) => one.from <= begin && begin < one.to);
      const key = above.map(({ id, since, layout }) => `\n${id} ${since} ${layoutText(program, layout)}`).join('');
      return { ...span, from: begin, to: within[i] ?? span.to, key: span.key + key };
    });
  });
}

function segmentSpans(program: ScreenProgram, tiles: readonly Segment[]): Span[] {
  const place = placeOf(program);
  return tiles.flatMap((segment) => {
    const { source, id, since } = segment;
    const [own, ...woven] = loopsIn(program, place, { ...segment, from: since ?? segment.from });
    const begun = woven.sort((a, b) => a.from - b.from);
    const cuts = [...new Set(begun.map((one) => one.from).filter((at) => at > segment.from))];
    // From when something is woven in, the loop is another: its own items come later.
    return [segment.from, ...cuts].map((begin, i): Span => {
      const present = begun.filter((one) => one.from <= begin);
      const loops = [...(own ? [own] : []), ...present].map((one) => one.loop);
      return {
        from: begin,
        to: cuts[i] ?? segment.to,
        shown: {
          source,
          id,
          media: loops.flatMap((loop) => drawnItems(program, loop).flatMap(({ media }) => media ?? [])),
        },
        key: [
          ...[source, id, source === 'backdrop' ? null : since, ...loops.map((loop) => contentText(program, loop))],
          present.length > 0 ? canonicalJson(present.map(({ weave }) => ({ ...weave, loop: 0 }))) : '',
        ].join('\n'),
      };
    });
  });
}

/** What tells a layout from another: its zones, with what they show. */
function layoutText(program: ScreenProgram, id: string): string {
  const { zones = [], ...layout } = program.layouts?.[id] ?? {};
  const within = zones.map((zone) => ({ ...zone, loop: zone.loop < 0 ? '' : contentText(program, zone.loop) }));
  return canonicalJson({ ...layout, zones: within });
}

const texts = new WeakMap<ScreenProgram, Map<number, string>>();

/** What tells a loop from another: its items with what their layouts show, how its passes are put in order, and what sounds beside it. Written once a loop. */
function contentText(program: ScreenProgram, loop: number): string {
  const known = texts.get(program) ?? new Map<number, string>();
  texts.set(program, known);
  const found = known.get(loop);
  if (found !== undefined) return found;
  const items: Loop = program.loops[loop] ?? [];
  const { orders, music, bulletins = {} } = program;
  const shown = items.map((item) => ({
    ...withoutProvenance(item),
    ...(item.layout === undefined ? {} : { of: layoutText(program, item.layout) }),
    ...(item.bulletin === undefined ? {} : { of: bulletins[item.bulletin] ?? null }),
  }));
  const text = canonicalJson({ items: shown, order: orders?.[loop] ?? null, music: music?.[loop] ?? null });
  known.set(loop, text);
  return text;
}

function differencesOf(
  old: ScreenProgram | undefined,
  next: ScreenProgram | undefined,
  from: Instant,
  to: Instant,
): Difference[] {
  const [a, b] = [spansOf(old, from, to), spansOf(next, from, to)];
  const found: Difference[] = [];
  for (let i = 0, j = 0; ;) {
    const [left, right] = [a[i], b[j]];
    if (!left || !right) return found;
    const [begin, end] = [Math.max(left.from, right.from), Math.min(left.to, right.to)];
    if (left.key !== right.key && begin < end)
      append(found, { from: begin, to: end, before: left.shown, after: right.shown });
    if (left.to <= end) i++;
    if (right.to <= end) j++;
  }
}

function append(found: Difference[], one: Difference): void {
  const last = found.at(-1);
  const same = last && last.to === one.from && equal(last.before, one.before) && equal(last.after, one.after);
  if (same) found[found.length - 1] = { ...last, to: one.to };
  else found.push(one);
}
