import type { Asset } from '@/core/playing';
import type { Target } from '@/protocol/schemas';
import type { KeptCommand } from './commands';
import type { KeptFiring } from './firings';
import type { HeldFile } from './reconcile';

/** A program that a player holds, with every file of its first day. */
export interface HeldProgram {
  readonly hash: string;
  readonly edition: number | null;
  readonly text: string;
  readonly source?: string | undefined;
}

/** A program that begins at an instant. */
export interface HeldComing {
  readonly at: number;
  readonly hash: string;
  readonly text: string;
  readonly source?: string | undefined;
}

/** What is kept over restarts besides files. */
export interface Kept {
  readonly token: string | null;
  /** The token that it had before, while it waits for a screen. */
  readonly was: string | null;
  readonly screen: Target['screen'] | null;
  readonly program: HeldProgram | null;
  /** What is planned after it, the earliest first. */
  readonly coming: readonly HeldComing[];
  readonly clockOffsetMs: number;
  /** Commands that were begun, and how they went. */
  readonly commands: readonly KeptCommand[];
  /** What was fired and may still matter. */
  readonly firings: readonly KeptFiring[];
}

/** What a player keeps over restarts. Files are appended to as they come, and count only once completed. */
export interface PlayerStore {
  load(): Promise<Kept>;
  /** Writes what is given, whole or not at all. */
  save(values: Partial<Kept>): Promise<void>;
  /** Every file of which something is here. */
  files(): Promise<ReadonlyMap<string, HeldFile>>;
  /** The bytes of a file under way that are here, from its beginning, one piece after the other. */
  pieces(sha256: string): AsyncIterable<Uint8Array>;
  /** Throws StorageFull if the storage is full. */
  append(sha256: string, bytes: Uint8Array): Promise<void>;
  /** Joins the pieces to one file. Throws StorageFull if the storage is full. */
  complete(asset: Asset): Promise<void>;
  discard(sha256: string): Promise<void>;
  usage(): Promise<{ usedBytes: number; limitBytes: number } | null>;
}

/** Thrown when the storage can't hold another piece. */
export class StorageFull extends Error {
  constructor() {
    super('Storage is full. Files that no program needs are removed, then it continues.');
  }
}
