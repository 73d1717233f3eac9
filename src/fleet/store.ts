import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import type { Asset } from '@/core/playing';
import type { PlayerStore } from '@/player/session';

type Values = Awaited<ReturnType<PlayerStore['load']>>;

/** A simulated player's store: it verifies every byte, then remembers only that it has the file. */
export class FleetStore implements PlayerStore {
  private values: Values = { token: null, screen: null, program: null, clockOffsetMs: 0 };
  private readonly whole = new Map<string, number>();
  private readonly begun = new Map<string, Uint8Array[]>();

  /** With `path`, the state lasts over restarts in that file. */
  constructor(
    private readonly path: string | null,
    private readonly limitBytes = 8e9,
  ) {}

  async load(): Promise<Values> {
    if (!this.path) return this.values;
    const text = await readFile(this.path, 'utf8').catch(() => null);
    if (text === null) return this.values;
    const kept = JSON.parse(text) as { values: Values; whole: [string, number][] };
    this.values = kept.values;
    kept.whole.forEach(([sha256, bytes]) => this.whole.set(sha256, bytes));
    return this.values;
  }

  async save(values: Partial<Values>): Promise<void> {
    Object.assign(this.values, values);
    if (values.program === undefined && values.token === undefined) return;
    await this.write();
  }

  private async write(): Promise<void> {
    if (!this.path) return;
    await mkdir(dirname(this.path), { recursive: true });
    await writeFile(`${this.path}.new`, JSON.stringify({ values: this.values, whole: [...this.whole] }), {
      mode: 0o600,
    });
    await rename(`${this.path}.new`, this.path);
  }

  async has(sha256: string): Promise<boolean> {
    return this.whole.has(sha256);
  }

  async partial(sha256: string): Promise<Uint8Array[]> {
    return this.begun.get(sha256) ?? [];
  }

  async append(sha256: string, bytes: Uint8Array): Promise<void> {
    this.begun.set(sha256, [...(await this.partial(sha256)), bytes]);
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

  async files(): Promise<string[]> {
    return [...this.whole.keys(), ...this.begun.keys()];
  }

  async usage() {
    const usedBytes = [...this.whole.values()].reduce((sum, bytes) => sum + bytes, 0);
    return { usedBytes, limitBytes: this.limitBytes };
  }
}
