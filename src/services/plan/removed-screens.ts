import type { Transaction } from 'sequelize';
import { rows, uuidv7 } from '@/database';
import type { Write } from './objects';

/** Players of screens that are removed, and that come back. */

/** So long a removed screen's players are remembered: as long as undo reaches. */
const KEPT = "interval '1 day'";

/** Screens that are removed take their players' tokens with them: their streams end, in all processes, when the edit is made. */
export async function endPlayersOf(networkId: string, writes: readonly Write[], within: Transaction): Promise<void> {
  const gone = writes.filter((one) => one.kind === 'screen' && !one.after).map((one) => one.id);
  if (gone.length === 0) return;
  await rows(`DELETE FROM removed_players WHERE removed_at < now() - ${KEPT}`, [], within);
  await rows(
    `WITH ended AS (
       SELECT p.id, p.part, p.token_hash, p.paired_at, s.slug FROM players p JOIN plan_objects s ON s.id = p.screen_id
       WHERE s.network_id = $1 AND s.kind = 'screen' AND s.slug = ANY($2::text[])),
     kept AS (
       INSERT INTO removed_players (network_id, screen, part, token_hash, paired_at)
       SELECT $1, slug, part, token_hash, paired_at FROM ended
       ON CONFLICT (network_id, screen, part) DO UPDATE
         SET token_hash = excluded.token_hash, paired_at = excluded.paired_at, removed_at = now())
     SELECT pg_notify('lanternpost', jsonb_build_object('kind', 'player', 'network', $1, 'player', id)::text) FROM ended`,
    [networkId, gone],
    within,
  );
}

/** A screen that comes back within a day has its players again, unless they were given to others: their tokens are good once more. */
export async function bringPlayersBack(
  networkId: string,
  writes: readonly Write[],
  within: Transaction,
): Promise<void> {
  const back = writes.filter((one) => one.kind === 'screen' && !one.before && one.after).map((one) => one.id);
  if (back.length === 0) return;
  const found = await rows<{ screen: string; part: number; hash: string; at: Date }>(
    `DELETE FROM removed_players WHERE network_id = $1 AND screen = ANY($2::text[]) AND removed_at > now() - ${KEPT}
     RETURNING screen, part, token_hash AS hash, paired_at AS at`,
    [networkId, back],
    within,
  );
  if (found.length === 0) return;
  await rows(
    `INSERT INTO players (id, network_id, screen_id, part, token_hash, paired_at)
     SELECT t.id, $1, s.id, t.part, t.hash, t.at
     FROM jsonb_to_recordset($2::jsonb) AS t(id uuid, screen text, part smallint, hash text, at timestamptz)
     JOIN plan_objects s ON s.network_id = $1 AND s.kind = 'screen' AND s.slug = t.screen`,
    [networkId, JSON.stringify(found.map((one) => ({ id: uuidv7(), ...one })))],
    within,
  );
  await rows(
    `SELECT pg_notify('lanternpost', jsonb_build_object('kind', 'players', 'network', $1::text)::text)`,
    [networkId],
    within,
  );
}
