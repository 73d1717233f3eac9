import { rows } from '@/database';
import { notFound } from '../errors';
import type { Actor } from '../people';

/** How far editions came: which players were heard to play what an edition gives them, and when. */

/** What a player was heard to play: the hash of its program, and when that was, in milliseconds. */
export interface Playing {
  readonly player: string;
  readonly program: string;
  readonly seen: number;
}

/** Writes down which screens the edition that is out has reached. What was written before stays. */
export async function noteReached(heard: readonly Playing[]): Promise<void> {
  await rows(
    `UPDATE edition_screens s SET reached_at = greatest(t.seen, e.since)
     FROM jsonb_to_recordset($1::jsonb) AS t(player uuid, program text, seen timestamptz)
     JOIN players p ON p.id = t.player JOIN plan_objects o ON o.id = p.screen_id
     JOIN LATERAL (
       SELECT n.id, CASE WHEN n.number IS NULL THEN coalesce(g.from_at, n.planned_for) ELSE least(g.from_at, n.published_at) END AS since
       FROM editions n JOIN edition_screens g ON g.edition_id = n.id AND g.screen = o.slug
       WHERE n.network_id = p.network_id AND (n.number = (SELECT max(number) FROM editions WHERE network_id = p.network_id)
         OR n.number IS NULL AND coalesce(g.from_at, n.planned_for) <= now())
       ORDER BY n.number DESC NULLS FIRST, n.planned_for DESC LIMIT 1
     ) e ON true
     WHERE s.edition_id = e.id AND s.screen = o.slug AND s.reached_at IS NULL AND t.program IN (s.hash, s.delivered)`,
    [JSON.stringify(heard.map((one) => ({ ...one, seen: new Date(one.seen).toISOString() })))],
  );
}

/** A screen that an edition gave something else than the edition before. */
export interface Arrival {
  readonly screen: string;
  /** When its player was first heard to play that; null for not yet, or never. */
  readonly at: string | null;
}

/** The screens that an edition `e` gave something else than the one before, as SQL: a row each. */
const CHANGED_SCREENS = `SELECT s.screen, s.reached_at FROM edition_screens s
  LEFT JOIN editions b ON b.network_id = e.network_id
    AND b.number = (SELECT max(number) FROM editions l WHERE l.network_id = e.network_id AND l.number < e.number)
  LEFT JOIN edition_screens o ON o.edition_id = b.id AND o.screen = s.screen
  WHERE s.edition_id = e.id AND o.hash IS DISTINCT FROM s.hash`;

/** How many screens an edition `e` changed, how many of them it reached, and when the last: as SQL, one row. */
export const COUNTED = `SELECT count(*)::int AS touched, count(reached_at)::int AS reached, max(reached_at) AS last
  FROM (${CHANGED_SCREENS}) AS changed`;

/**
 * Counts, once, how far the editions came that another has followed: nothing arrives of them any more. A minute after that, since what was
 * heard until then may still be on its way into the database.
 */
export async function countArrivals(now: Date): Promise<void> {
  await rows(
    `UPDATE editions u SET touched = c.touched, reached = c.reached, last_reached = c.last
     FROM editions e CROSS JOIN LATERAL (${COUNTED}) AS c
     WHERE u.id = e.id AND e.number IS NOT NULL AND e.touched IS NULL AND EXISTS (
       SELECT 1 FROM editions f WHERE f.network_id = e.network_id AND f.number > e.number
         AND f.published_at < $1::timestamptz - interval '1 minute')`,
    [now],
  );
}

/** How far an edition came: the first to arrive first, then those that did not. Throws 404 for an edition that there is not. */
export async function arrivals({ networkId }: Actor, number: number): Promise<Arrival[]> {
  const found = await rows<{ screen: string | null; reached_at: Date | null }>(
    `SELECT c.screen, c.reached_at FROM editions e LEFT JOIN LATERAL (${CHANGED_SCREENS}) AS c ON true
     WHERE e.network_id = $1 AND e.number = $2 ORDER BY c.reached_at NULLS LAST, c.screen`,
    [networkId, number],
  );
  if (found.length === 0) throw notFound('edition');
  return found.flatMap(({ screen, reached_at: at }) =>
    screen === null ? [] : [{ screen, at: at?.toISOString() ?? null }],
  );
}
