import { AsyncLocalStorage } from 'node:async_hooks';
import pLimit, { type LimitFunction } from 'p-limit';

/** Connections of this process's pool, and how many of them one network's work may hold at once: the others always find some. */
export const POOL = { most: 10, ofOneNetwork: 6 };

/** Next compiles each route on its own: what must be one in a process hangs here. */
const shared = globalThis as typeof globalThis & {
  lanternpostShares?: { readonly asking: AsyncLocalStorage<string>; readonly lines: Map<string, LimitFunction> };
};
const { asking, lines } = (shared.lanternpostShares ??= { asking: new AsyncLocalStorage(), lines: new Map() });

/** Does work of a network: what it asks of the database waits for that network's share. */
export const onBehalfOf = <T>(networkId: string, work: () => Promise<T>): Promise<T> => asking.run(networkId, work);

/** Asks the database when the network that this is done for has a share left. What holds a connection needs no second share. */
export async function inShare<T>(ask: () => Promise<T>): Promise<T> {
  const network = asking.getStore();
  if (network === undefined) return ask();
  const line = lines.get(network) ?? pLimit(POOL.ofOneNetwork);
  lines.set(network, line);
  try {
    return await line(() => asking.exit(ask));
  } finally {
    if (line.activeCount + line.pendingCount === 0 && lines.get(network) === line) lines.delete(network);
  }
}
