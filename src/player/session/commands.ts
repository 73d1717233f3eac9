import { cannotDo, type Ability, type Command, type Outcome } from '@/core/commands';
import type { Hardware } from '../hardware/hardware';
import type { PlayerStore } from './store';
import type { World } from './world';

/** A command that was begun, as it is kept over restarts. */
export interface KeptCommand {
  readonly id: string;
  readonly expires: number;
  /** `begun`: the player may have ended before it knew how this went. */
  readonly state: 'begun' | 'done' | 'failed';
  readonly said?: string | undefined;
}

/** These commands end the player. When it has started again, they are done. */
const ENDS_THE_PLAYER = new Set(['reload', 'restart', 'update']);
/** If a command takes longer than this, the player first reports that it received it. */
const RECEIVED_AFTER_MS = 300;
/** How long the player remembers an outcome after its command has expired, in case the server sends the command again. */
const KEPT_FOR_MS = 24 * 3_600_000;

/** Commands that the session carries out, not the device. */
export interface Own {
  /** What can be done besides playing: by the device, and by the session with it. */
  abilities(): readonly Ability[];
  /** Deletes all files. */
  clear(): Promise<void>;
  /** Takes a picture of what is seen, and sends it. */
  glimpse(): Promise<void>;
}

/**
 * Does what people command from afar: each command once, at its time, unless it has expired by then. The player stores a command before it
 * begins it. So it doesn't do it twice if the server sends it again, or if the command restarts the player. The player reports an outcome
 * until the server no longer lists the command.
 */
export class Commands {
  private kept: readonly KeptCommand[] = [];
  /** Commands that wait for their time, and how to call them off. */
  private readonly waiting = new Map<string, AbortController>();
  /** The command before: commands run one after the other, so that of two volumes the later one stays. */
  private turn: Promise<void> = Promise.resolve();

  constructor(
    private readonly store: PlayerStore,
    private readonly hardware: Hardware | undefined,
    private readonly world: World,
    private readonly serverNow: () => number,
    private readonly tell: (outcomes: readonly Outcome[]) => void,
    /** What the session does itself. */
    private readonly own: Own,
  ) {}

  resume(kept: readonly KeptCommand[]): void {
    this.kept = kept;
  }

  /** The commands that the server lists now. One that it no longer lists was cancelled, or its outcome is known. */
  follow(commands: readonly Command[]): void {
    const listed = new Set(commands.map(({ id }) => id));
    for (const [id, abort] of this.waiting) if (!listed.has(id)) abort.abort();
    const known = new Map(this.kept.map((one) => [one.id, one]));
    const outcomes: Outcome[] = [];
    for (const command of commands) {
      const { id, kind, expires } = command;
      const before = known.get(id);
      if (before?.state === 'begun' && !this.waiting.has(id)) outcomes.push(this.afterRestart(before, kind));
      else if (before && before.state !== 'begun') outcomes.push({ id, state: before.state, said: before.said });
      if (before || this.waiting.has(id) || expires <= this.serverNow()) continue;
      const abort = new AbortController();
      this.waiting.set(id, abort);
      void this.doAt(command, abort.signal).finally(() => this.waiting.delete(id));
      void this.tellReceived(id);
    }
    if (outcomes.length > 0) this.tell(outcomes);
  }

  /** Nothing is left to be done: the screen was given to another player. */
  stop(): void {
    for (const abort of this.waiting.values()) abort.abort();
  }

  /** Tells that a command is here, unless it is done by then: most are, and one word is enough. */
  private async tellReceived(id: string): Promise<void> {
    await this.world.wait(RECEIVED_AFTER_MS, new AbortController().signal);
    if (this.waiting.has(id)) this.tell([{ id, state: 'received' }]);
  }

  /** What became of a command under which the player ended. */
  private afterRestart({ id, expires }: KeptCommand, kind: string): Outcome {
    const outcome: Outcome = ENDS_THE_PLAYER.has(kind)
      ? { id, state: 'done' }
      : { id, state: 'failed', said: 'The player stopped while it did this. Send the command again.' };
    void this.keep({ ...outcome, expires, state: outcome.state === 'done' ? 'done' : 'failed' });
    return outcome;
  }

  private async doAt(command: Command, called: AbortSignal): Promise<void> {
    const { id, kind, at, expires } = command;
    while (this.serverNow() < at && !called.aborted)
      // Never for long at a time, since the device's clock may jump while it waits.
      await this.world.wait(Math.min(at - this.serverNow(), 60_000), called);
    const before = this.turn;
    let done = () => {};
    this.turn = new Promise((resolve) => (done = resolve));
    try {
      await before;
      if (called.aborted || this.serverNow() >= expires) return;
      const why = cannotDo(kind, this.own.abilities());
      if (why === null) await this.keep({ id, expires, state: 'begun' });
      const said = why ?? (await this.carryOut(command));
      const outcome: Outcome = said === null ? { id, state: 'done' } : { id, state: 'failed', said };
      await this.keep({ ...outcome, expires, state: said === null ? 'done' : 'failed' });
      this.tell([outcome]);
    } finally {
      done();
    }
  }

  /** Why it failed; null if it didn't. */
  private async carryOut(command: Command): Promise<string | null> {
    try {
      if (command.kind === 'clear') await this.own.clear();
      else if (command.kind === 'glimpse') await this.own.glimpse();
      else await this.hardware?.carryOut(command);
      return null;
    } catch (error) {
      return error instanceof Error ? error.message : String(error);
    }
  }

  private async keep(one: KeptCommand): Promise<void> {
    const oldest = this.serverNow() - KEPT_FOR_MS;
    this.kept = [...this.kept.filter(({ id, expires }) => id !== one.id && expires > oldest), one];
    // What can't be kept is done all the same: at worst it is done again after a restart.
    await this.store.save({ commands: this.kept }).catch(() => undefined);
  }
}
