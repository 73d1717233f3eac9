import { troubleKind, type Sample, type State } from '@/core/health';
import { DAY, HOUR, MINUTE } from '@/core/instant';
import { rows } from '@/database';
import type { Report } from '@/protocol/schemas';
import { watchedStatuses } from '../screens';

/** The worker's side: writes down how screens are, minute by minute. */

const SAMPLED_EVERY_MS = 5 * MINUTE;
const KEPT_MS = 2 * DAY;

/**
 * Writes down which screens' states and troubles changed since the last time, in all networks, and once in five minutes what players measure. The
 * instants are rounded, so two workers that do this at once write the same.
 */
export async function noteHealth(at: number): Promise<void> {
  const now = Math.floor(at / MINUTE) * MINUTE;
  const networks = await rows<{ id: string }>('SELECT id FROM networks');
  for (const { id } of networks) {
    const found = await watchedStatuses(id, at);
    await noteStates(id, found, now);
    await noteTroubles(id, found, now);
    const slot = Math.floor(at / SAMPLED_EVERY_MS) * SAMPLED_EVERY_MS;
    if (!(await isSampled(id, slot))) await noteSamples(id, found, slot);
  }
}

interface Watched {
  readonly screen: string;
  readonly state: State;
  readonly troubles: readonly string[];
  /** What its player told last; null if it is offline or never told anything. */
  readonly report: Report | null;
}

async function noteStates(networkId: string, found: readonly Watched[], now: number): Promise<void> {
  await rows(
    `INSERT INTO screen_states (network_id, screen, at, state)
     SELECT $1, t.screen, $4, t.state FROM unnest($2::text[], $3::text[]) AS t(screen, state)
       LEFT JOIN LATERAL (SELECT state FROM screen_states s WHERE s.network_id = $1 AND s.screen = t.screen
         ORDER BY at DESC LIMIT 1) last ON true
     WHERE last.state IS DISTINCT FROM t.state ON CONFLICT DO NOTHING`,
    [networkId, found.map(({ screen }) => screen), found.map(({ state }) => state), new Date(now)],
  );
}

/** A trouble stands since it was first seen; one that is gone begins again. */
async function noteTroubles(networkId: string, found: readonly Watched[], now: number): Promise<void> {
  const all = found.flatMap(({ screen, troubles }) => troubles.map((text) => ({ screen, kind: troubleKind(text) })));
  await rows(
    `WITH now AS (SELECT DISTINCT screen, kind FROM unnest($2::text[], $3::text[]) AS t(screen, kind)),
       over AS (
         DELETE FROM screen_troubles s WHERE network_id = $1 AND NOT EXISTS (
           SELECT 1 FROM now WHERE now.screen = s.screen AND now.kind = s.kind))
     INSERT INTO screen_troubles (network_id, screen, kind, since) SELECT $1, screen, kind, $4 FROM now ON CONFLICT DO NOTHING`,
    [networkId, all.map(({ screen }) => screen), all.map(({ kind }) => kind), new Date(now)],
  );
}

/** Whether a network's players were sampled for a slot of five minutes. */
async function isSampled(networkId: string, slot: number): Promise<boolean> {
  const found = await rows(
    "SELECT 1 FROM screen_health WHERE network_id = $1 AND hour = $2 AND (samples->-1->>'at')::bigint >= $3 LIMIT 1",
    [networkId, new Date(Math.floor(slot / HOUR) * HOUR), slot],
  );
  return found.length > 0;
}

async function noteSamples(networkId: string, found: readonly Watched[], now: number): Promise<void> {
  const measured = found.flatMap(({ screen, report }) =>
    report ? [{ screen, samples: [sampleOf(report, now)] }] : [],
  );
  const hour = new Date(Math.floor(now / HOUR) * HOUR);
  await rows(
    `INSERT INTO screen_health AS h (network_id, screen, hour, samples)
     SELECT $1, t.screen, $2, t.samples FROM jsonb_to_recordset($3::jsonb) AS t(screen text, samples jsonb)
     ON CONFLICT (network_id, screen, hour) DO UPDATE SET samples = h.samples || excluded.samples
       -- Another worker may have been first.
       WHERE h.samples->-1->>'at' IS DISTINCT FROM excluded.samples->0->>'at'`,
    [networkId, hour, JSON.stringify(measured)],
  );
}

/** What of a report is kept. */
function sampleOf({ hardware = {}, storage, clockOffsetMs, bytesPerSecond }: Report, at: number): Sample {
  const { temperature, memory, load } = hardware;
  return {
    at,
    ...(temperature === undefined ? {} : { temperature }),
    ...(memory === undefined ? {} : { memory }),
    ...(load === undefined ? {} : { load }),
    ...(storage && storage.limitBytes > 0 ? { storage: storage.usedBytes / storage.limitBytes } : {}),
    ...{ clock: clockOffsetMs },
    ...(bytesPerSecond == null ? {} : { line: bytesPerSecond }),
  };
}

/** Deletes what is older than two days, but for the last state of each screen. Returns how many rows. */
export async function clearHealth(now: Date): Promise<number> {
  const oldest = new Date(now.getTime() - KEPT_MS);
  const samples = await rows('DELETE FROM screen_health WHERE hour < $1 RETURNING hour', [oldest]);
  const states = await rows(
    `DELETE FROM screen_states s WHERE at < $1 AND EXISTS (
       SELECT 1 FROM screen_states l WHERE l.network_id = s.network_id AND l.screen = s.screen AND l.at > s.at AND l.at <= $1)
     RETURNING at`,
    [oldest],
  );
  const gone = await rows(
    `DELETE FROM screen_states s WHERE NOT EXISTS (
       SELECT 1 FROM plan_objects o WHERE o.network_id = s.network_id AND o.kind = 'screen' AND o.slug = s.screen) RETURNING at`,
  );
  return samples.length + states.length + gone.length;
}
