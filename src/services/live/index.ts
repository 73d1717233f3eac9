import { subscribe } from '@/database';
import type { Actor } from '../people';

/** What happened in a network: a hint to look again, without content. `resync` means that anything may have happened. */
export type Happening = 'changes' | 'edition' | 'players' | 'player' | 'uploads' | 'resync';

/** Calls `listener` for everything that happens in the actor's network, in any process, until the returned function is called. */
export function watchNetwork(actor: Actor, listener: (what: Happening) => void): () => void {
  return subscribe((message) => {
    if (message.kind === 'resync' || message.network === actor.networkId) listener(message.kind);
  });
}
