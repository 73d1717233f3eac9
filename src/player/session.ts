import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { DAY, MINUTE, SECOND, forecast, placeOf, sha256Hex, type Asset, type ProgramDocument } from '@/core/playing';
import type { ProtocolClient } from '@/protocol/client';
import { ProtocolError } from '@/protocol/client';
import type { Report, Target } from '@/protocol/schemas';

/** A program that a player holds, with every file of its first day. */
export interface HeldProgram {
  readonly hash: string;
  readonly edition: number | null;
  readonly text: string;
}

/** What a player keeps over restarts. Files are appended to as they come and count only once completed. */
export interface PlayerStore {
  load(): Promise<{
    token: string | null;
    screen: Target['screen'] | null;
    program: HeldProgram | null;
    clockOffsetMs: number;
  }>;
  save(values: {
    token?: string | null;
    screen?: Target['screen'] | null;
    program?: HeldProgram | null;
    clockOffsetMs?: number;
  }): Promise<void>;
  has(sha256: string): Promise<boolean>;
  /** The bytes of a file that are here already, from its beginning. */
  partial(sha256: string): Promise<Uint8Array[]>;
  append(sha256: string, bytes: Uint8Array): Promise<void>;
  complete(asset: Asset): Promise<void>;
  discard(sha256: string): Promise<void>;
  files(): Promise<string[]>;
  usage(): Promise<{ usedBytes: number; limitBytes: number } | null>;
}

/** What a session tells the one who draws. */
export interface SessionEvents {
  code(code: string | null): void;
  screen(screen: Target['screen'] | null): void;
  program(program: ProgramDocument | null): void;
}

export interface SessionOptions {
  readonly software: string;
  /** What plays now, for the heartbeat. */
  readonly playing: () => Pick<Report, 'playing' | 'state'>;
  readonly hardware?: () => Report['hardware'];
  /** Slows downloads to so many bytes a second: for simulated bad lines. */
  readonly bytesPerSecond?: number;
}

const HEARTBEAT_MS = 15 * SECOND;
const POLL_MS = 60 * SECOND;
const RETRY_MS = 3 * SECOND;
const PROGRESS_MS = 2 * SECOND;

/**
 * A player's life from box to lit, without drawing: pairs, listens, fetches and verifies, activates, reports. Its state is
 * the newest program that it holds; every message may come twice or late. Whatever fails is tried again until `stop`.
 */
export class PlayerSession {
  private held: HeldProgram | null = null;
  private target: Target | null = null;
  private download: Report['download'] = null;
  private readonly errors: Report['errors'] = [];
  private readonly ended = new AbortController();
  private life = new AbortController();
  private fetching = false;

  constructor(
    private readonly client: ProtocolClient,
    private readonly store: PlayerStore,
    private readonly events: SessionEvents,
    private readonly options: SessionOptions,
    private readonly now: () => number = Date.now,
  ) {}

  /** The time by the server's clock, as far as this player knows it. */
  serverNow(): number {
    return this.now() + this.client.clockOffsetMs;
  }

  stop(): void {
    this.ended.abort();
    this.life.abort();
  }

  /** Runs until `stop`. What is held from an earlier life is announced before anything is asked of the server. */
  async run(): Promise<void> {
    const kept = await this.store.load();
    this.client.clockOffsetMs = kept.clockOffsetMs;
    if (kept.screen) this.events.screen(kept.screen);
    if (kept.program) this.hold(kept.program);
    let token = kept.token;
    while (!this.ended.signal.aborted) {
      token ??= await this.pair();
      if (token === null) return;
      this.client.useToken(token);
      this.life = new AbortController();
      await Promise.all([this.listen(), this.poll(), this.beat()]);
      if (this.ended.signal.aborted) return;
      token = null;
      await this.forget();
    }
  }

  /** Notes something that went wrong, for the next heartbeat. */
  report(message: string): void {
    this.errors.push({ at: Math.round(this.serverNow()), message: message.slice(0, 300) });
    this.errors.splice(0, this.errors.length - 20);
  }

