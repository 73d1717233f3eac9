import type { Instant } from '../instant';
import { instantsOf, intersect, type Place } from '../when';
import type { ProgramWeave, ScreenProgram } from './program';
import type { Segment } from './segments';
import { isKept, keep, strandFor, type TurnOfItem } from './strand';

/** One item's time on screen: its turn, clipped to its segment. */
export interface Play extends TurnOfItem {
  readonly from: Instant;
  readonly to: Instant;
}

/** The plays of one segment, in order (domain sections 6 and 9). The loop runs from `since`, seen or not. */
export function segmentPlays(program: ScreenProgram, place: Place, segment: Segment): Play[] {
  const { since, from, to, loop } = segment;
  if (!program.loops[loop] || since === null) return [];
  const strand = strandFor(program, place, segment, since);
  const plays: Play[] = [];
  while (strand.at < to) {
    strand.skip(from);
    // The boundary before what is seen first: from there it is gone on with when later pieces are asked for.
    const before =
      plays.length === 0 && isKept(program) && strand.at + strand.longest > from ? strand.checkpoint() : null;
    const turn = strand.step(to);
    if (!turn || strand.at <= from) continue;
    if (before) keep(program, segment, before);
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

/** The loops that may show in a segment: its own, and those of bookings that are woven into it, from when they are on. */
export function loopsIn(
  program: ScreenProgram,
  place: Place,
  { source, since, loop, from, to }: Segment,
): readonly { readonly loop: number; readonly from: Instant; readonly weave: ProgramWeave | null }[] {
  if (since === null || loop < 0) return [];
  const woven = source === 'takeover' ? [] : (program.weaves ?? []);
  return [
    { loop, from, weave: null },
    ...woven.flatMap((weave) => {
      const [first] = intersect(instantsOf(weave.when, place, from, to), [[from, to]]);
      return first ? [{ loop: weave.loop, from: first[0], weave }] : [];
    }),
  ];
}
