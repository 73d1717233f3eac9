import { rows } from '@/database';
import type { Actor } from '../people';

/** What is wrong with stored files, as far as the people of a network can do something about it. */
export interface FileTrouble {
  /** What is wrong with the media folder as a whole, in a sentence; null for nothing. */
  readonly store: string | null;
  /** Media files whose stored copy is damaged or lost. */
  readonly damaged: readonly { readonly id: string; readonly name: string }[];
}

const MOST_NAMED = 50;

export async function fileTrouble({ networkId }: Actor): Promise<FileTrouble> {
  const [store] = await rows<{ problem: string | null }>('SELECT problem FROM store');
  const damaged = await rows<{ id: string; name: string }>(
    `SELECT DISTINCT o.slug AS id, o.name FROM files f
     JOIN media_files m ON f.sha256 IN (m.asset_sha256, m.original_sha256, m.thumbnail_sha256)
     JOIN plan_objects o ON o.id = m.media_id
     WHERE f.damaged_at IS NOT NULL AND m.network_id = $1 ORDER BY o.name LIMIT ${MOST_NAMED}`,
    [networkId],
  );
  return { store: store?.problem ?? null, damaged };
}
