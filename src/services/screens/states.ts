import { group } from 'd3-array';
import { rows } from '@/database';
import type { Actor } from '../people';
import { deliveredPrograms } from '../editions';
import { statusOf, type ScreenStatus } from './status';
import { wallStatusOf, type HeardOfWall } from './wall-status';

/** What is known of a screen `s` and its player `p`. What pictures of a private screen said counts no longer. */
const KNOWN = `s.slug AS id, s.document->'wall' AS wall, p.part, p.id AS player, p.last_seen AS "lastSeen", p.report, p.doubled_at AS "doubledAt",
  (SELECT f.document->'lacks' FROM plan_objects f WHERE f.network_id = s.network_id AND f.kind = 'profile'
   AND f.slug = s.document->>'profile') AS lacks,
  CASE WHEN COALESCE((s.document->>'private')::boolean, false) THEN NULL ELSE p.glimpse END AS glimpse`;
/** A player of a display that a screen had when it was a wall says nothing of it. */
const COUNTS = `(p.part = 1 OR s.document ? 'wall')`;
const HEARD = `SELECT ${KNOWN}
  FROM plan_objects s LEFT JOIN players p ON p.screen_id = s.id AND ${COUNTS} WHERE s.network_id = $1 AND s.kind = 'screen'`;

/** The status of every screen of the actor's network, in order of their ids. */
export async function screenStatuses({ networkId }: Actor, now = Date.now()): Promise<ScreenStatus[]> {
  const published = await deliveredPrograms(networkId);
  return [...(await heardIn(networkId))].map(([id, heard]) => statusIn(heard, published.get(id) ?? null, now));
}

/** What is known of each screen of a network: of a wall, a row for each of its players. */
async function heardIn(networkId: string): Promise<Map<string, HeardOfWall[]>> {
  return group(await rows<HeardOfWall>(`${HEARD} ORDER BY s.slug, p.part`, [networkId]), ({ id }) => id);
}

function statusIn(heard: readonly HeardOfWall[], target: string | null, now: number): ScreenStatus {
  const [first] = heard;
  if (!first) throw new Error('nothing is known of this screen');
  return first.wall ? wallStatusOf(first.wall, heard, target, now) : statusOf(first, target, now);
}

/** Every screen of a network: its state, its troubles, and what its player told last if it is online. For what is written down over time. */
export async function watchedStatuses(networkId: string, now: number) {
  const published = await deliveredPrograms(networkId);
  return [...(await heardIn(networkId))].map(([screen, heard]) => {
    const { state, troubles } = statusIn(heard, published.get(screen) ?? null, now);
    const isOnline = state !== 'dark' && state !== 'unpaired';
    return { screen, state, troubles, report: isOnline ? (heard[0]?.report ?? null) : null };
  });
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
  private heard = new Map<string, HeardOfWall[]>();
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
    const heard = await heardIn(this.networkId);
    const gone = [...this.heard.keys()].filter((id) => !heard.has(id));
    this.heard = heard;
    for (const id of gone) this.told.delete(id);
    return { ...this.age(now), gone };
  }

  /** What players have told since the last look. */
  async hear(now = Date.now()): Promise<StatusDelta> {
    // Batches of several gateways do not come in order of their times.
    const since = new Date(this.newest.getTime() - BATCH_MS).toISOString();
    const found = await rows<HeardOfWall>(
      `SELECT ${KNOWN}
       FROM players p JOIN plan_objects s ON s.id = p.screen_id AND ${COUNTS} WHERE p.network_id = $1 AND p.last_seen > $2`,
      [this.networkId, since],
    );
    for (const one of found) {
      const others = (this.heard.get(one.id) ?? []).filter(({ player, part }) => player !== null && part !== one.part);
      this.heard.set(one.id, one.wall ? [...others, one] : [one]);
    }
    const screens = new Set(found.map(({ id }) => id));
    return { statuses: this.differing(screens, now), gone: [] };
  }

  /** Changes through time alone: screens that went offline, troubles that are over. */
  age(now = Date.now()): StatusDelta {
    return { statuses: this.differing(this.heard.keys(), now), gone: [] };
  }

  private differing(screens: Iterable<string>, now: number): ScreenStatus[] {
    const statuses: ScreenStatus[] = [];
    for (const id of screens) {
      const heard = this.heard.get(id) ?? [];
      for (const { lastSeen } of heard) if (lastSeen && lastSeen > this.newest) this.newest = lastSeen;
      const status = statusIn(heard, this.published.get(id) ?? null, now);
      const text = JSON.stringify(status);
      if (this.told.get(id)?.text === text) continue;
      this.told.set(id, { text, status, at: now });
      statuses.push(status);
    }
    return statuses;
  }
}
