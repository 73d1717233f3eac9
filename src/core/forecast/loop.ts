import { drawnIn, type Drawn, type KnownContent } from '../plan/contents';
import type { Fit, Transition } from '../plan/looks';
import type { When } from '../plan/schema';

/** A loop: what is shown in turn, and how each pass puts that in order. */

/** One turn in a loop: of a file, a layout, a bulletin or an input. It is available when all of `when` hold; an empty list is always. */
export interface LoopItem extends Drawn {
  readonly durationMs: number;
  /** It has no rounds (domain section 10): one play for as long as it is available. */
  readonly stays?: true | undefined;
  /** How far into its film it begins, in milliseconds; absent: at its beginning. */
  readonly fromMs?: number | undefined;
  readonly when: readonly When[];
  /** How the picture before gives way to this one, within this one's time, at most half of it; absent: a cut. */
  readonly transition?: Transition | undefined;
  /** Absent: whole. */
  readonly fit?: Fit | undefined;
  /** Of its film's own sound, over 0 to 1; absent: silent. */
  readonly volume?: number | undefined;
  /**
   * The playlists that it came through, the outermost first; empty for a file that is booked alone. Known only of programs that
   * were narrowed from a plan here: what is sent to players leaves it out, since they have no use for it.
   */
  readonly through?: readonly string[] | undefined;
  /** The place of the item of the outermost playlist that it came by; known as `through` is. */
  readonly place?: number | undefined;
}

export type Loop = readonly LoopItem[];

/** An item without where it came from: what a player needs of it. */
export const withoutProvenance = ({ through: _through, place: _place, ...item }: LoopItem): LoopItem => item;

/** Whether an item's turn shows a content: itself, or a playlist that it came through. Known as `through` is. */
export const comesFrom = (item: LoopItem, { kind, id }: Pick<KnownContent, 'kind' | 'id'>): boolean =>
  kind === 'playlist' ? item.through?.includes(id) === true : item[kind] === id;

/** Whether two turns show the same thing. */
export function showsTheSame(a: Drawn, b: Drawn): boolean {
  const [one, other] = [drawnIn(a), drawnIn(b)];
  return one.kind === other.kind && one.id === other.id;
}

/**
 * How the items of a loop are put in order in each pass (domain section 9): the entries of a playlist, with what they are in the
 * loop, or a playlist that is nested there.
 */
export interface Order {
  readonly playlist: string;
  readonly shuffled: boolean;
  /** By name: the place of the entry in its playlist, and for what a rule collects its place among that. */
  readonly entries: readonly (readonly [name: string, what: number | Order])[];
}

/** Whether anything in it is shuffled. */
export const isShuffled = (order: Order): boolean =>
  order.shuffled || order.entries.some(([, what]) => typeof what !== 'number' && isShuffled(what));

const conditionsKnown = new WeakMap<Loop, readonly When[]>();

/** Every condition of a loop's items. */
export function conditionsOf(loop: Loop): readonly When[] {
  let found = conditionsKnown.get(loop);
  if (!found) conditionsKnown.set(loop, (found = loop.flatMap((item) => item.when)));
  return found;
}
