import type { Role } from '@/core/roles';
import { rows } from '@/database';
import { makeEnrolmentKey } from '@/services/screens';
import { actorIn } from '@/services/people';

const NAME = 'New boxes';

/** An enrolment key of the sample network, for a box that waits in its tray. Its secret is known only when it is made, so it is made at each start. */
export async function openDemoTray(slug: string): Promise<string | null> {
  const [owner] = await rows<{ personId: string; networkId: string; name: string; role: Role }>(
    `SELECT p.id AS "personId", p.network_id AS "networkId", p.name, p.role FROM people p JOIN networks n ON n.id = p.network_id
     WHERE n.slug = $1 AND p.removed_at IS NULL AND p.role = 'owner' ORDER BY p.created_at, p.id LIMIT 1`,
    [slug],
  );
  if (!owner) return null;
  const ida = actorIn(owner);
  await rows('DELETE FROM enrolment_keys WHERE network_id = $1 AND name = $2', [ida.networkId, NAME]);
  return (await makeEnrolmentKey(ida, { name: NAME, most: 5, days: 30 })).key;
}
