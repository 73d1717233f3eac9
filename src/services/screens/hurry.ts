import { publish, rows } from '@/database';
import { demand, type Actor } from '../people';

/** A notification of the database holds 8000 bytes: so many ids have room in one. */
const AT_ONCE = 150;

/**
 * Asks the players of these screens to try at once what failed and would be tried later. A hint: who has no open line does not hear
 * it, and tries again by itself. Screens without a player, and of other networks, are passed over. How many players were asked.
 */
export async function hurryScreens(actor: Actor, screens: readonly string[]): Promise<{ asked: number }> {
  demand(actor, 'operate');
  const { networkId } = actor;
  const found = await rows<{ id: string }>(
    `SELECT p.id FROM players p JOIN plan_objects s ON s.id = p.screen_id
     WHERE p.network_id = $1 AND s.kind = 'screen' AND s.slug = ANY($2) ORDER BY p.id`,
    [networkId, screens],
  );
  const players = found.map(({ id }) => id);
  for (let at = 0; at < players.length; at += AT_ONCE)
    await publish({ kind: 'hurry', network: networkId, players: players.slice(at, at + AT_ONCE) });
  return { asked: players.length };
}
