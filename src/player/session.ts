import equal from 'fast-deep-equal';
import { HOUR, MINUTE, SECOND, lineOf, sha256Hex, type Instant, type ProgramDocument } from '@/core/playing';
import { ProtocolError, type ProtocolClient } from '@/protocol/client';
import type { Report, Target } from '@/protocol/schemas';
import { fetchFile } from './fetch-file';
import { needsOf } from './needs';
import {
  downloadOf,
  isReady,
  missingOf,
  nextBegin,
  nextStep,
  sourceIn,
  stepKey,
  wantedAt,
  withoutStandIns,
  type Coming,
  type HeldFile,
  type HeldState,
  type Program,
  type Step,
} from './reconcile';
import { StorageFull, type PlayerStore } from './store';
import { about, backoffMs, realWorld, type World } from './world';

/** What a session tells the one who draws. */
export interface SessionEvents {
  code(code: string | null): void;
  screen(screen: Target['screen'] | null): void;
  program(program: ProgramDocument | null): void;
  /** What follows at an instant, where all of it is here: it can be made ready to be seen. Null for nothing. */
  coming?(next: { readonly at: Instant; readonly program: ProgramDocument } | null): void;
  /** A file came to be whole: what could not be shown before can be now. */
  file?(sha256: string): void;
}

export interface SessionOptions {
  readonly software: string;
  /** What plays now, for the heartbeat. */
  readonly playing: () => Pick<Report, 'playing' | 'state'>;
  readonly hardware?: () => Report['hardware'];
  /** The kinds of files that it can play; absent: all of them. */
  readonly kinds?: Report['kinds'];
  /** Slows downloads to so many bytes a second: for simulated bad lines. */
  readonly bytesPerSecond?: number;
  /** About so many bytes of a file are kept at a time. */
  readonly pieceBytes?: number;
}

const HEARTBEAT_MS = 15 * SECOND;
const POLL_MS = MINUTE;
/** After this many failures in a row the server's error is reported. Before that it may just be restarting. */
const SERVER_FAILS_TOLD = 3;
const PROGRESS_MS = 2 * SECOND;
const PIECE_BYTES = 512 * 1024;
/** A token is given up when it was refused twice, at least so far apart, with no other answer between. */
const REFUSED_FOR_MS = 2 * MINUTE;
/** How often to work out when files are due; also done when the corrected time jumps. */
const NEEDS_HOLD_MS = HOUR;
const ERRORS_KEPT = 20;
/** Of a file that is smaller the way there and back says more than the line does. */
const MEASURED_BYTES = 50_000;

/**
 * A player's life from box to lit, without drawing: pairs, listens, and reconciles what it holds with what is wanted. The
 * newest target that was heard is the wish; what to do next is asked of `nextStep` each time, so that messages may come twice or
 * late, anything may fail at any point, and a new wish goes ahead of whatever is under way. Whatever fails is tried again until
 * `stop`, later each time and never in step with other players.
 */
export class PlayerSession {
  private target: Target | null = null;
  private held: HeldState = { program: null, next: null, coming: [], files: new Map(), full: false };
  private readonly errors: Report['errors'] = [];
  private readonly ended = new AbortController();
  private life = new AbortController();
  /** The step under way, and how to break it off. */
  private running: { readonly key: string; readonly abort: AbortController } | null = null;
  /** Ends what waits for the line: it is there again. */
  private line = new AbortController();
  /** Ends what waits to open the event stream. */
  private stream = new AbortController();
  /** Whether the event stream is open. */
  private listening = false;
  /** Ends a pause between steps. */
  private pause = new AbortController();
  /** Ends the wait for what is planned: it was moved, or the clock put right. */
  private planned = new AbortController();
  /** The coming programs as last reported. */
  private told = '';
  private needsAt = 0;
  private refusedSince: number | null = null;
  /** How fast files come, by the last that says something; null before one did. */
  private bytesPerSecond: number | null = null;
  private saved = '';
  /** A name for this start of the player. By it the server sees when two players use one token. */
  private readonly name: string;

  constructor(
    private readonly client: ProtocolClient,
    private readonly store: PlayerStore,
    private readonly events: SessionEvents,
    private readonly options: SessionOptions,
    private readonly world: World = realWorld,
  ) {
    this.name = Array.from({ length: 4 }, () => Math.floor(world.random() * 36 ** 4).toString(36)).join('-');
  }

