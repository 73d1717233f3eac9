import { setTimeout as sleep } from 'node:timers/promises';
import { ProcessLocks, publish, subscribe } from '@/database';
import type { Actor } from '../people';

/**
 * One request at a time writes to a file that is being sent, whichever web process it came to. A request that comes asks the one that holds
 * the file to stop: it is the same browser, trying again.
 */

/** Next compiles each route on its own: what must be one in a process hangs here. */
const shared = globalThis as typeof globalThis & { lanternpostUploadLocks?: UploadLocks };

const SPACE = 7132;
const LOOK_AGAIN_MS = 50;
const WITHIN_MS = 30_000;

interface Holder {
  readonly actor: Actor;
  readonly stop: () => void;
}

export class UploadLocks {
  private readonly locks = new ProcessLocks(SPACE);
  private readonly holders = new Map<string, Holder>();

  constructor() {
    subscribe((message) => {
      if (message.kind === 'upload-wanted') this.holders.get(message.upload)?.stop();
      // A person was logged out or removed. People who still have the right continue with a new request; the others are refused.
      else if (message.kind === 'session')
        for (const { actor, stop } of this.holders.values()) if (actor.personId === message.person) stop();
    });
  }

  /** Whether the file could be had before `signal` or half a minute ended the waiting. */
  async hold(id: string, holder: Holder, signal: AbortSignal): Promise<boolean> {
    const end = Date.now() + WITHIN_MS;
    while (!signal.aborted && Date.now() < end) {
      if (await this.locks.tryHold(id, holder.stop)) {
        this.holders.set(id, holder);
        return true;
      }
      await publish({ kind: 'upload-wanted', network: holder.actor.networkId, upload: id });
      await sleep(LOOK_AGAIN_MS);
    }
    return false;
  }

  async letGo(id: string): Promise<void> {
    this.holders.delete(id);
    await this.locks.letGo(id);
  }

  close(): Promise<void> {
    return this.locks.close();
  }
}

/** The locks of this process. */
export const uploadLocks = (): UploadLocks => (shared.lanternpostUploadLocks ??= new UploadLocks());

/** For programs that end, and for tests. */
export async function closeUploadLocks(): Promise<void> {
  const open = shared.lanternpostUploadLocks;
  delete shared.lanternpostUploadLocks;
  await open?.close();
}
