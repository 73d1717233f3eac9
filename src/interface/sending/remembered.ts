import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Memory, Parcel } from './sender';

/**
 * What a page is sending, kept by the browser, so that the next page continues it. Each file belongs to one page at a time: its name is
 * locked as long as that page lives. Where a browser keeps or locks nothing (no HTTPS), a reload asks for the files again.
 */

interface Kept {
  readonly key: string;
  readonly person: string;
  readonly batch: string;
  readonly name: string;
  readonly bytes: number;
  /** The file itself; null for a large one, which must be chosen again. */
  readonly file: File | null;
  readonly replaces?: string | undefined;
}

interface Schema extends DBSchema {
  files: { key: string; value: Kept };
}

/** A browser copies what it keeps: of larger files it keeps the name. In bytes. */
const MOST_KEPT = 256 * 2 ** 20;

const lockOf = (key: string) => `lanternpost sending ${key}`;

export class Remembered implements Memory {
  private db: Promise<IDBPDatabase<Schema>> | null = null;
  private readonly held = new Map<string, () => void>();
  /** One thing after the other: what is dropped was put before. */
  private line: Promise<unknown> = Promise.resolve();

  constructor(private readonly person: string) {}

  put({ key, batch, file, replaces }: Parcel): void {
    void this.hold(key);
    const kept = file.size <= MOST_KEPT ? file : null;
    void this.later((db) =>
      db.put('files', { key, person: this.person, batch, name: file.name, bytes: file.size, file: kept, replaces }),
    );
  }

  drop(key: string): void {
    void this.later(async (db) => {
      await db.delete('files', key);
      this.held.get(key)?.();
      this.held.delete(key);
    });
  }

  /** What a page that is gone was sending for this person. Another person's is dropped. */
  async left(): Promise<readonly Kept[]> {
    if (!navigator.locks) return [];
    const found = (await this.later((db) => db.getAll('files'))) ?? [];
    const mine: Kept[] = [];
    for (const one of found) {
      if (!(await this.hold(one.key))) continue;
      if (one.person === this.person) mine.push(one);
      else this.drop(one.key);
    }
    return mine;
  }

  /** Locks a file's name as long as this page lives, or until it is dropped. Whether it was free. */
  private hold(key: string): Promise<boolean> {
    if (!navigator.locks) return Promise.resolve(false);
    return new Promise((told) => {
      void navigator.locks.request(lockOf(key), { ifAvailable: true }, (lock) => {
        told(lock !== null);
        return lock && new Promise<void>((free) => this.held.set(key, free));
      });
    });
  }

  private later<T>(work: (db: IDBPDatabase<Schema>) => Promise<T>): Promise<T | null> {
    this.db ??= openDB<Schema>('lanternpost-sending', 1, {
      upgrade: (db) => void db.createObjectStore('files', { keyPath: 'key' }),
    });
    const db = this.db;
    const done = this.line.then(async () => work(await db)).catch(() => null);
    this.line = done;
    return done;
  }
}
