import type { Content } from './content';
import type { Media, ShownMedia } from './kinds/media';
import type { Item } from './kinds/playlist';

/** Content and items with their kind beside them, for switches that name every kind. No schemas: players use it too. */

export type KnownContent =
  | { readonly kind: 'media'; readonly id: string; readonly durationMs: number | undefined }
  | { readonly kind: 'playlist'; readonly id: string };

export function knownContent(content: Content): KnownContent {
  return content.playlist === undefined
    ? { kind: 'media', id: content.media, durationMs: content.durationMs }
    : { kind: 'playlist', id: content.playlist };
}

/** A content as one word, for finding the same one. */
export function contentKey(content: Content): string {
  const known = knownContent(content);
  return known.kind === 'media' ? `media ${known.id} ${known.durationMs ?? ''}` : `${known.kind} ${known.id}`;
}

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
  if (item.media !== undefined) return { kind: 'media', id: item.media, durationMs: item.durationMs };
  if (item.playlist !== undefined) return { kind: 'playlist', id: item.playlist };
  const { collect, order = 'name', limit = Infinity, durationMs } = item;
  return { kind: 'collect', rule: collect, order, limit, durationMs };
}

/** Whether a file is seen; what is not is a sound. */
export const isShown = (file: Media): file is ShownMedia => file.kind !== 'sound';
