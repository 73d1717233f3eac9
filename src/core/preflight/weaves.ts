import { loopsIn, type Contest, type ProgramWeave, type ScreenProgram } from '../forecast';
import type { Instant } from '../instant';
import { instantsOf, intersect, type Interval, type Intervals } from '../when';

/** Times over which the weaves of some screens promise more than there is, and which they are. */
export interface Promised {
  readonly screens: readonly string[];
  readonly weaves: readonly string[];
  readonly times: Intervals;
  /** How much of the time, at the most: above 1. */
  readonly share: number;
}

/** What a weave takes of the time while it is on: its share, or what its items last on average, from one start to the next. */
function shareOf(program: ScreenProgram, { share, every, loop }: ProgramWeave): number {
  if (every === undefined) return share ?? 0;
  const items = program.loops[loop] ?? [];
  const mean = items.reduce((sum, item) => sum + item.durationMs, 0) / Math.max(1, items.length);
  return mean / Math.max(every, mean);
}

/** Where what is woven in comes to more than all of the time, in `[from, to)`. */
export function promisedTooMuch(contest: Contest, from: Instant, to: Instant): Promised | null {
  const { program, place, screens, segments } = contest.group;
  const weaves = program.weaves ?? [];
  if (weaves.length === 0) return null;
  const on = weaves.map((weave) => ({
    weave,
    part: shareOf(program, weave),
    times: intersect(instantsOf(weave.when, place, from, to), [[from, to]]),
  }));
  const edges = [...new Set(on.flatMap(({ times }) => times.flat()))].sort((a, b) => a - b);
  const met = segments
    .filter((one) => loopsIn(program, place, one).length > 1)
    .map(({ from: a, to: b }): Interval => [a, b]);
  const found: Interval[] = [];
  const names = new Set<string>();
  let most = 0;
  edges.forEach((begin, i) => {
    const end = edges[i + 1];
    if (end === undefined) return;
    const present = on.filter(({ times }) => times.some(([a, b]) => a <= begin && begin < b));
    const sum = present.reduce((all, { part }) => all + part, 0);
    const times = sum > 1 + 1e-9 ? intersect([[begin, end]], met) : [];
    if (times.length === 0) return;
    found.push(...times);
    for (const { weave } of present) names.add(weave.id);
    most = Math.max(most, sum);
  });
  return found.length === 0 ? null : { screens, weaves: [...names].sort(), times: found, share: most };
}
