import * as z from 'zod';
import { publish, rows, transaction } from '@/database';
import { demand, readInput, record, type Actor } from '../people';

/** The PIN that opens players' own pages on their screens. */

const pinSchema = z
  .string()
  .regex(/^\d{4,8}$/, 'Write 4 to 8 digits.')
  .nullable();

/** The network's PIN; null if players' own pages stay closed. */
export async function playerPin(actor: Actor): Promise<string | null> {
  demand(actor, 'operate');
  const [found] = await rows<{ pin: string | null }>('SELECT player_pin AS pin FROM networks WHERE id = $1', [
    actor.networkId,
  ]);
  return found?.pin ?? null;
}

/** Sets the PIN, or closes players' own pages. Players know it within seconds, or when they are back. Throws 422 for what is no PIN. */
export async function setPlayerPin(actor: Actor, input: unknown): Promise<string | null> {
  demand(actor, 'settings');
  const pin = readInput(pinSchema, input);
  await transaction(async (within) => {
    await rows('UPDATE networks SET player_pin = $2 WHERE id = $1', [actor.networkId, pin], within);
    await record({ ...actor, act: pin === null ? 'player-pin-removed' : 'player-pin-set', about: '' }, within);
    await publish({ kind: 'players', network: actor.networkId }, within);
  });
  return pin;
}
