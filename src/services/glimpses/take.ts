import { LRUCache } from 'lru-cache';
import { v7 as uuidv7 } from 'uuid';
import { Refusal } from '@/core/refusal';
import { enqueue, publish, rows, transaction } from '@/database';
import { smallPicture } from '../small-picture';

/** The players' side: a picture comes in, is made small, and waits to be compared. */

/** A screen that a player is paired with. */
interface Place {
  readonly id: string;
  readonly networkId: string;
  readonly screen: { readonly id: string };
  readonly part: number;
}

/** Pictures are kept so large at most, on their longer side. */
export const LONGER_SIDE = 640;
/** A player sends pictures so far apart, or is refused. */
const APART_MS = 500;
/** A player's time of a picture is believed if it lies so near to ours. */
const CLOCK_TOLERANCE_MS = 30_000;

const last = new LRUCache<string, number>({ max: 50_000, ttl: 10 * APART_MS });

/**
 * Stores a picture of a player's screen. Throws 403 for a private screen, 422 for a body that isn't a picture, and 429 for pictures in too quick a
 * succession.
 */
export async function takeGlimpse(
  player: Place,
  sent: Uint8Array,
  { at, program }: { readonly at: number; readonly program?: string | undefined },
  now = Date.now(),
): Promise<void> {
  const { id: playerId, networkId, screen, part } = player;
  if (now - (last.get(playerId) ?? 0) < APART_MS) throw new Refusal(429, 'Wait a moment before the next picture.');
  last.set(playerId, now);
  const picture = await smallPicture(sent, LONGER_SIDE);
  const id = uuidv7();
  await transaction(async (within) => {
    const takenAt = Math.abs(at - now) < CLOCK_TOLERANCE_MS ? at : now;
    // Without a lock on the screen: an edit that changes many screens would wait for it, and it for the edit. A screen that is made
    // private at this moment hides its pictures by itself (`read.ts`).
    const stored = await rows(
      `INSERT INTO glimpses (id, network_id, screen, part, taken_at, received_at, program, picture)
       SELECT $1, $2, slug, $8, $4, $5, $6, $7 FROM plan_objects WHERE network_id = $2 AND kind = 'screen' AND slug = $3
         AND NOT COALESCE((document->>'private')::boolean, false) RETURNING id`,
      [id, networkId, screen.id, new Date(takenAt), new Date(now), program ?? null, picture, part],
      within,
    );
    if (stored.length === 0) throw new Refusal(403, 'This screen is private. No pictures are taken of it.');
    await rows(
      `DELETE FROM glimpses WHERE network_id = $1 AND screen = $2 AND part = $3 AND id NOT IN (
         SELECT id FROM glimpses WHERE network_id = $1 AND screen = $2 AND part = $3 ORDER BY taken_at DESC
         LIMIT (SELECT kept_pictures FROM networks WHERE id = $1))`,
      [networkId, screen.id, part],
      within,
    );
    await enqueue('compare-glimpse', { glimpse: id }, within);
    await publish({ kind: 'glimpses', network: networkId, screens: [screen.id] }, within);
  });
}
