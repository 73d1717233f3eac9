import { publish } from '@/database';
import { inTurnMakingWay, takeTurn } from '../plan';
import { deliverEdition } from './deliver';
import { newestEdition } from './frozen';
import { plannedWithin } from './planned-plans';

/** Gives players the renditions that were made since: of a network's newest edition, and of what is planned. */
export async function deliverAgain(networkId: string): Promise<void> {
  await inTurnMakingWay(networkId, async (within) => {
    await takeTurn(networkId, within);
    const newest = await newestEdition(networkId, within);
    let differs = false;
    for (const one of [...(newest ? [newest] : []), ...(await plannedWithin(networkId, within))])
      differs = (await deliverEdition(one, within)) || differs;
    if (differs) await publish({ kind: 'edition', network: networkId }, within);
  });
}
