import { DAY, type Instant } from '../instant';
import { drawnOnly, type Drawn } from '../plan/contents';
import { instantsOf, intersect, intervalAt, type Intervals, type Place } from '../when';
import type { Loop, LoopItem } from './loop';
import type { ScreenProgram } from './program';
import { Rounds } from './rounds';
import { itemInstants, type Segment } from './segments';
import { Weaving, mostDue } from './weaving';

/** One item's turn in a strand: what it shows, named by its kind, and when. */
export interface TurnOfItem extends Drawn {
  /** When it began: where a video that is joined in the middle stands, and where a layout's zones begin. */
  readonly start: Instant;
  /** Index of the item's loop in the program: the strand's, or that of a booking that is woven in. */
  readonly loop: number;
  /** Index of the item in its loop. */
  readonly item: number;
  /** How far into its film it begins, in milliseconds. */
  readonly fromMs: number;
  /** The booking that is woven in; null for the loop's own. */
  readonly weave: string | null;
}

/**
 * A strand: the plays of one loop from its occurrence's start on, with its order and what is woven into it. What shows and the music beside
 * it are strands.
 */
export class Strand {
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
  checkpoint(): Strand {
    const { program, loop, rounds, weaves, edges, horizon, longest, at, edge } = this;
    return new Strand(
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
    this.at = item.stays ? turn.until : Math.min(start + item.durationMs, turn.until);
    return this.turnOf(this.loop, turn.index, start, null);
  }

  private turnOf(loop: number, index: number, start: Instant, weave: string | null): TurnOfItem {
    const item = this.program.loops[loop]?.[index] as LoopItem;
    return { ...drawnOnly(item), start, loop, item: index, fromMs: item.fromMs ?? 0, weave };
  }

  private pastEdges(): void {
    while ((this.edges[this.edge] ?? Infinity) <= this.at) this.edge++;
  }
}

/**
 * Where strands were when they were last asked for. A woven item depends on all plays before it, and without this they would be worked through
 * again for each piece of a day.
 */
const kept = new WeakMap<ScreenProgram, Map<string, Strand>>();
/** So many strands are on their way at once on one screen; those that were asked for longest ago are let go. */
const MOST_KEPT = 8;

/** What a strand is asked for: a loop that runs from `since`, over `[from, to)`, and whether what is woven in is mixed into it. */
export interface Run {
  readonly loop: number;
  readonly since: Instant;
  readonly from: Instant;
  readonly to: Instant;
  readonly woven: boolean;
}

/** What runs in a segment: null where nothing does. Nothing is woven into takeovers, nor into what has no rounds. */
export function runOf(program: ScreenProgram, { loop, since, from, to, source }: Segment): Run | null {
  const [first] = program.loops[loop] ?? [];
  return first && since !== null ? { loop, since, from, to, woven: source !== 'takeover' && !first.stays } : null;
}

/** As listed, and with nothing woven in, passes are left out at no cost. */
export const isKept = (program: ScreenProgram) => program.weaves !== undefined || program.orders !== undefined;

const keyOf = ({ loop, since, woven }: Run) => `${loop} ${since} ${woven}`;

/** Notes where a strand was, to be gone on with from there. */
export function keep(program: ScreenProgram, run: Run, strand: Strand): void {
  let strands = kept.get(program);
  if (!strands) kept.set(program, (strands = new Map()));
  const key = keyOf(run);
  strands.delete(key);
  strands.set(key, strand);
  for (const oldest of strands.keys()) if (strands.size > MOST_KEPT) strands.delete(oldest);
}

/** The strand of a run: from its loop's start on, or from where it was last asked for. */
export function strandFor(program: ScreenProgram, place: Place, run: Run): Strand {
  const { loop, since, from, to, woven } = run;
  const known = kept.get(program)?.get(keyOf(run));
  if (known && known.at <= from && to <= known.horizon) return known.checkpoint();
  // What is gone on with later is asked about as far as an occurrence mostly lasts.
  const horizon = isKept(program) ? Math.max(to, since + DAY) : to;
  const weaves = woven ? weavesOf(program, place, since, horizon) : [];
  const rounds = roundsOf(program, loop, place, since, horizon);
  const edges = edgesOf([...rounds.available, ...weaves.flatMap(({ on, available }) => [on, ...available])]);
  const items = [loop, ...weaves.map((one) => one.loop)].flatMap((number) => program.loops[number] ?? []);
  const longest = items.reduce((most, { durationMs }) => Math.max(most, durationMs), 0);
  return new Strand(program, loop, rounds, weaves, edges, horizon, longest, since);
}

function roundsOf(program: ScreenProgram, number: number, place: Place, since: Instant, to: Instant): Rounds {
  const loop = program.loops[number] as Loop;
  const available = loop.map((item) => itemInstants(program, item, place, since, to));
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

/** The instants at which something begins or ceases to be available, ascending. */
function edgesOf(available: readonly Intervals[]): Instant[] {
  const edges = available.flatMap((intervals) => intervals.flat()).filter((at) => Number.isFinite(at));
  return [...new Set(edges)].sort((a, b) => a - b);
}
