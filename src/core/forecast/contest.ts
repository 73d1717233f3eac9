import type { Instant } from '../instant';
import type { Plan } from '../plan/schema';
import { instantsOf, intersect, subtract, type Intervals } from '../when';
import { NetworkForecast, type GroupForecast } from './network';
import { loopsIn, segmentPlays } from './plays';
import { overlays } from './drawn';
import type { ProgramOverlay, ProgramWeave } from './program';
import {
  candidates,
  layoutInstants,
  lightsOutInstants,
  loopInstants,
  overlapping,
  type Candidate,
  type Segment,
  type Source,
} from './segments';

/**
 * What becomes of a booking on screens that see the same, over a range: it shows; it does not reach them, or has no item for them;
 * its cue was not fired; it has no time, or nothing available in its time; the displays are off in all of its time; or others are ahead of it.
 */
export type BookingState =
  'shows' | 'waits for its cue' | 'not here' | 'no time' | 'nothing to show' | 'off' | 'hidden';

/** Who shows and who waits on screens that see the same, over a range. What costs is found when it is first asked for. */
export class Contest {
  private readonly showing: ReadonlyMap<string, readonly Segment[]>;
  private others: ReadonlyMap<string, readonly Candidate[]> | undefined;
  private off: Intervals | undefined;

  constructor(
    readonly group: GroupForecast,
    private readonly from: Instant,
    private readonly to: Instant,
  ) {
    this.showing = byBooking(group.segments);
  }

  /** All that could show here. Mostly computed at each call and not remembered: a large network has millions. */
  candidates(): readonly Candidate[] {
    const all = candidates(this.group.program, this.group.place, this.from, this.to);
    this.others ??= byBooking(all.filter((one) => !this.showing.has(one.id)));
    return all;
  }

  /** Where a booking shows. */
  shown(booking: string): readonly Segment[] {
    return this.showing.get(booking) ?? [];
  }

  /** The occurrences of a booking that shows at no instant here. */
  waiting(booking: string): readonly Candidate[] {
    if (!this.others) this.candidates();
    return this.others?.get(booking) ?? [];
  }

  /** The hours in which the displays are off. */
  lightsOut(): Intervals {
    const { program, place } = this.group;
    return (this.off ??= lightsOutInstants(program, place, this.from, this.to));
  }

  stateOf(booking: string): BookingState {
    if (this.showing.has(booking)) return 'shows';
    const weave = this.group.program.weaves?.find((one) => one.id === booking);
    if (weave) return this.stateOfWeave(weave);
    const overlay = this.group.program.overlays?.find((one) => one.id === booking);
    if (overlay) return this.stateOfOverlay(overlay);
    const own = this.group.program.bookings.find((one) => one.id === booking);
    if (!own) return 'not here';
    if (own.cue !== undefined) return 'waits for its cue';
    const waiting = this.waiting(booking);
    if (waiting.length === 0) return 'no time';
    if (waiting.every((one) => one.counts.length === 0)) return 'nothing to show';
    const off = waiting.every((one) => !one.wake && subtract(one.counts, this.lightsOut()).length === 0);
    return off ? 'off' : 'hidden';
  }

  /** What is drawn over everything shows while its layout has something to show and the display is lit. */
  private stateOfOverlay({ id, when, layout }: ProgramOverlay): BookingState {
    const { program, place, segments } = this.group;
    const on = intersect(instantsOf(when, place, this.from, this.to), [[this.from, this.to]]);
    if (on.length === 0) return 'no time';
    if (intersect(on, layoutInstants(program, layout, place, this.from, this.to)).length === 0)
      return 'nothing to show';
    if (overlays(program, place, segments).some((one) => one.id === id)) return 'shows';
    return subtract(on, this.lightsOut()).length === 0 ? 'off' : 'hidden';
  }

  /** What is woven in shows where a loop goes on while it is on. */
  private stateOfWeave({ id, when, loop }: ProgramWeave): BookingState {
    const { program, place, segments } = this.group;
    const on = intersect(instantsOf(when, place, this.from, this.to), [[this.from, this.to]]);
    if (on.length === 0) return 'no time';
    if (intersect(on, loopInstants(program, program.loops[loop] ?? [], place, this.from, this.to)).length === 0)
      return 'nothing to show';
    const met = segments.filter((segment) => loopsIn(program, place, segment).some(({ weave }) => weave?.id === id));
    const airs = met.some((segment) => segmentPlays(program, place, segment).some(({ weave }) => weave === id));
    return airs ? 'shows' : 'hidden';
  }
}

/** One contest for each group of screens that no selector tells apart, over `[from, to)`. */
export const contestsOf = (plan: Plan, from: Instant, to: Instant): Contest[] =>
  new NetworkForecast(from, to).outcomes(plan).map((group) => new Contest(group, from, to));

/**
 * Who shows while a booking, which has something to show, waits: booking ids, a backdrop's level, or `lights-out`; who is ahead
 * longest first, each screen counted.
 */
export function hidersOf(booking: string, contests: readonly Contest[]): string[] {
  const total = new Map<string, number>();
  for (const contest of contests)
    for (const [winner, ms] of aheadOf(contest.waiting(booking), contest.group.segments))
      total.set(winner, (total.get(winner) ?? 0) + ms * contest.group.screens.length);
  return [...total].sort((a, b) => b[1] - a[1]).map(([winner]) => winner);
}

/** Of segments in order, how long each winner shows while the given candidates count, in milliseconds. */
function aheadOf(waiting: readonly Candidate[], segments: readonly Segment[]): Map<string, number> {
  const time = new Map<string, number>();
  for (const mine of waiting)
    for (const segment of overlapping(segments, mine.since, mine.until)) {
      const covered = intersect(mine.counts, [[segment.from, segment.to]]);
      const ms = covered.reduce((sum, [begin, end]) => sum + end - begin, 0);
      const winner = segment.source === 'lights-out' ? segment.source : segment.id;
      if (ms > 0 && winner !== null) time.set(winner, (time.get(winner) ?? 0) + ms);
    }
  return time;
}

/** Bookings' own, by the booking's id. */
function byBooking<T extends { readonly source: Source; readonly id: string | null }>(
  all: readonly T[],
): Map<string, T[]> {
  const found = new Map<string, T[]>();
  for (const one of all) {
    if ((one.source !== 'booking' && one.source !== 'takeover') || one.id === null) continue;
    const list = found.get(one.id);
    if (list) list.push(one);
    else found.set(one.id, [one]);
  }
  return found;
}
