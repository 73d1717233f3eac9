import { rows } from '@/database';
import type { Actor } from '../people';
import { deliveredPrograms } from '../editions';
import { statusOf, type Heard, type ScreenStatus } from './status';

const HEARD = `SELECT s.slug AS id, p.id AS player, p.last_seen AS "lastSeen", p.report, p.doubled_at AS "doubledAt"
  FROM plan_objects s LEFT JOIN players p ON p.screen_id = s.id WHERE s.network_id = $1 AND s.kind = 'screen'`;

/** The status of every screen of the actor's network, in order of their ids. */
export async function screenStatuses({ networkId }: Actor, now = Date.now()): Promise<ScreenStatus[]> {
  const published = await deliveredPrograms(networkId);
  const found = await rows<Heard>(`${HEARD} ORDER BY s.slug`, [networkId]);
  return found.map((heard) => statusOf(heard, published.get(heard.id) ?? null, now));
}

/** The statuses that changed since the last ones were sent. */
export interface StatusDelta {
  readonly statuses: readonly ScreenStatus[];
  readonly gone: readonly string[];
}

interface Told {
  readonly text: string;
  readonly status: ScreenStatus;
  readonly at: number;
}

/** Heartbeats are gathered and written about once a second; with a margin for processes that stand still. */
const BATCH_MS = 5000;

/**
 * A network's statuses as they were told last. Each look asks for no more than can have changed, and returns what differs:
 * screens of which nothing new is to be said cost nothing, however many of them beat.
 */
export class StatusBoard {
  private heard = new Map<string, Heard>();
  private told = new Map<string, Told>();
  private published: ReadonlyMap<string, string> = new Map();
  private newest = new Date(0);

  constructor(private readonly networkId: string) {}

  /** The statuses as last sent: all of them, or those sent since an instant. */
  all(since = 0): ScreenStatus[] {
    return [...this.told.values()].flatMap(({ status, at }) => (at >= since ? [status] : []));
  }

  /** Works out all statuses again: after pairings, publications, and when screens were added or removed. */
  async load(now = Date.now()): Promise<StatusDelta> {
    this.published = await deliveredPrograms(this.networkId);
    const found = await rows<Heard>(HEARD, [this.networkId]);
    const heard = new Map(found.map((one) => [one.id, one]));
    const gone = [...this.heard.keys()].filter((id) => !heard.has(id));
    this.heard = heard;
    for (const id of gone) this.told.delete(id);
    return { ...this.age(now), gone };
  }

  /** What players have told since the last look. */
  async hear(now = Date.now()): Promise<StatusDelta> {
    // Batches of several gateways do not come in order of their times.
    const since = new Date(this.newest.getTime() - BATCH_MS).toISOString();
    const found = await rows<Heard>(
      `SELECT s.slug AS id, p.id AS player, p.last_seen AS "lastSeen", p.report, p.doubled_at AS "doubledAt"
       FROM players p JOIN plan_objects s ON s.id = p.screen_id WHERE p.network_id = $1 AND p.last_seen > $2`,
      [this.networkId, since],
    );
    for (const one of found) this.heard.set(one.id, one);
    return { statuses: this.differing(found, now), gone: [] };
  }

  /** Changes through time alone: screens that went offline, troubles that are over. */
  age(now = Date.now()): StatusDelta {
    return { statuses: this.differing(this.heard.values(), now), gone: [] };
  }

  private differing(list: Iterable<Heard>, now: number): ScreenStatus[] {
    const statuses: ScreenStatus[] = [];
    for (const heard of list) {
      if (heard.lastSeen && heard.lastSeen > this.newest) this.newest = heard.lastSeen;
      const status = statusOf(heard, this.published.get(heard.id) ?? null, now);
      const text = JSON.stringify(status);
      if (this.told.get(heard.id)?.text === text) continue;
      this.told.set(heard.id, { text, status, at: now });
      statuses.push(status);
    }
    return statuses;
  }
}
