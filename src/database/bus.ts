import pg from 'pg';
import type { Transaction } from 'sequelize';
import { config } from '@/config';
import { logger } from '@/log';
import { rows } from './connection';

/** What processes tell each other through PostgreSQL's LISTEN/NOTIFY: small, and only ever a hint to look again. */
export type BusMessage =
  | { readonly kind: 'edition' | 'players' | 'beats'; readonly network: string }
  /** `upload` says how far one is; absent where the list changed otherwise. */
  | { readonly kind: 'uploads'; readonly network: string; readonly upload?: UploadProgress | undefined }
  /** Objects of the plan were changed: `first` to `change` are the numbers; `origin` is what the page called it that asked. */
  | {
      readonly kind: 'changes';
      readonly network: string;
      readonly first: number;
      readonly change: number;
      readonly origin?: string | undefined;
    }
  | { readonly kind: 'player'; readonly network: string; readonly player: string }
  /** These players are asked to try at once what they would try later. */
  | { readonly kind: 'hurry'; readonly network: string; readonly players: readonly string[] }
  /** These players have commands to do, or some fewer. */
  | { readonly kind: 'commands'; readonly network: string; readonly players: readonly string[] }
  /** A cue was fired or ended on these screens; null: on more than a message can name. */
  | { readonly kind: 'cues'; readonly network: string; readonly screens: readonly string[] | null }
  /** Pictures of these screens came in, or were compared. */
  | { readonly kind: 'glimpses'; readonly network: string; readonly screens: readonly string[] }
  /** How commands went is news. */
  | { readonly kind: 'outcomes'; readonly network: string }
  /** Another request wants to continue a file that is being sent: the one that writes to it stops. */
  | { readonly kind: 'upload-wanted'; readonly network: string; readonly upload: string }
  /** A session of this person ended. */
  | { readonly kind: 'session'; readonly network: string; readonly person: string }
  /** Someone got another role. */
  | { readonly kind: 'role'; readonly network: string; readonly person: string }
  /** A publication was requested, or a request was answered. */
  | { readonly kind: 'requests'; readonly network: string }
  /** Something was done with the network's people. */
  | { readonly kind: 'people'; readonly network: string }
  /** The line to PostgreSQL is there, for the first time or again: anything may have happened before. */
  | { readonly kind: 'resync' };

/** How far an upload is, as its list shows it. */
export interface UploadProgress {
  readonly id: string;
  readonly name: string;
  readonly state: 'waiting' | 'working' | 'ready' | 'failed';
  readonly progress: number;
  readonly error: string | null;
  /** The id of the media file whose new version it is; absent where that is not told. */
  readonly replaces?: string | null;
}

const CHANNEL = 'lanternpost';

/** Tells every process; inside a transaction, at its commit. */
export async function publish(message: BusMessage, within?: Transaction): Promise<void> {
  await rows('SELECT pg_notify($1, $2)', [CHANNEL, JSON.stringify(message)], within);
}

type Listener = (message: BusMessage) => void;

const shared = globalThis as typeof globalThis & { lanternpostBus?: Bus };

class Bus {
  private readonly listeners = new Set<Listener>();
  private client: pg.Client | null = null;
  private connecting = false;

  add(listener: Listener): () => void {
    this.listeners.add(listener);
    void this.connect();
    return () => this.listeners.delete(listener);
  }

  async close(): Promise<void> {
    this.listeners.clear();
    const { client } = this;
    this.client = null;
    await client?.end().catch(() => undefined);
  }

  private async connect(): Promise<void> {
    if (this.client || this.connecting) return;
    this.connecting = true;
    const client = new pg.Client({ connectionString: config().databaseUrl, keepAlive: true });
    client.on('notification', ({ payload }) => this.tell(JSON.parse(payload ?? '{}') as BusMessage));
    client.on('error', () => this.lost(client));
    client.on('end', () => this.lost(client));
    try {
      await client.connect();
      await client.query(`LISTEN ${CHANNEL}`);
      this.client = client;
      // Whoever listened before the line was there, for the first time or again, may have missed something.
      this.tell({ kind: 'resync' });
    } catch (error) {
      logger.warn({ error }, 'bus: PostgreSQL does not answer, another try follows');
      this.retry();
    } finally {
      this.connecting = false;
    }
  }

  private lost(client: pg.Client): void {
    if (this.client !== client) return;
    this.client = null;
    this.retry();
  }

  private retry(): void {
    if (this.listeners.size > 0) setTimeout(() => void this.connect(), 1000).unref();
  }

  private tell(message: BusMessage): void {
    for (const listener of this.listeners) listener(message);
  }
}

/** Calls `listener` for every message from any process, until the function that is returned is called. */
export function subscribe(listener: Listener): () => void {
  shared.lanternpostBus ??= new Bus();
  return shared.lanternpostBus.add(listener);
}

export async function closeBus(): Promise<void> {
  const bus = shared.lanternpostBus;
  delete shared.lanternpostBus;
  await bus?.close();
}
