import { subscribe, type BusMessage } from '@/database';
import { logger } from '@/log';
import { newestNumber } from '../editions';
import type { Upload } from '../library';
import type { Actor } from '../people';
import { changesSince, lastChange, type FeedChanges } from '../plan';
import { StatusBoard, type ScreenStatus } from '../screens';
import { think, type DocketSums } from '../thinking';

/** The events that a page receives. */
export type FeedEvent =
  /** The number of the last change, when a page begins to listen, or the line was lost: what it has missed, it asks for. */
  | { readonly kind: 'at'; readonly change: number }
  | ({ readonly kind: 'changes' } & FeedChanges)
  /** Too much has happened to send: the page reloads. */
  | { readonly kind: 'reload' }
  | { readonly kind: 'edition' }
  /** Who belongs to the network, or how they come in, is to be asked for. */
  | { readonly kind: 'people' }
  /** A person got another role: their pages reload. */
  | { readonly kind: 'role'; readonly person: string }
  /** Requests to publish are to be asked for. */
  | { readonly kind: 'requests' }
  /** Commands were sent, or went some way: they are to be asked for. */
  | { readonly kind: 'commands' }
  /** Cues were fired or ended: they are to be asked for. */
  | { readonly kind: 'cues' }
  /** Pictures of screens came in, or were compared: they are to be asked for. */
  | { readonly kind: 'glimpses' }
  | ({ readonly kind: 'docket' } & DocketSums)
  /** Screens whose status changed since it was last sent, and screens that are gone. */
  | { readonly kind: 'statuses'; readonly statuses: readonly ScreenStatus[]; readonly gone: readonly string[] }
  /** An upload's progress; null where the list is to be asked for. */
  | { readonly kind: 'upload'; readonly upload: Upload | null };

type Listener = (event: FeedEvent) => void;

const STATES_EVERY_MS = 1000;
const COMMANDS_EVERY_MS = 250;
const GLIMPSES_EVERY_MS = 500;
const DARKNESS_EVERY_MS = 5000;
const DOCKET_AFTER_MS = 200;
/** How long a hub stays without listeners: a page that was just loaded will listen soon, and one that reconnects finds it ready. */
const LINGER_MS = 60_000;

/** One network's feed in this process, while anybody listens to it. */
class Hub {
  private readonly listeners = new Set<Listener>();
  private readonly board: StatusBoard;
  private readonly darkness: NodeJS.Timeout;
  private change = 0;
  /** The docket as it was counted last. */
  private counted: DocketSums | null = null;
  /** Which changes that were not told yet came from which page. */
  private origins: Extract<BusMessage, { kind: 'changes' }>[] = [];
  /** What is asked of the database takes turns, so that events keep their order. */
  private turn: Promise<unknown> = Promise.resolve();
  /** The docket is counted once at a time. A count may take long, and edits don't wait for it. */
  private counts: Promise<unknown> = Promise.resolve();
  private waiting: Readonly<Record<'beats' | 'docket' | 'commands' | 'cues' | 'glimpses', NodeJS.Timeout | null>> = {
    ...{ beats: null, docket: null, commands: null, cues: null, glimpses: null },
  };

  /** This hub knows every event since this instant. */
  readonly since = Date.now();
  private ending: NodeJS.Timeout | null = null;

  constructor(
    private readonly networkId: string,
    private readonly onEnd: () => void,
  ) {
    this.board = new StatusBoard(networkId);
    this.queue(() => this.start());
    this.darkness = setInterval(() => this.queue(async () => this.tellStates(this.board.age())), DARKNESS_EVERY_MS);
    this.darkness.unref();
    this.linger();
  }

  private async start(): Promise<void> {
    this.change = await lastChange(this.networkId);
    await this.board.load();
  }

  /** The statuses as last sent; with an instant, only those sent since. */
  async statuses(since?: number): Promise<ScreenStatus[]> {
    await this.turn;
    return this.board.all(since);
  }

  /** The docket as it was counted last; null where it was not yet: then it is, and told. */
  docket(): DocketSums | null {
    if (!this.counted && !this.waiting.docket) this.countSoon();
    return this.counted;
  }

  private linger(): void {
    if (this.ending) clearTimeout(this.ending);
    this.ending = setTimeout(() => {
      if (this.listeners.size > 0) return;
      clearInterval(this.darkness);
      for (const timer of Object.values(this.waiting)) if (timer) clearTimeout(timer);
      this.onEnd();
    }, LINGER_MS);
    this.ending.unref();
  }

  add(listener: Listener): void {
    this.listeners.add(listener);
    this.queue(async () => listener({ kind: 'at', change: this.change }));
  }

  remove(listener: Listener): void {
    this.listeners.delete(listener);
    if (this.listeners.size === 0) this.linger();
  }

  hear(message: BusMessage): void {
    switch (message.kind) {
      case 'changes':
        if (message.origin !== undefined) this.origins.push(message);
        return this.queue(() => this.tellChanges(message.change));
      case 'edition':
        this.counted = null;
        this.tell({ kind: 'edition' });
        this.countSoon();
        return this.queue(async () => this.tellStates(await this.board.load()));
      case 'beats':
        return this.beatSoon();
      case 'players':
      case 'player':
        return this.queue(async () => this.tellStates(await this.board.load()));
      case 'people':
        return this.tell({ kind: 'people' });
      case 'role':
        return this.tell({ kind: 'role', person: message.person });
      case 'requests':
        return this.tell({ kind: 'requests' });
      case 'outcomes':
        return this.tellSoon('commands', COMMANDS_EVERY_MS);
      case 'cues':
        return this.tellSoon('cues', COMMANDS_EVERY_MS);
      case 'glimpses':
        return this.tellSoon('glimpses', GLIMPSES_EVERY_MS);
      case 'uploads':
        return this.tell({ kind: 'upload', upload: message.upload ?? null });
      case 'resync':
        return this.queue(async () => {
          await this.start();
          this.tell({ kind: 'at', change: this.change });
          this.tell({ kind: 'edition' });
          this.tell({ kind: 'requests' });
          this.tell({ kind: 'commands' });
          this.tell({ kind: 'cues' });
          this.tell({ kind: 'glimpses' });
          this.tell({ kind: 'upload', upload: null });
        });
    }
  }

