import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Asset } from '@/core/playing';
import type { Target } from '@/protocol/schemas';
import type { HeldFile } from '../session/reconcile';
import type { KeptCommand } from '../session/commands';
import type { KeptFiring } from '../session/firings';
import { StorageFull, type HeldComing, type HeldProgram, type Kept, type PlayerStore } from '../session/store';

interface Schema extends DBSchema {
  values: { key: string; value: unknown };
  /** Bytes of files under way, by hash and piece number. */
  pieces: { key: [string, number]; value: Uint8Array };
}

const CACHE = 'lanternpost-assets';
const urlOf = (sha256: string) => `/player/assets/${sha256}`;

/** A browser's store: whole files in Cache Storage, everything else in IndexedDB. */
export class BrowserStore implements PlayerStore {
  private constructor(
    private readonly db: IDBPDatabase<Schema>,
    private readonly cache: Cache,
  ) {}

  /** Throws where the page is neither on HTTPS nor on localhost: browsers give lasting storage to no other. */
  static async open(): Promise<BrowserStore> {
    if (!('caches' in self))
      throw new Error('This page needs HTTPS. Without it the browser stores nothing for times without a network.');
    const db = await openDB<Schema>('lanternpost', 1, {
      upgrade(fresh) {
        fresh.createObjectStore('values');
        fresh.createObjectStore('pieces');
      },
    });
    return new BrowserStore(db, await caches.open(CACHE));
  }

  async load() {
    const get = async <T>(key: string, none: T): Promise<T> =>
      ((await this.db.get('values', key)) as T | undefined) ?? none;
    return {
      token: await get<string | null>('token', null),
      was: await get<string | null>('was', null),
      screen: await get<Target['screen'] | null>('screen', null),
      program: await get<HeldProgram | null>('program', null),
      coming: await get<readonly HeldComing[]>('coming', []),
      clockOffsetMs: await get('clockOffsetMs', 0),
      commands: await get<readonly KeptCommand[]>('commands', []),
      firings: await get<readonly KeptFiring[]>('firings', []),
    };
  }

  async save(values: Partial<Kept>): Promise<void> {
    const within = this.db.transaction('values', 'readwrite');
    for (const [key, value] of Object.entries(values)) await within.store.put(value, key);
    await within.done;
  }

  async *pieces(sha256: string): AsyncGenerator<Uint8Array> {
    const count = await this.db.count('pieces', piecesOf(sha256));
    for (let n = 0; n < count; n++) {
      const piece = await this.db.get('pieces', [sha256, n]);
      if (!piece) return;
      yield piece;
    }
  }

  async append(sha256: string, bytes: Uint8Array): Promise<void> {
    await roomFor(async () => {
      const within = this.db.transaction('pieces', 'readwrite');
      await within.store.put(bytes, [sha256, await within.store.count(piecesOf(sha256))]);
      await within.done;
    });
  }

  async complete(asset: Asset): Promise<void> {
    const pieces = this.pieces(asset.sha256);
    const body = new ReadableStream<Uint8Array>({
      async pull(controller) {
        const { done, value } = await pieces.next();
        if (done) controller.close();
        else controller.enqueue(value);
      },
    });
    const headers = { 'content-type': asset.type, 'content-length': String(asset.bytes) };
    await roomFor(() => this.cache.put(urlOf(asset.sha256), new Response(body, { headers })));
    await this.db.delete('pieces', piecesOf(asset.sha256));
  }

  async discard(sha256: string): Promise<void> {
    await this.cache.delete(urlOf(sha256));
    await this.db.delete('pieces', piecesOf(sha256));
  }

  async files(): Promise<ReadonlyMap<string, HeldFile>> {
    const files = new Map<string, HeldFile>();
    const within = this.db.transaction('pieces');
    for (let cursor = await within.store.openCursor(); cursor; cursor = await cursor.continue()) {
      const [sha256] = cursor.key;
      files.set(sha256, { bytes: (files.get(sha256)?.bytes ?? 0) + cursor.value.byteLength, whole: false });
    }
    for (const request of await this.cache.keys())
      files.set(request.url.split('/').at(-1) ?? '', { bytes: 0, whole: true });
    return files;
  }

  async usage() {
    const { usage, quota } = await navigator.storage.estimate();
    return { usedBytes: usage ?? 0, limitBytes: quota ?? 0 };
  }

  /** A whole file's bytes; null where it is not here. */
  async open(sha256: string): Promise<Blob | null> {
    const found = await this.cache.match(urlOf(sha256));
    return found ? found.blob() : null;
  }
}

function piecesOf(sha256: string): IDBKeyRange {
  return IDBKeyRange.bound([sha256, 0], [sha256, Infinity]);
}

/** Does what needs room; where there is none, says so in our own words. */
async function roomFor<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof DOMException && error.name === 'QuotaExceededError') throw new StorageFull();
    throw error;
  }
}
