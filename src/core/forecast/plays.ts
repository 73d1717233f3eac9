import { DAY, type Instant } from '../instant';
import { instantsOf, intersect, intervalAt, type Intervals, type Place } from '../when';
import type { Loop, LoopItem } from './loop';
import type { ProgramWeave, ScreenProgram } from './program';
import { Rounds } from './rounds';
import { itemInstants, type Segment } from './segments';

/** One item's time on screen, clipped to its segment. */
export interface Play {
  readonly from: Instant;
  readonly to: Instant;
  readonly media: string;
  /** When the item's turn began, before any clipping: where a film that is joined in the middle stands. */
  readonly start: Instant;
  /** Index of the item's loop in the program: the segment's, or that of a booking that is woven in. */
  readonly loop: number;
  /** Index of the item in its loop. */
  readonly item: number;
  /** How far into its film it begins, in milliseconds. */
  readonly fromMs: number;
  /** The booking that is woven in; null for the loop's own. */
  readonly weave: string | null;
}

/** The plays of one segment, in order (domain sections 6 and 9). The loop runs from `since`, seen or not. */
export function segmentPlays(program: ScreenProgram, place: Place, segment: Segment): Play[] {
  const { since, from, to, loop } = segment;
  if (!program.loops[loop] || since === null) return [];
  const run = runFor(program, place, segment, since);
  const plays: Play[] = [];
  while (run.at < to) {
    run.skip(from);
    // The boundary before what is seen first: from there it is gone on with when later pieces are asked for.
    const before = plays.length === 0 && isKept(program) && run.at + run.longest > from ? run.checkpoint() : null;
    const turn = run.step(to);
    if (!turn || run.at <= from) continue;
    if (before) keep(program, segment, before);
    plays.push({ ...turn, from: Math.max(turn.start, from), to: Math.min(run.at, to) });
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

/** One item's turn, before it is clipped to what is seen of it. */
type TurnOfItem = Omit<Play, 'from' | 'to'>;

/** A loop as it goes on from its occurrence's start, with what is woven into it. */
class Run {
  constructor(
    private readonly program: ScreenProgram,
    private readonly loop: number,
    private readonly rounds: Rounds,
    private readonly weaves: readonly Weaving[],
    /** The instants at which something begins or ceases to be available, ascending. */
    private readonly edges: readonly Instant[],
    /** Until when it is known what is available. */
    readonly horizon: Instant,
    /** How long its longest item lasts. */
    readonly longest: number,
    public at: Instant,
    private edge = 0,
  ) {}

  /** The same, to go on from here another time. */
  checkpoint(): Run {
    const { program, loop, rounds, weaves, edges, horizon, longest, at, edge } = this;
    return new Run(
      program,
      loop,
      rounds.clone(),
      weaves.map((one) => one.clone()),
      edges,
      horizon,
      longest,
      at,
      edge,
    );
  }

  /** Leaves whole passes out, up to `from`, while nothing that is available changes and nothing is woven in. */
  skip(from: Instant): void {
    this.pastEdges();
    const calm = Math.min(this.edges[this.edge] ?? Infinity, from);
    if (!this.weaves.some(({ on }) => intervalAt(on, this.at))) this.at = this.rounds.skip(this.at, calm);
  }

  /** The next turn, to whose end it goes; null where nothing is available: then to when something is, at most `to`. */
  step(to: Instant): TurnOfItem | null {
    this.pastEdges();
    const turn = this.rounds.next(this.at);
    if (!turn) {
      this.at = this.edges[this.edge] ?? to;
      return null;
    }
    const start = this.at;
    const due = this.weaves.length > 0 ? mostDue(this.weaves, start) : null;
    if (due) {
      this.at = due.weave.begin(start, due);
      return this.turnOf(due.weave.loop, due.index, start, due.weave.id);
    }
    this.rounds.take(start);
    const item = this.program.loops[this.loop]?.[turn.index] as LoopItem;
    this.at = Math.min(start + item.durationMs, turn.until);
    return this.turnOf(this.loop, turn.index, start, null);
  }

  private turnOf(loop: number, index: number, start: Instant, weave: string | null): TurnOfItem {
    const { media, fromMs = 0 } = this.program.loops[loop]?.[index] as LoopItem;
    return { media, start, loop, item: index, fromMs, weave };
  }

  private pastEdges(): void {
    while ((this.edges[this.edge] ?? Infinity) <= this.at) this.edge++;
  }
}

/**
 * Where runs were when they were last asked for. A woven item depends on all plays before it, and without this they would be worked through
 * again for each piece of a day.
 */
const kept = new WeakMap<ScreenProgram, Map<string, Run>>();
/** So many runs are on their way at once on one screen; those that were asked for longest ago are let go. */
const MOST_KEPT = 8;

/** As listed, and with nothing woven in, passes are left out at no cost. */
const isKept = (program: ScreenProgram) => program.weaves !== undefined || program.orders !== undefined;

const keyOf = ({ loop, since, source }: Segment) => `${loop} ${since} ${source === 'takeover'}`;

function keep(program: ScreenProgram, segment: Segment, run: Run): void {
  let runs = kept.get(program);
  if (!runs) kept.set(program, (runs = new Map()));
  const key = keyOf(segment);
  runs.delete(key);
  runs.set(key, run);
  for (const oldest of runs.keys()) if (runs.size > MOST_KEPT) runs.delete(oldest);
}

function runFor(program: ScreenProgram, place: Place, segment: Segment, since: Instant): Run {
  const { from, to, loop, source } = segment;
  const known = kept.get(program)?.get(keyOf(segment));
  if (known && known.at <= from && to <= known.horizon) return known.checkpoint();
  // What is gone on with later is asked about as far as an occurrence mostly lasts.
  const horizon = isKept(program) ? Math.max(to, since + DAY) : to;
  const weaves = source === 'takeover' ? [] : weavesOf(program, place, since, horizon);
  const rounds = roundsOf(program, loop, place, since, horizon);
  const edges = edgesOf([...rounds.available, ...weaves.flatMap(({ on, available }) => [on, ...available])]);
  const items = [loop, ...weaves.map((one) => one.loop)].flatMap((number) => program.loops[number] ?? []);
  const longest = items.reduce((most, { durationMs }) => Math.max(most, durationMs), 0);
  return new Run(program, loop, rounds, weaves, edges, horizon, longest, since);
}

function roundsOf(program: ScreenProgram, number: number, place: Place, since: Instant, to: Instant): Rounds {
  const loop = program.loops[number] as Loop;
  const available = loop.map((item) => itemInstants(item, place, since, to));
  return new Rounds(loop, program.orders?.[number] ?? null, since, available);
}

function weavesOf(program: ScreenProgram, place: Place, since: Instant, to: Instant): Weaving[] {
  return (program.weaves ?? []).flatMap((weave) => {
    // Clipped: what was on before the loop began counts from its beginning.
    const on = intersect(instantsOf(weave.when, place, since, to), [[since, Infinity]]);
    if (!on.some(([begin]) => begin < to)) return [];
    return [new Weaving(weave, on, program.loops[weave.loop] ?? [], roundsOf(program, weave.loop, place, since, to))];
  });
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

/** Shares are counted in whole thousandths. */
const PARTS = 1000;

/** A weave that is due at a boundary, and by how much: in milliseconds for `every`, in thousandths of one for a share. */
interface Due {
  readonly weave: Weaving;
  readonly index: number;
  readonly end: Instant;
  readonly by: number;
}

/** A booking that is woven into one loop, as it goes: what it has aired, and when it last began. */
class Weaving {
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
function mostDue(weaves: readonly Weaving[], at: Instant): Due | null {
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

/** The instants at which something begins or ceases to be available, ascending. */
function edgesOf(available: readonly Intervals[]): Instant[] {
  const edges = available.flatMap((intervals) => intervals.flat()).filter((at) => Number.isFinite(at));
  return [...new Set(edges)].sort((a, b) => a - b);
}