  private async pair(): Promise<string | null> {
    this.client.useToken(null);
    while (!this.ended.signal.aborted) {
      try {
        const pairing = await this.client.startPairing();
        this.events.code(pairing.user_code);
        for (let token: string | null = null; !this.ended.signal.aborted;) {
          await this.wait(pairing.interval * SECOND, this.ended.signal);
          try {
            token = await this.client.collectToken(pairing.device_code);
          } catch (error) {
            if (error instanceof ProtocolError && error.status === 0) continue;
            throw error;
          }
          if (token === null) continue;
          await this.store.save({ token });
          this.events.code(null);
          return token;
        }
      } catch {
        await this.wait(RETRY_MS, this.ended.signal);
      }
    }
    return null;
  }

  /** The screen was unpaired: what belongs to it goes, the files stay until the next program. */
  private async forget(): Promise<void> {
    this.held = null;
    this.target = null;
    await this.store.save({ token: null, screen: null, program: null });
    this.events.screen(null);
    this.events.program(null);
  }

  private async listen(): Promise<void> {
    await this.repeat(RETRY_MS, () =>
      this.client.events((event) => {
        if (event.kind === 'unpaired') this.life.abort();
        else this.aim(event.target);
      }, this.life.signal),
    );
  }

  private async poll(): Promise<void> {
    await this.repeat(POLL_MS, async () => this.aim(await this.client.target()));
  }

  private async beat(): Promise<void> {
    await this.repeat(HEARTBEAT_MS, () => this.sendReport());
  }

  private async sendReport(): Promise<void> {
    const report: Report = {
      ...this.options.playing(),
      edition: this.held?.edition ?? null,
      program: this.held?.hash ?? null,
      download: this.download,
      clockOffsetMs: this.client.clockOffsetMs,
      storage: await this.store.usage(),
      errors: this.errors,
      hardware: this.options.hardware?.(),
      software: this.options.software,
    };
    this.aim(await this.client.heartbeat(report));
  }

  /** Does `work` again and again while this life lasts. A token that is refused ends it. */
  private async repeat(everyMs: number, work: () => Promise<void>): Promise<void> {
    const { signal } = this.life;
    while (!signal.aborted) {
      let wait = everyMs;
      try {
        await work();
      } catch (error) {
        if (error instanceof ProtocolError && error.status === 401) this.life.abort();
        wait = Math.min(everyMs, RETRY_MS);
      }
      if (!signal.aborted) await this.wait(wait, signal);
    }
  }

