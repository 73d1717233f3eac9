import pg from 'pg';
import { config } from '@/config';

/**
 * Locks that one process of several holds at a time, for as long as it works: advisory locks of one database session. When the process
 * dies, or its line to the database breaks, they fall, and another may take them.
 */
export class ProcessLocks {
  private client: Promise<pg.Client> | null = null;
  /** What this process holds, and what is called when it is lost. */
  private readonly held = new Map<string, () => void>();

  /** `space` keeps these locks apart from others in the same database: any number. */
  constructor(private readonly space: number) {}

  /** Takes a lock if it is free, in this process and all others. `lost` is called if it falls before it was released. */
  async tryHold(key: string, lost: () => void): Promise<boolean> {
    if (this.held.has(key)) return false;
    this.held.set(key, lost);
    try {
      const { rows } = await (
        await this.connected()
      ).query<{ free: boolean }>('SELECT pg_try_advisory_lock(hashtextextended($1, $2)) AS free', [key, this.space]);
      if (!rows[0]?.free) this.held.delete(key);
      return rows[0]?.free === true;
    } catch (error) {
      this.held.delete(key);
      throw error;
    }
  }

  /** Lets go of a lock. Nothing happens where it has fallen. */
  async letGo(key: string): Promise<void> {
    if (!this.held.delete(key)) return;
    // Where the line is broken, so is the lock.
    const client = await this.client?.catch(() => null);
    await client
      ?.query('SELECT pg_advisory_unlock(hashtextextended($1, $2))', [key, this.space])
      .catch(() => undefined);
  }

  async close(): Promise<void> {
    const client = await this.client?.catch(() => null);
    this.fall();
    await client?.end().catch(() => undefined);
  }

  private connected(): Promise<pg.Client> {
    return (this.client ??= this.connect());
  }

  private async connect(): Promise<pg.Client> {
    const client = new pg.Client({ connectionString: config().databaseUrl, keepAlive: true });
    const fall = () => this.fall();
    client.on('error', fall).once('end', fall);
    try {
      await client.connect();
      return client;
    } catch (error) {
      this.client = null;
      throw error;
    }
  }

  private fall(): void {
    this.client = null;
    const lost = [...this.held.values()];
    this.held.clear();
    for (const tell of lost) tell();
  }
}
