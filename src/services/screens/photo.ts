import { rows } from '@/database';
import { notFound } from '../errors';
import { demand, type Actor } from '../people';
import { smallPicture } from '../small-picture';

/** A photo of the place where a screen hangs: it stays with the screen, whatever plays there and whichever box is behind it. */

/** Photos are kept so large at most, on their longer side. */
const LONGER_SIDE = 1600;
/** An undo brings a deleted screen back with its photo, for so long. */
const KEPT_DAYS = 30;

/** Stores a photo in place of the one before. Throws 404 for no screen, and 422 for what isn't a picture. */
export async function setScreenPhoto(actor: Actor, screen: string, sent: Uint8Array, now = new Date()): Promise<void> {
  demand(actor, 'operate');
  const picture = await smallPicture(sent, LONGER_SIDE);
  const stored = await rows(
    `INSERT INTO screen_photos (network_id, screen, added_at, picture)
     SELECT $1, slug, $3, $4 FROM plan_objects WHERE network_id = $1 AND kind = 'screen' AND slug = $2
     ON CONFLICT (network_id, screen) DO UPDATE SET added_at = $3, picture = $4 RETURNING screen`,
    [actor.networkId, screen, now, picture],
  );
  if (stored.length === 0) throw notFound('screen');
}

/** Deletes a screen's photo. Throws 404 if it has none. */
export async function deleteScreenPhoto(actor: Actor, screen: string): Promise<void> {
  demand(actor, 'operate');
  const gone = await rows('DELETE FROM screen_photos WHERE network_id = $1 AND screen = $2 RETURNING screen', [
    ...[actor.networkId, screen],
  ]);
  if (gone.length === 0) throw notFound('photo');
}

/** A screen's photo: JPEG. Throws 404 for none. */
export async function screenPhoto({ networkId }: Actor, screen: string): Promise<Uint8Array<ArrayBuffer>> {
  const [found] = await rows<{ picture: Buffer }>(
    'SELECT picture FROM screen_photos WHERE network_id = $1 AND screen = $2',
    [networkId, screen],
  );
  if (!found) throw notFound('photo');
  return Uint8Array.from(found.picture);
}

/** Deletes photos of screens that are gone, when those were not changed for a month. Returns how many. */
export async function clearPhotos(now: Date): Promise<number> {
  const gone = await rows(
    `DELETE FROM screen_photos f WHERE NOT EXISTS (
       SELECT 1 FROM plan_objects o WHERE o.network_id = f.network_id AND o.kind = 'screen' AND o.slug = f.screen)
     AND NOT EXISTS (
       SELECT 1 FROM changes c WHERE c.network_id = f.network_id AND c.kind = 'screen' AND c.object = f.screen
         AND c.at > $1::timestamptz - $2 * interval '1 day')
     RETURNING f.screen`,
    [now, KEPT_DAYS],
  );
  return gone.length;
}