  private tell(event: FeedEvent): void {
    for (const listener of this.listeners) listener(event);
  }

  private queue(work: () => Promise<void>): void {
    this.turn = this.turn.then(work).catch(this.failed);
  }

  private readonly failed = (error: unknown): void =>
    logger.warn({ error, network: this.networkId }, 'feed: a look at the database failed');

  private async tellChanges(upTo: number): Promise<void> {
    if (upTo <= this.change) return;
    const found = await changesSince(this.networkId, this.change);
    if (!found) {
      this.change = await lastChange(this.networkId);
      this.tell({ kind: 'reload' });
    } else {
      this.change = found.number;
      const originOf = (number: number) =>
        this.origins.find(({ first, change }) => first <= number && number <= change)?.origin;
      this.tell({
        kind: 'changes',
        ...found,
        changes: found.changes.map((one) => ({ ...one, origin: originOf(one.number) })),
      });
      this.origins = this.origins.filter(({ change }) => change > found.number);
      if (found.changes.some(({ patch }) => patch.kind === 'screen')) this.tellStates(await this.board.load());
    }
    this.countSoon();
  }

  private tellStates({ statuses, gone }: { statuses: readonly ScreenStatus[]; gone: readonly string[] }): void {
    if (statuses.length + gone.length > 0) this.tell({ kind: 'statuses', statuses, gone });
  }

  /** A thousand players that answer at once are one event. */
  private tellSoon(kind: 'commands' | 'cues' | 'glimpses', ms: number): void {
    if (this.waiting[kind]) return;
    const timer = setTimeout(() => {
      this.waiting = { ...this.waiting, [kind]: null };
      this.tell({ kind });
    }, ms);
    this.waiting = { ...this.waiting, [kind]: timer };
  }

  private beatSoon(): void {
    if (this.waiting.beats) return;
    const beats = setTimeout(() => {
      this.waiting = { ...this.waiting, beats: null };
      this.queue(async () => this.tellStates(await this.board.hear()));
    }, STATES_EVERY_MS);
    this.waiting = { ...this.waiting, beats };
  }

  /** The docket is counted once for all pages, when changes pause. */
  private countSoon(): void {
    if (this.waiting.docket) clearTimeout(this.waiting.docket);
    const timer = setTimeout(() => {
      this.waiting = { ...this.waiting, docket: null };
      this.counts = this.counts.then(() => this.count()).catch(this.failed);
    }, DOCKET_AFTER_MS);
    this.waiting = { ...this.waiting, docket: timer };
  }

  private async count(): Promise<void> {
    const actor: Actor = { networkId: this.networkId, personId: null, name: '', may: [] };
    this.counted = await think('docketSums', actor);
    this.tell({ kind: 'docket', ...this.counted });
  }
}

/** Next compiles each route on its own: what must be one in a process hangs here. */
const shared = globalThis as typeof globalThis & { lanternpostHubs?: Map<string, Hub> };

function hubs(): Map<string, Hub> {
  if (shared.lanternpostHubs) return shared.lanternpostHubs;
  const made = new Map<string, Hub>();
  shared.lanternpostHubs = made;
  subscribe((message) => {
    if (message.kind === 'resync') for (const hub of made.values()) hub.hear(message);
    else made.get(message.network)?.hear(message);
  });
  return made;
}

function hubOf(networkId: string): Hub {
  const known = hubs();
  const found = known.get(networkId);
  if (found) return found;
  const made = new Hub(networkId, () => known.delete(networkId));
  known.set(networkId, made);
  return made;
}

/** Tells everything that happens in the actor's network, in any process, until the function that is returned is called. */
export function followNetwork({ networkId }: Actor, listener: Listener): () => void {
  const hub = hubOf(networkId);
  hub.add(listener);
  return () => hub.remove(listener);
}

/** Every screen's status as the feed has it: later events build on these. */
export const knownStatuses = ({ networkId }: Actor): Promise<ScreenStatus[]> => hubOf(networkId).statuses();

/** What a page has missed. */
export interface Missed {
  /** Null: too much has happened, so the page should reload. */
  readonly changes: FeedChanges | null;
  readonly statuses: readonly ScreenStatus[];
  /** The number of the newest edition; 0 where there is none. */
  readonly edition: number;
  /** Null where it is being counted. */
  readonly docket: DocketSums | null;
}

/** What a page has missed that knows a change and the statuses of an instant. */
export async function missedSince(
  { networkId }: Actor,
  { change, at }: { readonly change: number; readonly at: number },
): Promise<Missed> {
  const hub = hubOf(networkId);
  const statuses = await hub.statuses(at >= hub.since ? at : undefined);
  const [changes, edition] = await Promise.all([changesSince(networkId, change), newestNumber(networkId)]);
  return { changes, statuses, edition, docket: hub.docket() };
}
