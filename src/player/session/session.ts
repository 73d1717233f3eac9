import equal from 'fast-deep-equal';
import type { Ability, Outcome } from '@/core/commands';
import { MINUTE, SECOND, lineOf } from '@/core/playing';
import { ProtocolError, type Enrolment, type ProtocolClient } from '@/protocol/client';
import type { Pairing, Report, Target } from '@/protocol/schemas';
import type { Hardware } from '../hardware/hardware';
import { Commands } from './commands';
import { Firings, type KeptFiring } from './firings';
import { Glimpses } from './glimpses';
import { Holdings, NEEDS_HOLD_MS, type HoldingsEvents } from './holdings';
import { Line } from './line';
import { pair } from './pairing';
import { downloadOf, isReady, missingOf, nextBegin, nextStep, stepKey } from './reconcile';
import { keepPower } from './power';
import { Steps, type StepEvents, type StepOptions } from './steps';
import { StorageFull, type PlayerStore } from './store';
import { about, backoffMs, realWorld, uuidFrom, type World } from './world';

/** What a session tells the one who draws. */
export interface SessionEvents extends HoldingsEvents, Pick<StepEvents, 'file'> {
  code(code: string | null, mark?: Pairing['mark']): void;
  screen(screen: Target['screen'] | null): void;
  /** What was fired on this screen, and counts. */
  firings?(firings: readonly KeptFiring[]): void;
}

export interface SessionOptions extends StepOptions {
  readonly software: string;
  /** What plays now, for the heartbeat. */
  readonly playing: () => Pick<Report, 'playing' | 'state'>;
  readonly hardware?: Hardware;
  /** With an enrolment key it waits to be given a screen. */
  readonly enrolment?: Enrolment | undefined;
  /** The kinds of files that it can play; absent: all of them. */
  readonly kinds?: Report['kinds'];
  /** The video codecs that it can play; absent: it doesn’t know. */
  readonly codecs?: Report['codecs'];
}

/** How the player is. Instants by the server's clock, in milliseconds. */
export interface Facts extends Pick<Report, 'edition' | 'storage' | 'clockOffsetMs' | 'software' | 'errors'> {
  readonly screen: string | null;
  readonly missing: Report['missing'] | null;
  /** When the server answered last; null for not since this start. */
  readonly heardAt: number | null;
  readonly now: number;
}

const HEARTBEAT_MS = 15 * SECOND;
const POLL_MS = MINUTE;
/** So often is looked whether a picture is due. */
const GLIMPSES_MS = 5 * SECOND;
/** After this many failures in a row the server's error is reported. Before that it may just be restarting. */
const SERVER_FAILS_TOLD = 3;
const ERRORS_KEPT = 20;
/** After so many failures an outcome waits until the server lists its command again. */
const OUTCOME_TRIES = 3;

/**
 * A player's life from box to lit, without drawing: pairs, listens, and reconciles what it holds with what is wanted. The
 * newest target that was heard is the wish; what to do next is asked of `nextStep` each time, so that messages may come twice or
 * late, anything may fail at any point, and a new wish goes ahead of whatever is under way. Whatever fails is tried again until
 * `stop`, later each time and never in step with other players.
 */
