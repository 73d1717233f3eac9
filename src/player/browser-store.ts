import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Asset } from '@/core/playing';
import type { HeldProgram, PlayerStore } from './session';
import type { Target } from '@/protocol/schemas';

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
      throw new Error('This page needs HTTPS: without it the browser keeps nothing for times without network.');
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
      screen: await get<Target['screen'] | null>('screen', null),
      program: await get<HeldProgram | null>('program', null),
      clockOffsetMs: await get('clockOffsetMs', 0),
    };
  }

  async save(values: Parameters<PlayerStore['save']>[0]): Promise<void> {
    const within = this.db.transaction('values', 'readwrite');
    for (const [key, value] of Object.entries(values)) await within.store.put(value, key);
    await within.done;
  }

  async has(sha256: string): Promise<boolean> {
    return (await this.cache.match(urlOf(sha256))) !== undefined;
  }

  async partial(sha256: string): Promise<Uint8Array[]> {
    return this.db.getAll('pieces', pieces(sha256));
  }

  async append(sha256: string, bytes: Uint8Array): Promise<void> {
    const within = this.db.transaction('pieces', 'readwrite');
    await within.store.put(bytes, [sha256, await within.store.count(pieces(sha256))]);
    await within.done;
  }

  async complete(asset: Asset): Promise<void> {
    const blob = new Blob((await this.partial(asset.sha256)) as BlobPart[], { type: asset.type });
    await this.cache.put(urlOf(asset.sha256), new Response(blob, { headers: { 'content-type': asset.type } }));
    await this.db.delete('pieces', pieces(asset.sha256));
  }

  async discard(sha256: string): Promise<void> {
    await this.cache.delete(urlOf(sha256));
    await this.db.delete('pieces', pieces(sha256));
  }

  async files(): Promise<string[]> {
    const whole = (await this.cache.keys()).map((request) => request.url.split('/').at(-1) ?? '');
    const begun = (await this.db.getAllKeys('pieces')).map(([sha256]) => sha256);
    return [...new Set([...whole, ...begun])];
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

function pieces(sha256: string): IDBKeyRange {
  return IDBKeyRange.bound([sha256, 0], [sha256, Infinity]);
}
