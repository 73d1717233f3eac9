import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import { HOUR, DAY } from '@/core/instant';
import { rows } from '@/database';
import type { Actor } from '../people';

/** What a screen's player told, and how the screen was: for tables and filters. What isn't known is null. */
export interface ScreenOverview {
  readonly id: string;
  /** Since when it is in the state that was written down last. */
  readonly since: number | null;
  /** Whether it was dark within half an hour of this time yesterday. */
  readonly wasDarkYesterday: boolean;
  readonly software: string | null;
  /** To a tenth of a second. */
  readonly clockMs: number | null;
  /** To a hundredth of the limit. */
  readonly usedBytes: number | null;
  readonly limitBytes: number | null;
  /** Whole degrees Celsius. */
  readonly temperature: number | null;
}

/** All screens of the actor's network, in order of their ids. States are those that the worker wrote down, minute by minute. */
export async function screensOverview({ networkId }: Actor, now = Date.now()): Promise<ScreenOverview[]> {
  const [from, to] = [now - DAY - HOUR / 2, now - DAY + HOUR / 2].map((at) => new Date(at));
  return rows<ScreenOverview>(
    `SELECT o.slug AS id, (extract(epoch FROM last.at) * 1000)::float8 AS since,
       COALESCE(begun.state = 'dark', false) OR EXISTS (SELECT 1 FROM screen_states s
         WHERE s.network_id = $1 AND s.screen = o.slug AND s.at > $2 AND s.at <= $3 AND s.state = 'dark') AS "wasDarkYesterday",
       p.report->>'software' AS software, round((p.report->>'clockOffsetMs')::numeric, -2)::float8 AS "clockMs",
       (ceil(100 * told.used / NULLIF(told.most, 0)) * told.most / 100)::float8 AS "usedBytes", told.most::float8 AS "limitBytes",
       round((p.report->'hardware'->>'temperature')::numeric)::float8 AS temperature
     FROM plan_objects o LEFT JOIN screen_players p ON p.screen_id = o.id
       CROSS JOIN LATERAL (SELECT (p.report->'storage'->>'usedBytes')::numeric AS used, (p.report->'storage'->>'limitBytes')::numeric AS most) told
       LEFT JOIN LATERAL (SELECT at FROM screen_states s WHERE s.network_id = $1 AND s.screen = o.slug
         ORDER BY at DESC LIMIT 1) last ON true
       LEFT JOIN LATERAL (SELECT state FROM screen_states s WHERE s.network_id = $1 AND s.screen = o.slug AND s.at <= $2
         ORDER BY at DESC LIMIT 1) begun ON true
     WHERE o.network_id = $1 AND o.kind = 'screen' ORDER BY o.slug`,
    [networkId, from, to],
  );
}

/** What differs in an overview from one that a page has already. */
export interface OverviewNews {
  /** Names the whole of it by now: what to say when asking again. */
  readonly version: string;
  /** The one from which this differs; null where `rows` are all there are. */
  readonly from: string | null;
  readonly rows: readonly ScreenOverview[];
  /** The ids of screens that are no longer there. */
  readonly gone: readonly string[];
}

/** Overviews that pages have, by network and version: each screen's row as text. So many rows are kept in all. */
const given = new LRUCache<string, ReadonlyMap<string, string>>({
  maxSize: 100_000,
  sizeCalculation: (rows) => rows.size + 1,
});

/** What differs from the overview `known`, as the answer before named it; all of it where that is no longer known. */
export async function overviewNews(actor: Actor, known: string | null, now = Date.now()): Promise<OverviewNews> {
  const all = await screensOverview(actor, now);
  const texts = new Map(all.map((row) => [row.id, JSON.stringify(row)]));
  const version = createHash('sha256')
    .update([...texts.values()].join('\n'))
    .digest('hex');
  const before = known === null ? undefined : given.get(`${actor.networkId} ${known}`);
  given.set(`${actor.networkId} ${version}`, texts);
  if (!before) return { version, from: null, rows: all, gone: [] };
  return {
    ...{ version, from: known },
    rows: all.filter(({ id }) => before.get(id) !== texts.get(id)),
    gone: [...before.keys()].filter((id) => !texts.has(id)),
  };
}