  /** The time by the server's clock, as far as this player knows it. */
  serverNow(): number {
    return this.world.now() + this.client.clockOffsetMs;
  }

  stop(): void {
    this.ended.abort();
    this.life.abort();
    this.pause.abort();
    this.running?.abort.abort();
  }

  /** Runs until `stop`. Files kept from an earlier run are reported before anything is asked of the server. */
  async run(): Promise<void> {
    const kept = await this.store.load();
    this.client.clockOffsetMs = kept.clockOffsetMs;
    this.held = { ...this.held, files: new Map(await this.store.files()) };
    if (kept.screen) this.events.screen(kept.screen);
    if (kept.program) {
      const { hash, text, edition, source } = kept.program;
      this.hold({ ...this.read(hash, text), source }, edition);
    }
    this.held = {
      ...this.held,
      coming: kept.coming.map(({ at, hash, text, source }) => ({
        at,
        program: { ...this.read(hash, text, at), text, source },
      })),
    };
    let { token } = kept;
    while (!this.ended.signal.aborted) {
      token ??= await this.pair();
      if (token === null) return;
      this.client.useToken(token);
      this.life = new AbortController();
      this.refusedSince = null;
      await Promise.all([this.listen(), this.poll(), this.beat(), this.reconcile(), this.keepTime()]);
      if (this.ended.signal.aborted) return;
      token = null;
      await this.forget();
    }
  }

  /** Notes something that went wrong, for the next heartbeat. */
  report(message: string): void {
    this.errors.push({ at: Math.round(this.serverNow()), message: lineOf(message, 300) });
    this.errors.splice(0, this.errors.length - ERRORS_KEPT);
  }

  private async pair(): Promise<string | null> {
    const { signal } = this.ended;
    this.client.useToken(null);
    for (let failures = 0; !signal.aborted; failures++) {
      try {
        const pairing = await this.client.startPairing();
        this.events.code(pairing.user_code);
        const token = await this.collect(pairing.device_code, pairing.interval * SECOND);
        if (token === null) return null;
        await this.store.save({ token });
        this.events.code(null);
        return token;
      } catch {
        // The code is over, or the server can't be reached: a new code is asked for.
        await this.world.wait(backoffMs(failures, this.world), signal);
      }
    }
    return null;
  }

  /** Polls until the code was typed; null when the session ends. A line that breaks is tried again, anything else throws. */
  private async collect(deviceCode: string, everyMs: number): Promise<string | null> {
    const { signal } = this.ended;
    while (!signal.aborted) {
      await this.world.wait(everyMs, signal);
      try {
        const token = signal.aborted ? null : await this.client.collectToken(deviceCode);
        if (token !== null) return token;
      } catch (error) {
        if (!(error instanceof ProtocolError && error.status === 0)) throw error;
      }
    }
    return null;
  }

  /** The screen was unpaired: what belongs to it goes, the files stay until the next program. */
  private async forget(): Promise<void> {
    this.held = { ...this.held, program: null, next: null, coming: [] };
    this.target = null;
    await this.persist({ token: null, screen: null, program: null, coming: [] });
    this.tellComing();
    this.events.screen(null);
    this.events.program(null);
  }

  private async listen(): Promise<void> {
    const { signal } = this.life;
    for (let failures = 0; !signal.aborted; failures++) {
      await this.attempt(() =>
        this.client.events((message) => {
          failures = 0;
          this.listening = true;
          switch (message.kind) {
            case 'unpaired':
              return this.life.abort();
            case 'hurry':
              return this.hurry();
            case 'target':
              return this.aim(message.data);
          }
        }, signal),
      );
      this.listening = false;
      this.stream = new AbortController();
      const { signal: heard } = this.stream;
      await this.waitForLine(backoffMs(failures, this.world), heard);
    }
  }

  /** Tries everything at once: the device's network is back, or a person is waiting for this player. */
  hurry(): void {
    this.line.abort();
    this.pause.abort();
  }

  private async waitForLine(ms: number, heard?: AbortSignal): Promise<void> {
    if (this.line.signal.aborted) this.line = new AbortController();
    const ends = [this.life.signal, this.line.signal, ...(heard ? [heard] : [])];
    await this.world.wait(ms, AbortSignal.any(ends));
  }

  private async poll(): Promise<void> {
    const { signal } = this.life;
    while (!signal.aborted) {
      await this.attempt(async () => this.aim(await this.client.target()));
      await this.waitForLine(about(POLL_MS, this.world));
    }
  }

