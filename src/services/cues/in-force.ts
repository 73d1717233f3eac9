import { cueEffect, reachedBy } from '@/core/forecast';
import { objectIn } from '@/core/plan';
import { rows } from '@/database';
import { newestPlan } from '../editions';
import type { Actor } from '../people';
import { COLUMNS, firedOf, type Fired, type Row } from './fire';
import { firingsWithin } from './told';

/** What is on now since a cue was fired, and what was fired lately. */

/** A cue that is on: firings of it show something on these screens, whether or not something else goes ahead. */
export interface CueOn {
  readonly cue: string;
  readonly name: string;
  readonly screens: readonly string[];
  /** When the last of these screens returns to what it would show otherwise. */
  readonly until: string;
  /** The last firing of it: by whom, and when. */
  readonly since: string;
  readonly by: string | null;
  /** It was chosen by a number key at its screen. */
  readonly isLocal: boolean;
}

/** The cues that are on at an instant, the newest first. */
export async function cuesOn({ networkId }: Pick<Actor, 'networkId'>, now = Date.now()): Promise<CueOn[]> {
  const open = await rows<Row & { local: boolean }>(
    `SELECT DISTINCT ON (cue) ${COLUMNS}, origin LIKE 'key %' AS local FROM cue_firings
     WHERE network_id = $1 AND until > $2 AND at <= $2 AND NOT ends ORDER BY cue, at DESC, id DESC`,
    [networkId, new Date(now)],
  );
  const plan = open.length > 0 ? await newestPlan(networkId) : null;
  if (!plan) return [];
  const firings = await firingsWithin(networkId, now, now + 1);
  return open
    .flatMap(({ cue, name, at, by, local }): CueOn[] => {
      if (!objectIn(plan, 'cue', cue)) return [];
      const { screens, until } = cueEffect(plan, cue, reachedBy(plan, cue), firings, now);
      return until === null
        ? []
        : [{ cue, name, screens, until: new Date(until).toISOString(), since: at.toISOString(), by, isLocal: local }];
    })
    .sort((a, b) => Date.parse(b.since) - Date.parse(a.since));
}

const MOST = 100;

/** What was fired and ended last, the newest first. */
export async function lastFired({ networkId }: Actor): Promise<Fired[]> {
  const found = await rows<Row>(
    `SELECT ${COLUMNS} FROM cue_firings WHERE network_id = $1 ORDER BY at DESC, id DESC LIMIT ${MOST}`,
    [networkId],
  );
  return found.map(firedOf);
}

const KEPT_DAYS = 90;

/** Deletes firings that were long ago. Returns how many. */
export async function clearFirings(now: Date): Promise<number> {
  const gone = await rows(`DELETE FROM cue_firings WHERE at < $1::timestamptz - $2 * interval '1 day' RETURNING id`, [
    now,
    KEPT_DAYS,
  ]);
  await rows(`DELETE FROM cue_floods WHERE last < $1::timestamptz - $2 * interval '1 day'`, [now, KEPT_DAYS]);
  return gone.length;
}
