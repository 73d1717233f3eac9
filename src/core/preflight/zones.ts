import { loopsIn, overlays, segmentPlays, type Contest, type ScreenProgram } from '../forecast';
import { layoutInstants, loopInstants } from '../forecast/segments';
import type { Plan } from '../plan/schema';
import { intersect, subtract, union, type Interval, type Intervals } from '../when';

/** What layouts, inputs and cues of a plan come to on screens that see the same. */

/** A zone that has nothing to show while its layout is seen. */
export interface EmptyZone {
  readonly layout: string;
  readonly zone: string;
  readonly times: Intervals;
}

/** When each layout is seen, by its id: as what plays, or above it. */
function layoutTimes({ group: { program, place, segments } }: Contest): ReadonlyMap<string, Intervals> {
  const times = new Map<string, Interval[]>();
  const add = (layout: string, time: Interval) => times.set(layout, [...(times.get(layout) ?? []), time]);
  const hasLayouts = program.loops.map((loop) => loop.some(({ layout }) => layout !== undefined));
  for (const segment of segments) {
    if (!loopsIn(program, place, segment).some(({ loop }) => hasLayouts[loop])) continue;
    for (const { layout, from, to } of segmentPlays(program, place, segment))
      if (layout !== undefined) add(layout, [from, to]);
  }
  for (const { layout, from, to } of overlays(program, place, segments)) add(layout, [from, to]);
  return new Map([...times].map(([layout, list]) => [layout, union(list)]));
}

/** The zones that are empty at some time in `[from, to)` at which their layout is seen. */
export function emptyZones(contest: Contest, from: number, to: number): EmptyZone[] {
  const { program, place } = contest.group;
  if (!program.layouts) return [];
  return [...layoutTimes(contest)].flatMap(([layout, seen]) =>
    (program.layouts?.[layout]?.zones ?? []).flatMap(({ id, loop }): EmptyZone[] => {
      const shows = loop < 0 ? [] : loopInstants(program, program.loops[loop] ?? [], place, from, to);
      const times = subtract(seen, intersect(seen, shows));
      return times.length > 0 ? [{ layout, zone: id, times }] : [];
    }),
  );
}

/** When each input is to be seen, by its name, within `[from, to)`. */
export function inputTimes(contest: Contest, from: number, to: number): ReadonlyMap<string, Intervals> {
  const { program, place, segments } = contest.group;
  const inputs = new Set(program.loops.flatMap((loop) => loop.flatMap(({ input }) => input ?? [])));
  if (inputs.size === 0) return new Map();
  const layouts = layoutTimes(contest);
  const inLayouts = (input: string): Interval[] =>
    [...layouts].flatMap(([layout, seen]) =>
      showsInput(program, layout, input) ? [...intersect(seen, layoutInstants(program, layout, place, from, to))] : [],
    );
  const alone = (input: string): Interval[] =>
    segments.flatMap((segment): Interval[] =>
      loopsIn(program, place, segment).some(({ loop }) => program.loops[loop]?.some((item) => item.input === input))
        ? [[segment.from, segment.to]]
        : [],
    );
  return new Map([...inputs].map((input) => [input, union([...alone(input), ...inLayouts(input)])]));
}

const showsInput = ({ layouts = {}, loops }: ScreenProgram, layout: string, input: string): boolean =>
  layouts[layout]?.zones.some(({ loop }) => loops[loop]?.some((item) => item.input === input)) === true;

/** The cues that no booking waits for. */
export const unusedCues = ({ cues, bookings }: Plan) => {
  const used = new Set(bookings.map(({ cue }) => cue));
  return cues.filter(({ id }) => !used.has(id));
};
