import type { Instant } from '../instant';
import { instantsOf, intersect, type Place } from '../when';
import type { LoopItem } from './loop';
import type { ProgramWeave, ScreenProgram } from './program';
import type { Segment } from './segments';
import { isKept, keep, runOf, strandFor, type Run, type TurnOfItem } from './strand';

/** One item's time on screen: its turn, clipped to its segment. */
export interface Play extends TurnOfItem {
  readonly from: Instant;
  readonly to: Instant;
}

/** The plays of one segment, in order (domain sections 6 and 9). The loop runs from `since`, seen or not. */
export function segmentPlays(program: ScreenProgram, place: Place, segment: Segment): Play[] {
  const run = runOf(program, segment);
  return run ? playsOf(program, place, run) : [];
}

/** What a zone of a layout shows, in order. */
export interface ZonePlays {
  readonly zone: string;
  readonly plays: readonly Play[];
}

/** A play with what its zones show in it, where it is a layout's. */
export interface WholePlay extends Play {
  readonly zones?: readonly ZonePlays[] | undefined;
}

/**
 * What each zone of a layout's play shows, clipped to it (domain section 10); undefined for a play of another kind. A zone's clock starts
 * with the layout's turn, seen or not, or, where it goes on, with the winning occurrence.
 */
export function zonePlays(
  program: ScreenProgram,
  place: Place,
  { since }: Pick<Segment, 'since'>,
  { layout, start, from, to }: Play,
): ZonePlays[] | undefined {
  if (layout === undefined) return undefined;
  return (program.layouts?.[layout]?.zones ?? []).map(({ id, loop, goesOn }) => ({
    zone: id,
    plays:
      loop < 0
        ? []
        : playsOf(program, place, { loop, since: goesOn ? (since ?? start) : start, from, to, woven: false }),
  }));
}

function playsOf(program: ScreenProgram, place: Place, run: Run): Play[] {
  const { from, to } = run;
  const strand = strandFor(program, place, run);
  const plays: Play[] = [];
  while (strand.at < to) {
    strand.skip(from);
    // The boundary before what is seen first: from there it is gone on with when later pieces are asked for.
    const before =
      plays.length === 0 && isKept(program) && strand.at + strand.longest > from ? strand.checkpoint() : null;
    const turn = strand.step(to);
    if (!turn || strand.at <= from) continue;
    if (before) keep(program, run, before);
    plays.push({ ...turn, from: Math.max(turn.start, from), to: Math.min(strand.at, to) });
  }
  return plays;
}

/** What is heard beside a segment's loop: the turns of its music, whose clock runs from the same start. None where it has no music. */
export function musicPlays(program: ScreenProgram, place: Place, segment: Segment): Play[] {
  const music = program.music?.[segment.loop];
  if (!music) return [];
  const { weaves: _weaves, music: _music, orders: _orders, ...bare } = program;
  const heard = { ...bare, loops: [music.loop], ...(music.order ? { orders: [music.order] } : {}) };
  return segmentPlays(heard, place, { ...segment, loop: 0 });
}

/** The loops of the zones that a loop's layouts have. */
export const zoneLoops = ({ loops, layouts = {} }: ScreenProgram, loop: number): readonly number[] =>
  (loops[loop] ?? []).flatMap(({ layout = '' }) =>
    (layouts[layout]?.zones ?? []).flatMap((zone) => (zone.loop < 0 ? [] : [zone.loop])),
  );

/** The turns that a layout's zones may draw. */
export const layoutItems = ({ loops, layouts = {} }: ScreenProgram, layout: string): readonly LoopItem[] =>
  (layouts[layout]?.zones ?? []).flatMap(({ loop }) => loops[loop] ?? []);

/** The turns that a loop's showing may draw: its own, and those in its layouts' zones. */
export const drawnItems = (program: ScreenProgram, loop: number): readonly LoopItem[] =>
  [loop, ...zoneLoops(program, loop)].flatMap((number) => program.loops[number] ?? []);

/** The loops that may show in a segment: its own, and those of bookings that are woven into it, from when they are on. */
export function loopsIn(
  program: ScreenProgram,
  place: Place,
  { source, since, loop, from, to }: Segment,
): readonly { readonly loop: number; readonly from: Instant; readonly weave: ProgramWeave | null }[] {
  if (since === null || loop < 0) return [];
  const woven = source === 'takeover' || program.loops[loop]?.[0]?.stays ? [] : (program.weaves ?? []);
  return [
    { loop, from, weave: null },
    ...woven.flatMap((weave) => {
      const [first] = intersect(instantsOf(weave.when, place, from, to), [[from, to]]);
      return first ? [{ loop: weave.loop, from: first[0], weave }] : [];
    }),
  ];
}