export class PlayerSession {
  private target: Target | null = null;
  private readonly errors: Report['errors'] = [];
  private readonly ended = new AbortController();
  /** The step under way, and how to break it off. */
  private running: { readonly key: string; readonly abort: AbortController } | null = null;
  /** Ends a pause between steps. */
  private pause = new AbortController();
  /** Ends the wait for what is planned: it was moved, or the clock put right. */
  private planned = new AbortController();
  private readonly line: Line;
  private readonly holdings: Holdings;
  private readonly steps: Steps;
  private readonly commands: Commands;
  private readonly glimpses: Glimpses;
  private readonly firings: Firings;
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
    this.line = new Line(client, world);
    this.holdings = new Holdings(
      store,
      () => this.serverNow(),
      events,
      (message) => this.report(message),
    );
    const told = { file: events.file?.bind(events), report: () => this.tell() };
    this.steps = new Steps(client, store, this.holdings, told, options, world);
    this.commands = new Commands(
      store,
      options.hardware,
      world,
      () => this.serverNow(),
      (outcomes) => void this.tellOutcomes(outcomes),
      {
        abilities: () => this.abilities(),
        clear: () => this.clear(),
        glimpse: () => this.glimpses.take(),
      },
    );
    this.firings = new Firings(
      store,
      () => this.serverNow(),
      () => uuidFrom(world.random),
      (presses) => client.firings(presses),
      (firings) => events.firings?.(firings),
      (cue) => this.report(`“${cue}” is pressed at the screen far too often, so some presses are passed over.`),
    );
    this.glimpses = new Glimpses(
      client,
      options.hardware,
      () => this.target,
      () => this.holdings.state.program?.hash ?? null,
      () => this.serverNow(),
    );
  }

  /** The time by the server's clock, as far as this player knows it. */
  serverNow(): number {
    return this.world.now() + this.client.clockOffsetMs;
  }

  stop(): void {
    this.ended.abort();
    this.line.end();
    this.pause.abort();
    this.running?.abort.abort();
  }

  /** Runs until `stop`. Files kept from an earlier run are reported before anything is asked of the server. */
  async run(): Promise<void> {
    const kept = await this.store.load();
    this.client.clockOffsetMs = kept.clockOffsetMs;
    if (kept.screen) this.events.screen(kept.screen);
    await this.holdings.resume(kept);
    this.commands.resume(kept.commands);
    this.firings.resume(kept.firings);
    let { token, was } = kept;
    while (!this.ended.signal.aborted) {
      token ??= await pair(
        this.client,
        this.world,
        {
          show: (code, mark) => this.events.code(code, mark),
          keep: (given) => this.store.save({ token: given, was: null }),
        },
        this.ended.signal,
        this.options.enrolment,
        was ?? undefined,
      );
      if (token === null) return;
      this.line.begin(token);
      await Promise.all([
        this.listen(),
        this.line.every(POLL_MS, () => this.ask()),
        this.line.every(HEARTBEAT_MS, () => this.sendReport()),
        this.line.every(GLIMPSES_MS, () => this.glimpses.takeIfDue()),
        this.reconcile(),
        this.keepTime(),
        this.keepPower(),
      ]);
      if (this.ended.signal.aborted) return;
      was = token;
      token = null;
      this.target = null;
      this.events.screen(null);
      this.commands.stop();
      this.firings.forget();
      await this.holdings.forget(was);
    }
  }

  /** Notes something that went wrong, for the next heartbeat. */
  report(message: string): void {
    this.errors.push({ at: Math.round(this.serverNow()), message: lineOf(message, 300) });
    this.errors.splice(0, this.errors.length - ERRORS_KEPT);
  }

  /** Reports at once: what is seen or held has changed in a way that is waited for. */
  tell(): void {
    void this.line.attempt(() => this.sendReport());
  }

  /** Something was pressed at the screen: it counts at once. Returns whether it was taken. */
  press(...pressed: Parameters<Firings['press']>): boolean {
    return this.firings.press(...pressed);
  }

  /** Tries everything at once: the device's network is back, or a person is waiting for this player. */
  hurry(): void {
    this.line.hurry();
    this.pause.abort();
  }

  private abilities(): readonly Ability[] {
    return [...(this.options.hardware?.abilities() ?? []), ...(this.glimpses.isAble() ? (['glimpse'] as const) : [])];
  }

  private listen(): Promise<void> {
    return this.line.listen((message) => {
      switch (message.kind) {
        case 'unpaired':
          return this.line.end();
        case 'hurry':
          return this.hurry();
        case 'target':
          return this.aim(message.data);
      }
    });
  }

  private async keepPower(): Promise<void> {
    const { hardware, playing } = this.options;
    if (!hardware?.setPower) return;
    const isResting = () => playing().state === 'resting';
    await keepPower(hardware, isResting, this.world, this.line.signal, (error) => this.noteFailure(error));
  }

  private async ask(): Promise<void> {
    this.aim(await this.client.target());
  }

  /** How the player is, for a person in front of it. */
  async facts(): Promise<Facts> {
    const { edition, missing = null, storage, clockOffsetMs, software, errors } = await this.makeReport();
    const heardAt = this.line.heardAt === null ? null : this.line.heardAt + clockOffsetMs;
    const screen = this.target?.screen.name ?? null;
    return { screen, edition, missing, storage, clockOffsetMs, software, errors, heardAt, now: this.serverNow() };
  }

  private async sendReport(): Promise<void> {
    this.aim(await this.client.heartbeat(await this.makeReport()));
  }

  private async makeReport(): Promise<Report> {
    const { state } = this.holdings;
    const hardware = this.options.hardware?.state();
    return {
      ...this.options.playing(),
      // What is behind a blank screen isn't seen, a takeover included.
      ...(hardware?.blank ? { playing: null } : {}),
      edition: state.program?.edition ?? null,
      program: state.program?.hash ?? null,
      download: downloadOf(state, this.serverNow()),
      missing: missingOf(state),
      ready: state.coming.flatMap((one) => (isReady(one, state) ? [one.program.hash] : [])),
      clockOffsetMs: this.client.clockOffsetMs,
      storage: await this.store.usage(),
      bytesPerSecond: this.steps.bytesPerSecond,
      errors: this.errors,
      can: [...this.abilities()],
      hardware,
      kinds: this.options.kinds,
      codecs: this.options.codecs,
      software: this.options.software,
      life: this.name,
    };
  }

  /** A target was heard: it is the wish from now on, and what is under way goes on only if it is still the next step. */
  private aim(target: Target): void {
    this.line.heard();
    const before = this.target;
    if (!equal(target.screen, before?.screen)) this.events.screen(target.screen);
    this.target = target;
    this.commands.follow(target.commands ?? []);
    this.firings.follow(target.firings);
    void this.holdings.follow(target).catch((error) => this.noteFailure(error));
    void this.holdings.keep({ screen: target.screen, clockOffsetMs: this.client.clockOffsetMs });
    this.planned.abort();
    const wish = ({ program, edition, coming = [] }: Target) => [program, edition, coming];
    if (!before || !equal(wish(before), wish(target))) this.wake();
  }

  /** Wakes what reconciles on the instant at which something planned begins. */
  private async keepTime(): Promise<void> {
    const { signal } = this.line;
    while (!signal.aborted) {
      const now = this.serverNow();
      this.planned = new AbortController();
      // Never for long at a time, since the device's clock may jump while it waits.
      const wait = Math.min(nextBegin(this.target, this.holdings.state, now) - now, MINUTE);
      await this.world.wait(Math.max(0, wait), AbortSignal.any([signal, this.planned.signal]));
      if (!this.planned.signal.aborted) this.wake();
    }
  }

  /** Reports outcomes of commands. Tries again soon if that fails: a thousand players may report at the same moment. */
  private async tellOutcomes(outcomes: readonly Outcome[]): Promise<void> {
    const { signal } = this.line;
    for (let failures = 0; failures < OUTCOME_TRIES && !signal.aborted; failures++) {
      try {
        return await this.client.outcomes(outcomes);
      } catch (error) {
        this.line.noteRefusal(error);
        await this.world.wait(backoffMs(failures, this.world), signal);
      }
    }
  }

  /** What is held goes, and is downloaded again. */
  private async clear(): Promise<void> {
    this.running?.abort.abort();
    await this.holdings.clear();
    this.wake();
  }

  private nextStep() {
    return nextStep(this.target, this.holdings.state, this.serverNow());
  }

  private wake(): void {
    const { running } = this;
    const step = this.nextStep();
    if (running && (!step || stepKey(step) !== running.key)) running.abort.abort();
    this.pause.abort();
  }

  /** Takes the next step, again and again, while the token lasts. */
  private async reconcile(): Promise<void> {
    const { signal } = this.line;
    let failures = 0;
    while (!signal.aborted) {
      this.holdings.refreshNeeds();
      void this.holdings.dropStandIns().catch((error) => this.noteFailure(error));
      this.holdings.tellComing();
      this.pause = new AbortController();
      const pause = AbortSignal.any([signal, this.pause.signal]);
      const step = this.nextStep();
      if (!step) {
        failures = 0;
        await this.world.wait(about(NEEDS_HOLD_MS / 4, this.world), pause);
        continue;
      }
      const abort = new AbortController();
      this.running = { key: stepKey(step), abort };
      try {
        await this.steps.take(step, () => this.target, AbortSignal.any([signal, abort.signal]));
        failures = 0;
      } catch (error) {
        // A program that is gone was cancelled in between: ask what is wanted now.
        if (isGone(error)) await this.line.attempt(() => this.ask());
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
    this.line.noteRefusal(error);
    if (error instanceof StorageFull) this.holdings.isFull();
    const ofServer =
      error instanceof ProtocolError &&
      (error.status === 0 || ((error.status >= 500 || isGone(error)) && before < SERVER_FAILS_TOLD));
    if (!ofServer) this.report(error instanceof Error ? error.message : String(error));
  }
}

/** Whether our own server says that it doesn't exist. */
const isGone = (error: unknown) => error instanceof ProtocolError && error.status === 404 && error.ours;
