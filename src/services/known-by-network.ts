import { LRUCache } from 'lru-cache';
import { subscribe, type BusMessage } from '@/database';

/** A message may be lost, so what was read is known for no longer than this. */
export const KNOWN_FOR_MS = 10_000;
const NETWORKS = 1000;

/** What was read of each network, kept until a message of the bus says that it changed there. For what every player asks again and again. */
export class KnownByNetwork<T> {
  private readonly known = new LRUCache<string, Promise<T>>({ max: NETWORKS, ttl: KNOWN_FOR_MS });
  private watching = false;

  constructor(
    private readonly read: (networkId: string) => Promise<T>,
    private readonly changedBy: BusMessage['kind'],
  ) {}

  of(networkId: string): Promise<T> {
    if (!this.watching) {
      this.watching = true;
      subscribe((message) => {
        if (message.kind === 'resync') this.known.clear();
        else if (message.kind === this.changedBy) this.known.delete(message.network);
      });
    }
    let read = this.known.get(networkId);
    if (!read) {
      read = this.read(networkId);
      this.known.set(networkId, read);
      read.catch(() => this.known.delete(networkId));
    }
    return read;
  }
}
