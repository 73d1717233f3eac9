import type { Instant } from '../instant';
import { intervalAt, type Intervals } from '../when';
import type { Loop, LoopItem } from './loop';
import type { ProgramWeave } from './program';
import type { Rounds } from './rounds';

/** Shares are counted in whole thousandths. */
const PARTS = 1000;

/** A weave that is due at a boundary, and by how much: in milliseconds for `every`, in thousandths of one for a share. */
export interface Due {
  readonly weave: Weaving;
  readonly index: number;
  readonly end: Instant;
  readonly by: number;
}

/** A booking that is woven into one loop, as it goes: what it has aired, and when it last began. */
export class Weaving {
  readonly id: string;
  readonly loop: number;
  readonly available: readonly Intervals[];

  constructor(
    readonly program: ProgramWeave,
    readonly on: Intervals,
    private readonly items: Loop,
    private readonly rounds: Rounds,
    private aired = 0,
    private begun: Instant | null = null,
  ) {
    this.id = program.id;
    this.loop = program.loop;
    this.available = rounds.available;
  }

  clone(): Weaving {
    return new Weaving(this.program, this.on, this.items, this.rounds.clone(), this.aired, this.begun);
  }

  /** Whether it is due at a boundary of the loop, and by how much; null where it is not. */
  due(at: Instant): Due | null {
    const on = intervalAt(this.on, at);
    const turn = on && this.rounds.next(at);
    if (!on || !turn) return null;
    const { durationMs } = this.items[turn.index] as LoopItem;
    const by = this.by(at, on[0], durationMs);
    return by < 0 ? null : { weave: this, index: turn.index, end: Math.min(at + durationMs, turn.until, on[1]), by };
  }

  /** It begins, and is on until its end, which is answered. */
  begin(at: Instant, { end }: Due): Instant {
    this.rounds.take(at);
    this.aired += end - at;
    this.begun = at;
    return end;
  }

  private by(at: Instant, onSince: Instant, durationMs: number): number {
    const { every, share = 0 } = this.program;
    if (every !== undefined) return at - (this.begun ?? onSince) - every;
    const time = this.on.reduce((sum, [begin, end]) => sum + Math.max(0, Math.min(end, at) - begin), 0);
    return Math.round(share * PARTS) * (time + durationMs) - PARTS * (this.aired + durationMs);
  }
}

/** Of those that are due, `every` goes before share, then the one furthest behind, the higher priority, the greater id. */
export function mostDue(weaves: readonly Weaving[], at: Instant): Due | null {
  let most: Due | null = null;
  for (const weave of weaves) {
    const due = weave.due(at);
    if (due && (!most || goesBefore(due, most))) most = due;
  }
  return most;
}

function goesBefore(a: Due, b: Due): boolean {
  const [one, other] = [a.weave.program, b.weave.program];
  const timed = Number(one.every !== undefined) - Number(other.every !== undefined);
  if (timed !== 0) return timed > 0;
  if (a.by !== b.by) return a.by > b.by;
  return one.priority !== other.priority ? one.priority > other.priority : one.id > other.id;
}