  private async beat(): Promise<void> {
    const { signal } = this.life;
    while (!signal.aborted) {
      await this.attempt(() => this.sendReport());
      await this.waitForLine(about(HEARTBEAT_MS, this.world));
    }
  }

  /** Does work that asks the server; returns whether it worked. A failure there isn't the player's fault, so it only tries again later. */
  private async attempt(work: () => Promise<void>): Promise<boolean> {
    try {
      await work();
      return true;
    } catch (error) {
      this.noteRefusal(error);
      return false;
    }
  }

  /** A token that our server refuses, again and again, is no longer ours; what anything in between answers says nothing. */
  private noteRefusal(error: unknown): void {
    if (!(error instanceof ProtocolError) || error.status !== 401 || !error.ours) return;
    const now = this.world.now();
    // The clock was put back: count from now.
    if (this.refusedSince === null || now < this.refusedSince) this.refusedSince = now;
    if (now - this.refusedSince >= REFUSED_FOR_MS) this.life.abort();
  }

  private async sendReport(): Promise<void> {
    const now = this.serverNow();
    const report: Report = {
      ...this.options.playing(),
      edition: this.held.program?.edition ?? null,
      program: this.held.program?.hash ?? null,
      download: downloadOf(this.held, now),
      missing: missingOf(this.held),
      ready: this.held.coming.flatMap((one) => (isReady(one, this.held) ? [one.program.hash] : [])),
      clockOffsetMs: this.client.clockOffsetMs,
      storage: await this.store.usage(),
      bytesPerSecond: this.bytesPerSecond,
      errors: this.errors,
      hardware: this.options.hardware?.(),
      kinds: this.options.kinds,
      software: this.options.software,
      life: this.name,
    };
    this.aim(await this.client.heartbeat(report));
  }

  /** Reports at once: what is seen has changed in a way that is waited for. */
  tell(): void {
    this.reportSoon();
  }

  private reportSoon(): void {
    void this.attempt(() => this.sendReport());
  }

  /** A target was heard: it is the wish from now on, and what is under way goes on only if it is still the next step. */
  private aim(target: Target): void {
    this.refusedSince = null;
    // The server was heard: a stream that waits to be opened again need not wait on.
    if (!this.listening) this.stream.abort();
    const before = this.target;
    if (!equal(target.screen, before?.screen)) this.events.screen(target.screen);
    this.target = target;
    this.follow(target);
    void this.persist({ screen: target.screen, clockOffsetMs: this.client.clockOffsetMs });
    this.planned.abort();
    const wish = ({ program, edition, coming = [] }: Target) => [program, edition, coming];
    if (!before || !equal(wish(before), wish(target))) this.wake();
  }

  /** What is no longer wanted is no longer on its way; what was planned may have its time now, or another. */
  private follow(target: Target): void {
    const { next, coming, program } = this.held;
    const wanted = wantedAt(target, this.held, this.serverNow());
    const held = (hash: string | null) => coming.find((one) => one.program.hash === hash);
    const planned = (target.coming ?? []).flatMap(({ at, program: hash, source }): Coming[] => {
      const then = (one: Coming) =>
        one.at === at && one.program.source === source
          ? one
          : { at, program: { ...this.needing(one.program, at), source } };
      const own = held(hash);
      // The same edition comes with other files: what is here whole stays until they are.
      const whole = coming.findLast(
        (one) => source !== undefined && one.program.source === source && isReady(one, this.held),
      );
      return [...(whole && whole !== own ? [then(whole)] : []), ...(own ? [then(own)] : [])];
    });
    const begun = wanted === program?.hash ? undefined : held(wanted)?.program;
    this.held = {
      ...this.held,
      next: begun ?? (next && next.hash === wanted ? next : null),
      coming: planned,
    };
    this.tellComing();
    if (!equal(timesOf(planned), timesOf(coming))) void this.keepComing().catch((error) => this.noteFailure(error));
  }

  private async keepComing(): Promise<void> {
    await this.store.save({
      coming: this.held.coming.map(({ at, program: { hash, text = '', source } }) => ({ at, hash, text, source })),
    });
  }

  /** What stood in for a planned program goes as soon as that is here. */
  private dropStandIns(): void {
    const coming = withoutStandIns(this.held);
    if (coming.length === this.held.coming.length) return;
    this.held = { ...this.held, coming };
    void this.keepComing().catch((error) => this.noteFailure(error));
  }

