import { namedIn, type KnownContent } from './contents';
import type { Media, ShownMedia } from './kinds/media';
import type { Item } from './kinds/playlist';

/** Items with their kind beside them, for switches that name every kind. No schemas: players use it too. */

export type KnownItem =
  | KnownContent
  | {
      readonly kind: 'collect';
      readonly rule: string;
      readonly order: 'name' | 'newest' | 'oldest';
      /** Infinity where there is none. */
      readonly limit: number;
      readonly durationMs: number | undefined;
    };

export function knownItem(item: Item): KnownItem {
  if (item.collect === undefined) return namedIn(item) as KnownContent;
  const { collect, order = 'name', limit = Infinity, durationMs } = item;
  return { kind: 'collect', rule: collect, order, limit, durationMs };
}

/** Whether a file is seen; what is not is a sound. */
export const isShown = (file: Media): file is ShownMedia => file.kind !== 'sound';
