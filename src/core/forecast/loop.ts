import type { KnownContent } from '../plan/contents';
import type { Fit, Transition } from '../plan/kinds/playlist';
import type { When } from '../plan/schema';

/** A loop: files in turn, and how each pass puts them in order. */

/** One file's turn in a loop. It is available when all of `when` hold; an empty list is always. */
export interface LoopItem {
  readonly media: string;
  readonly durationMs: number;
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

/** Whether an item's turn shows a content: its file, or what it came through. Known as `through` is. */
export const comesFrom = (item: LoopItem, { kind, id }: Pick<KnownContent, 'kind' | 'id'>): boolean =>
  kind === 'media' ? item.media === id : item.through?.includes(id) === true;

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
