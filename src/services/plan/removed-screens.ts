import type { Transaction } from 'sequelize';
import { rows } from '@/database';
import type { Write } from './objects';

/** Screens that are removed take their players' tokens with them: their streams end, in all processes, when the edit is made. */
export async function endPlayersOf(networkId: string, writes: readonly Write[], within: Transaction): Promise<void> {
  const gone = writes.filter((one) => one.kind === 'screen' && !one.after).map((one) => one.id);
  if (gone.length === 0) return;
  await rows(
    `SELECT pg_notify('lanternpost', jsonb_build_object('kind', 'player', 'network', p.network_id, 'player', p.id)::text)
     FROM players p JOIN plan_objects s ON s.id = p.screen_id
     WHERE s.network_id = $1 AND s.kind = 'screen' AND s.slug = ANY($2::text[])`,
    [networkId, gone],
    within,
  );
}