  /** Wakes what reconciles on the instant at which something planned begins. */
  private async keepTime(): Promise<void> {
    const { signal } = this.life;
    while (!signal.aborted) {
      const now = this.serverNow();
      this.planned = new AbortController();
      // Never for long at a time, since the device's clock may jump while it waits.
      const wait = Math.min(nextBegin(this.target, this.held, now) - now, MINUTE);
      await this.world.wait(Math.max(0, wait), AbortSignal.any([signal, this.planned.signal]));
      if (!this.planned.signal.aborted) this.wake();
    }
  }

  /** Keeps values that have changed. If storage fails, that is reported and the player continues. */
  private async persist(values: Parameters<PlayerStore['save']>[0]): Promise<void> {
    const text = JSON.stringify(values);
    if (text === this.saved) return;
    this.saved = text;
    try {
      await this.store.save(values);
    } catch (error) {
      this.saved = '';
      this.report(`The player can’t keep its state: ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  private wake(): void {
    const { running } = this;
    const step = nextStep(this.target, this.held, this.serverNow());
    if (running && (!step || stepKey(step) !== running.key)) running.abort.abort();
    this.pause.abort();
  }

  /** Does the next step, again and again, while this life lasts. */
  private async reconcile(): Promise<void> {
    const { signal } = this.life;
    let failures = 0;
    while (!signal.aborted) {
      this.refreshNeeds();
      this.dropStandIns();
      this.tellComing();
      this.pause = new AbortController();
      const pause = AbortSignal.any([signal, this.pause.signal]);
      const step = nextStep(this.target, this.held, this.serverNow());
      if (!step) {
        failures = 0;
        await this.world.wait(about(NEEDS_HOLD_MS / 4, this.world), pause);
        continue;
      }
      const abort = new AbortController();
      this.running = { key: stepKey(step), abort };
      try {
        await this.take(step, AbortSignal.any([signal, abort.signal]));
        failures = 0;
      } catch (error) {
        // A program that is gone was cancelled in between: ask what is wanted now.
        if (isGone(error)) await this.attempt(async () => this.aim(await this.client.target()));
        if (signal.aborted || abort.signal.aborted) continue;
        this.noteFailure(error, failures);
        await this.world.wait(backoffMs(failures++, this.world), pause);
      } finally {
        this.running = null;
      }
    }
  }

  /** Reports an error, unless the line is at fault or the server is just restarting: those aren't the player's troubles. */
  private noteFailure(error: unknown, before = SERVER_FAILS_TOLD): void {
    this.noteRefusal(error);
    if (error instanceof StorageFull) this.held = { ...this.held, full: true };
    const ofServer =
      error instanceof ProtocolError &&
      (error.status === 0 || ((error.status >= 500 || isGone(error)) && before < SERVER_FAILS_TOLD));
    if (!ofServer) this.report(error instanceof Error ? error.message : String(error));
  }

  private async take(step: Step, signal: AbortSignal): Promise<void> {
    switch (step.kind) {
      case 'program': {
        const text = await this.client.program(step.hash, signal);
        if (sha256Hex(text) !== step.hash)
          throw new Error('The program arrived damaged, so it is being downloaded again.');
        const source = sourceIn(this.target, step.hash);
        if (!signal.aborted) this.held = { ...this.held, next: { ...this.read(step.hash, text), text, source } };
        return;
      }
      case 'ahead': {
        const text = await this.client.program(step.hash, signal);
        if (sha256Hex(text) !== step.hash)
          throw new Error('The planned program arrived damaged, so it is being downloaded again.');
        if (signal.aborted) return;
        const one = { at: step.at, program: { ...this.read(step.hash, text, step.at), text, source: step.source } };
        this.held = { ...this.held, coming: [...this.held.coming, one].sort((a, b) => a.at - b.at) };
        await this.keepComing();
        if (isReady(one, this.held)) this.reportSoon();
        return;
      }
      case 'file':
        await this.fetch(step, signal);
        return;
      case 'activate': {
        const { text = '', ...program } = step.program;
        const { coming } = this.held;
        const at = coming.find((one) => one.program.hash === program.hash)?.at;
        const kept = { program: { hash: program.hash, edition: step.edition, text, source: program.source } };
        // What was planned is kept already: it begins on the instant, and is written down then.
        if (at === undefined) await this.store.save(kept);
        this.held = { ...this.held, coming: coming.filter((one) => at === undefined || one.at > at) };
        this.hold(program, step.edition);
        this.saved = '';
        if (at !== undefined) {
          await this.store.save(kept);
          await this.keepComing();
        }
        return this.reportSoon();
      }
      case 'edition': {
        const { program } = this.held;
        if (!program) return;
        const kept = (await this.store.load()).program;
        if (kept?.hash === program.hash) await this.store.save({ program: { ...kept, edition: step.edition } });
        this.saved = '';
        this.held = { ...this.held, program: { ...program, edition: step.edition } };
        return this.reportSoon();
      }
      case 'clear':
        await this.store.discard(step.sha256);
        this.setFile(step.sha256, null);
        this.held = { ...this.held, full: false };
        return;
    }
  }

  private async fetch({ asset }: Extract<Step, { kind: 'file' }>, signal: AbortSignal): Promise<void> {
    const { bytesPerSecond, pieceBytes = PIECE_BYTES } = this.options;
    let told = this.world.now();
    let before = 0;
    let begin: { readonly at: number; readonly bytes: number } | null = null;
    await fetchFile(asset, {
      client: this.client,
      store: this.store,
      signal,
      pieceBytes,
      onBytes: async (bytes) => {
        this.setFile(asset.sha256, { bytes, whole: false });
        if (bytesPerSecond && bytes > before)
          await this.world.wait(((bytes - before) / bytesPerSecond) * SECOND, signal);
        before = bytes;
        begin ??= { at: this.world.now(), bytes };
        this.measure(bytes - begin.bytes, this.world.now() - begin.at);
        if (Math.abs(this.world.now() - told) < PROGRESS_MS) return;
        told = this.world.now();
        this.reportSoon();
      },
    });
    const held = (await this.store.files()).get(asset.sha256);
    this.setFile(asset.sha256, held ?? null);
    if (!held?.whole) return;
    this.events.file?.(asset.sha256);
    // A file that was reported missing has arrived, or a planned program is complete.
    if (!missingOf(this.held) || this.held.coming.some((one) => isReady(one, this.held))) this.reportSoon();
  }

  /** So many bytes came in so many milliseconds: little of either says nothing of the line, and a clock that was put back neither. */
  private measure(bytes: number, ms: number): void {
    if (bytes >= MEASURED_BYTES && ms > 0) this.bytesPerSecond = Math.round((bytes * SECOND) / ms);
  }

  private setFile(sha256: string, file: HeldFile | null): void {
    const files = new Map(this.held.files);
    if (file && file.bytes + Number(file.whole) > 0) files.set(sha256, file);
    else files.delete(sha256);
    this.held = { ...this.held, files };
  }

  /** Reports the coming programs once all their files are here, if the report would differ. */
  private tellComing(): void {
    const [first] = this.held.coming;
    const ready = first && isReady(first, this.held) ? first : null;
    const told = ready ? `${ready.at} ${ready.program.hash}` : '';
    if (told === this.told) return;
    this.told = told;
    this.events.coming?.(ready && { at: ready.at, program: ready.program.document });
  }

  private read(hash: string, text: string, from = this.serverNow()): Program {
    const document = JSON.parse(text) as ProgramDocument;
    return { hash, document, needs: needsOf(document, from) };
  }

  private needing(program: Program, from: Instant): Program {
    return { ...program, needs: needsOf(program.document, from) };
  }

  private hold(program: Program, edition: number | null): void {
    this.held = { ...this.held, program: { ...program, edition }, next: null };
    this.needsAt = this.serverNow();
    this.events.program(program.document);
  }

  /** Works out from time to time, and after each jump of the corrected time, which files are due when. */
  private refreshNeeds(): void {
    const now = this.serverNow();
    if (now >= this.needsAt && now - this.needsAt < NEEDS_HOLD_MS) return;
    this.needsAt = now;
    const { program, next, coming } = this.held;
    this.held = {
      ...this.held,
      program: program && { ...program, needs: needsOf(program.document, now) },
      next: next && this.needing(next, now),
      coming: coming.map(({ at, program: one }) => ({ at, program: this.needing(one, Math.max(at, now)) })),
    };
  }
}

/** Whether our own server says that it doesn't exist. */
const isGone = (error: unknown) => error instanceof ProtocolError && error.status === 404 && error.ours;

const timesOf = (coming: readonly Coming[]) => coming.map(({ at, program }) => [at, program.hash, program.source]);
