import equal from 'fast-deep-equal';
import {
  placeOf,
  withoutProvenance,
  programsOf,
  segments,
  type Loop,
  type ScreenProgram,
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
 * Screens that change alike stand in one group, the largest first; screens that show the same are left out.
 */
export function diffPlans(before: Plan, after: Plan, from: Instant, to: Instant): DifferenceGroup[] {
  const [old, next] = [programsOf(before), programsOf(after)];
  const groups = new Map<string, { screens: string[]; differences: readonly Difference[] }>();
  for (const screen of [...new Set([...old.keys(), ...next.keys()])].sort()) {
    const differences = differencesOf(old.get(screen), next.get(screen), from, to);
    if (differences.length === 0) continue;
    const key = canonicalJson(differences);
    const group = groups.get(key);
    if (group) group.screens.push(screen);
    else groups.set(key, { screens: [screen], differences });
  }
  return [...groups.values()].sort((a, b) => b.screens.length - a.screens.length);
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
  return segments(program, placeOf(program), from, to).map(({ from: begin, to: end, source, id, since, loop }) => {
    const items: Loop = program.loops[loop] ?? [];
    return {
      from: begin,
      to: end,
      shown: { source, id, media: items.map((item) => item.media) },
      key: canonicalJson([source, id, source === 'backdrop' ? null : since, items.map(withoutProvenance)]),
    };
  });
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
