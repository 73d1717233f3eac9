import { HOUR, DAY } from '@/core/instant';
import { rows } from '@/database';
import type { Actor } from '../people';

/** What a screen's player told, and how the screen was: for tables and filters. What isn't known is null. */
export interface ScreenOverview {
  readonly id: string;
  readonly lastSeen: number | null;
  /** Since when it is in the state that was written down last. */
  readonly since: number | null;
  /** Whether it was dark within half an hour of this time yesterday. */
  readonly wasDarkYesterday: boolean;
  readonly software: string | null;
  readonly clockMs: number | null;
  readonly usedBytes: number | null;
  readonly limitBytes: number | null;
  /** Degrees Celsius. */
  readonly temperature: number | null;
}

/** All screens of the actor's network, in order of their ids. States are those that the worker wrote down, minute by minute. */
export async function screensOverview({ networkId }: Actor, now = Date.now()): Promise<ScreenOverview[]> {
  const [from, to] = [now - DAY - HOUR / 2, now - DAY + HOUR / 2].map((at) => new Date(at));
  return rows<ScreenOverview>(
    `SELECT o.slug AS id, (extract(epoch FROM p.last_seen) * 1000)::float8 AS "lastSeen",
       (extract(epoch FROM last.at) * 1000)::float8 AS since,
       COALESCE(begun.state = 'dark', false) OR EXISTS (SELECT 1 FROM screen_states s
         WHERE s.network_id = $1 AND s.screen = o.slug AND s.at > $2 AND s.at <= $3 AND s.state = 'dark') AS "wasDarkYesterday",
       p.report->>'software' AS software, (p.report->>'clockOffsetMs')::float8 AS "clockMs",
       (p.report->'storage'->>'usedBytes')::float8 AS "usedBytes", (p.report->'storage'->>'limitBytes')::float8 AS "limitBytes",
       (p.report->'hardware'->>'temperature')::float8 AS temperature
     FROM plan_objects o LEFT JOIN screen_players p ON p.screen_id = o.id
       LEFT JOIN LATERAL (SELECT at FROM screen_states s WHERE s.network_id = $1 AND s.screen = o.slug
         ORDER BY at DESC LIMIT 1) last ON true
       LEFT JOIN LATERAL (SELECT state FROM screen_states s WHERE s.network_id = $1 AND s.screen = o.slug AND s.at <= $2
         ORDER BY at DESC LIMIT 1) begun ON true
     WHERE o.network_id = $1 AND o.kind = 'screen' ORDER BY o.slug`,
    [networkId, from, to],
  );
}
