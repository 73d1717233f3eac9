import { sha256Hex, sha256Start } from '../sha256';
import type { Instant } from '../instant';
import { intervalAt, type Intervals } from '../when';
import { showsTheSame, type Loop, type Order } from './loop';

/** The order of a pass, before the seam with the pass before it is repaired: indices into the loop. */
function sorted(order: Order, since: Instant, pass: number): number[] {
  const { playlist, shuffled, entries } = order;
  const keyOf = ([name]: Order['entries'][number]) => `${since}:${pass}:${playlist}:${name}`;
  const inOrder = shuffled
    ? entries
        .map((entry) => ({ entry, key: sha256Start(keyOf(entry)) }))
        .sort((a, b) => a.key - b.key || (sha256Hex(keyOf(a.entry)) < sha256Hex(keyOf(b.entry)) ? -1 : 1))
        .map(({ entry }) => entry)
    : entries;
  return inOrder.flatMap(([, what]) => (typeof what === 'number' ? [what] : sorted(what, since, pass)));
}

/**
 * The indices of a loop's items in each pass from the occurrence's start on: the same on every screen, and in every forecast. Passes that were
 * put in order lately are remembered, since each is asked for at every turn, and the one before it for the seam.
 */
class Passes {
  private readonly sorted = new Map<number, readonly number[]>();
  private readonly ready = new Map<number, readonly number[]>();

  constructor(
    private readonly order: Order,
    private readonly loop: Loop,
    private readonly since: Instant,
  ) {}

  of(pass: number): readonly number[] {
    return remembered(this.ready, pass, () => this.withSeam(pass));
  }

  private withSeam(pass: number): readonly number[] {
    const own = this.sortedOf(pass);
    if (!this.order.shuffled || own.length < 3 || pass === 0) return own;
    const alike = (a: number | undefined, b: number | undefined) =>
      showsTheSame(this.loop[a ?? -1] ?? {}, this.loop[b ?? -1] ?? {});
    const [first] = own;
    if (!alike(first, this.sortedOf(pass - 1).at(-1))) return own;
    const other = own.findIndex((index, i) => i > 0 && i < own.length - 1 && !alike(index, first));
    if (other < 0) return own;
    const changed = [...own];
    [changed[0], changed[other]] = [own[other] as number, own[0] as number];
    return changed;
  }

  private sortedOf(pass: number): readonly number[] {
    return remembered(this.sorted, pass, () => sorted(this.order, this.since, pass));
  }
}

/** A day of passes of less than a minute: the next screen of that kind asks for all of them again. */
const MOST_PASSES = 2048;
/** So many indices are remembered of all loops together: some 20 MB. */
const MOST_INDICES = 4_000_000;

/** By the occurrence's start: screens of one kind share them. */
let known = new WeakMap<Order, Map<Instant, Passes>>();
let indices = 0;

function remembered(passes: Map<number, readonly number[]>, pass: number, make: () => readonly number[]) {
  let found = passes.get(pass);
  if (!found) {
    if (passes.size >= MOST_PASSES) passes.clear();
    passes.set(pass, (found = make()));
    indices += found.length;
    if (indices > MOST_INDICES) [known, indices] = [new WeakMap(), 0];
  }
  return found;
}

const MOST_STARTS = 8;

function passesFor(order: Order, loop: Loop, since: Instant): Passes {
  let starts = known.get(order);
  if (!starts) known.set(order, (starts = new Map()));
  let passes = starts.get(since);
  if (!passes) {
    if (starts.size >= MOST_STARTS) starts.clear();
    starts.set(since, (passes = new Passes(order, loop, since)));
  }
  return passes;
}

/** The turns of a loop, one after the other: it goes in passes from its occurrence's start. */
export class Rounds {
  private readonly passes: Passes | null;

  constructor(
    private readonly loop: Loop,
    private readonly order: Order | null,
    private readonly since: Instant,
    /** When each item of the loop may play. */
    readonly available: readonly Intervals[],
    private readonly plain: readonly number[] = loop.map((_, i) => i),
    private pass = 0,
    private place = 0,
  ) {
    this.passes = order && passesFor(order, loop, since);
  }

  /** The same, to go on from here another time. */
  clone(): Rounds {
    const { loop, order, since, available, plain, pass, place } = this;
    return new Rounds(loop, order, since, available, plain, pass, place);
  }

  /** Who is next at an instant, and until when it may play; null where nothing is available. */
  next(at: Instant): { readonly index: number; readonly until: Instant } | null {
    const { length } = this.loop;
    const own = this.inPass(this.pass);
    for (let place = this.place; place < length; place++) {
      const found = this.turn(own[place], at);
      if (found) return found;
    }
    const coming = this.order ? this.inPass(this.pass + 1) : own;
    for (const index of coming) {
      const found = this.turn(index, at);
      if (found) return found;
    }
    return null;
  }

  /** It has its turn: the next comes after it. */
  take(at: Instant): void {
    const { length } = this.loop;
    const own = this.inPass(this.pass);
    while (this.place < length && !this.turn(own[this.place], at)) this.place++;
    if (this.place === length) {
      this.pass++;
      const coming = this.inPass(this.pass);
      this.place = 0;
      while (this.place < length && !this.turn(coming[this.place], at)) this.place++;
    }
    this.place++;
  }

  /**
   * Goes whole passes ahead while nothing that is available changes: answers the instant at which it stands then, at most just
   * before `calm`, since who is next there depends on who played last before it.
   */
  skip(at: Instant, calm: Instant): Instant {
    if (calm <= at || this.loop[0]?.stays) return at;
    let length = 0;
    this.loop.forEach((item, i) => {
      if (intervalAt(this.available[i] ?? [], at)) length += item.durationMs;
    });
    if (length === 0) return at;
    // Passes in an order of their own are left out whole, from their beginning on.
    if (this.order && this.place > 0) {
      const own = this.inPass(this.pass);
      if (own.slice(this.place).some((index) => this.turn(index, at))) return at;
      [this.pass, this.place] = [this.pass + 1, 0];
    }
    const passes = Math.floor((calm - at - 1) / length);
    this.pass += passes;
    return at + passes * length;
  }

  private inPass(pass: number): readonly number[] {
    return this.passes ? this.passes.of(pass) : this.plain;
  }

  private turn(index: number | undefined, at: Instant) {
    const interval = index === undefined ? null : intervalAt(this.available[index] ?? [], at);
    return interval && index !== undefined ? { index, until: interval[1] } : null;
  }
}