  private wait(ms: number, signal: AbortSignal): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(done, ms);
      function done() {
        clearTimeout(timer);
        signal.removeEventListener('abort', done);
        resolve();
      }
      signal.addEventListener('abort', done);
    });
  }

  private aim(target: Target): void {
    if (JSON.stringify(target.screen) !== JSON.stringify(this.target?.screen)) this.events.screen(target.screen);
    this.target = target;
    void this.store.save({ screen: target.screen, clockOffsetMs: this.client.clockOffsetMs });
    void this.reach();
  }

  /** Brings the player to its target. One at a time; a target that moves on meanwhile is followed. */
  private async reach(): Promise<void> {
    if (this.fetching) return;
    this.fetching = true;
    const { signal } = this.life;
    try {
      while (!signal.aborted && this.target?.program && this.target.program !== this.held?.hash) {
        try {
          await this.take(this.target.program, signal);
        } catch (error) {
          if (signal.aborted) return;
          if (error instanceof ProtocolError && error.status === 401) return this.life.abort();
          if (!(error instanceof ProtocolError && error.status === 0))
            this.report(error instanceof Error ? error.message : String(error));
          await this.wait(RETRY_MS, signal);
        }
      }
      const { held } = this;
      if (held && this.target?.program === held.hash && held.edition !== this.target.edition) {
        this.held = { ...held, edition: this.target.edition };
        await this.store.save({ program: this.held });
        void this.sendReport().catch(() => undefined);
      }
    } finally {
      this.fetching = false;
      this.download = null;
    }
  }

  private async take(hash: string, signal: AbortSignal): Promise<void> {
    const edition = this.target?.edition ?? null;
    const text = await this.client.program(hash);
    if (sha256Hex(text) !== hash) throw new Error('The program came damaged: it is fetched again.');
    const program = JSON.parse(text) as ProgramDocument;
    const soon = neededSoon(program, this.serverNow());
    const assets = [
      ...new Map(Object.entries(program.assets).map(([media, asset]) => [asset.sha256, { media, asset }])).values(),
    ];
    const first = assets.filter(({ media }) => soon.has(media));
    await this.fetchAll(
      first.map(({ asset }) => asset),
      signal,
    );
    if (signal.aborted || this.target?.program !== hash) return;
    const held = { hash, edition, text };
    await this.store.save({ program: held });
    this.hold(held);
    void this.sendReport().catch(() => undefined);
    await this.fetchAll(
      assets.map(({ asset }) => asset),
      signal,
    );
    const kept = new Set(assets.map(({ asset }) => asset.sha256));
    for (const file of await this.store.files()) if (!kept.has(file)) await this.store.discard(file);
  }

  private hold(held: HeldProgram): void {
    this.held = held;
    this.events.program(JSON.parse(held.text) as ProgramDocument);
  }

  private async fetchAll(assets: readonly Asset[], signal: AbortSignal): Promise<void> {
    const missing: Asset[] = [];
    for (const asset of assets) if (!(await this.store.has(asset.sha256))) missing.push(asset);
    if (missing.length === 0) return;
    const progress = { doneBytes: 0, totalBytes: missing.reduce((sum, asset) => sum + asset.bytes, 0) };
    this.download = progress;
    for (const asset of missing) {
      if (signal.aborted) return;
      await this.fetchAsset(asset, progress, signal);
    }
    this.download = null;
  }

  /** Fetches one file, going on where an earlier try broke off; verified before it counts. */
  private async fetchAsset(asset: Asset, progress: { doneBytes: number }, signal: AbortSignal): Promise<void> {
    const kept = await this.store.partial(asset.sha256);
    let hash = sha256.create();
    let bytes = 0;
    for (const chunk of kept) {
      hash.update(chunk);
      bytes += chunk.byteLength;
    }
    const begun = progress.doneBytes;
    progress.doneBytes = begun + bytes;
    if (bytes < asset.bytes) {
      const { body, resumed } = await this.client.asset(asset.sha256, bytes, signal);
      if (!resumed && bytes > 0) {
        await this.store.discard(asset.sha256);
        hash = sha256.create();
        bytes = 0;
      }
      let told = this.now();
      for await (const chunk of inPieces(body)) {
        hash.update(chunk);
        bytes += chunk.byteLength;
        await this.store.append(asset.sha256, chunk);
        progress.doneBytes = begun + bytes;
        if (this.options.bytesPerSecond)
          await this.wait((chunk.byteLength / this.options.bytesPerSecond) * SECOND, signal);
        if (signal.aborted) return;
        if (this.now() - told < PROGRESS_MS) continue;
        told = this.now();
        void this.sendReport().catch(() => undefined);
      }
    }
    if (bytes !== asset.bytes || bytesToHex(hash.digest()) !== asset.sha256) {
      await this.store.discard(asset.sha256);
      throw new Error(`A file came damaged (${asset.sha256.slice(0, 8)}): it is fetched again.`);
    }
    await this.store.complete(asset);
  }
}

/** The media that a program plays in its first day, and what it shows right now even if that day is mostly dark. */
export function neededSoon(program: ProgramDocument, now: number): Set<string> {
  placeOf(program, program.zones);
  const { segments } = forecast(program, now, now + DAY, { zones: program.zones });
  const needed = new Set<string>();
  for (const segment of segments) {
    const loop = program.loops[segment.loop] ?? [];
    const total = loop.reduce((sum, item) => sum + item.durationMs, 0);
    if (segment.to - segment.from >= total + MINUTE || loop.length === 1)
      loop.forEach((item) => needed.add(item.media));
    else
      for (const play of forecast(program, segment.from, segment.to, { zones: program.zones, plays: true }).plays)
        needed.add(play.media);
  }
  return needed;
}

const PIECE = 512 * 1024;

/** The stream in pieces of about half a megabyte, so that each write to the store is worth its while. */
async function* inPieces(body: ReadableStream<Uint8Array>): AsyncGenerator<Uint8Array> {
  const reader = body.getReader();
  let waiting: Uint8Array[] = [];
  let size = 0;
  const join = () => {
    const piece = new Uint8Array(size);
    let at = 0;
    for (const chunk of waiting) {
      piece.set(chunk, at);
      at += chunk.byteLength;
    }
    waiting = [];
    size = 0;
    return piece;
  };
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    waiting.push(value);
    size += value.byteLength;
    if (size >= PIECE) yield join();
  }
  if (size > 0) yield join();
}
