import type { Actor } from '../people';
import { collectToken, pairScreen, playerOf, startPairing, type Player } from '../screens';

/** A player, paired with a screen. */
export async function pairedPlayer(actor: Actor, screen: string): Promise<Player> {
  const { deviceCode, userCode } = await startPairing('10.0.0.1');
  await pairScreen(actor, screen, userCode, '10.0.0.1');
  const collected = await collectToken(deviceCode);
  const found = await playerOf(typeof collected === 'string' ? '' : collected.token);
  if (!found) throw new Error('no player');
  return found;
}
