import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import type { Asset } from '@/core/playing';
import type { HeldFile } from '@/player/session/reconcile';
import { StorageFull, type Kept, type PlayerStore } from '@/player/session/store';

/** A simulated player's store: it verifies every byte, then remembers only that it has the file. */
export class FleetStore implements PlayerStore {
  private values: Kept = {
    token: null,
    was: null,
    screen: null,
    program: null,
    coming: [],
    clockOffsetMs: 0,
    commands: [],
    firings: [],
  };
  private readonly whole = new Map<string, number>();
  private writing: Promise<void> = Promise.resolve();
  private readonly begun = new Map<string, Uint8Array[]>();

  /** With `path`, the state lasts over restarts in that file. */
  constructor(
    private readonly path: string | null,
    public limitBytes = 8e9,
  ) {}

  async load(): Promise<Kept> {
    if (!this.path) return this.values;
    const text = await readFile(this.path, 'utf8').catch((error: NodeJS.ErrnoException) => {
      if (error.code === 'ENOENT') return null;
      throw error;
    });
    if (text === null) return this.values;
    const kept = JSON.parse(text) as { values: Kept; whole: [string, number][] };
    this.values = { ...this.values, ...kept.values };
    kept.whole.forEach(([sha256, bytes]) => this.whole.set(sha256, bytes));
    return this.values;
  }

  async save(values: Partial<Kept>): Promise<void> {
    this.values = { ...this.values, ...values };
    // These alone may be lost with the process.
    if (Object.keys(values).every((key) => key === 'screen' || key === 'clockOffsetMs')) return;
    await this.write();
  }

  /** One after the other: what two wrote at once would be moved away from under the second. */
  private write(): Promise<void> {
    const written = this.writing.then(() => this.writeNow());
    this.writing = written.catch(() => undefined);
    return written;
  }

  private async writeNow(): Promise<void> {
    if (!this.path) return;
    await mkdir(dirname(this.path), { recursive: true });
    await writeFile(`${this.path}.new`, JSON.stringify({ values: this.values, whole: [...this.whole] }), {
      mode: 0o600,
    });
    await rename(`${this.path}.new`, this.path);
  }

  async *pieces(sha256: string): AsyncGenerator<Uint8Array> {
    yield* this.begun.get(sha256) ?? [];
  }

  async append(sha256: string, bytes: Uint8Array): Promise<void> {
    if (this.usedBytes() + bytes.byteLength > this.limitBytes) throw new StorageFull();
    this.begun.set(sha256, [...(this.begun.get(sha256) ?? []), bytes]);
  }

  async complete(asset: Asset): Promise<void> {
    this.begun.delete(asset.sha256);
    this.whole.set(asset.sha256, asset.bytes);
    await this.write();
  }

  async discard(sha256: string): Promise<void> {
    this.begun.delete(sha256);
    this.whole.delete(sha256);
  }

  async files(): Promise<ReadonlyMap<string, HeldFile>> {
    const begun = [...this.begun].map(
      ([sha256, pieces]) => [sha256, { bytes: lengthOf(pieces), whole: false }] as const,
    );
    const whole = [...this.whole].map(([sha256, bytes]) => [sha256, { bytes, whole: true }] as const);
    return new Map<string, HeldFile>([...begun, ...whole]);
  }

  async usage() {
    return { usedBytes: this.usedBytes(), limitBytes: this.limitBytes };
  }

  private usedBytes(): number {
    const begun = [...this.begun.values()].reduce((sum, pieces) => sum + lengthOf(pieces), 0);
    return [...this.whole.values()].reduce((sum, bytes) => sum + bytes, begun);
  }
}

const lengthOf = (pieces: readonly Uint8Array[]) => pieces.reduce((sum, piece) => sum + piece.byteLength, 0);
