import { max, min } from 'd3-array';
import type { Transaction } from 'sequelize';
import { readSiteTime, siteInstants } from '@/core/edition';
import { DAY, MINUTE, type Instant } from '@/core/instant';
import type { Plan } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import type { LocalTime } from '@/core/when';
import { rows, rowsOfMany } from '@/database';

/** When an edition that waits reaches screens: all at an instant, or each when the clock at its site shows a time. */

/** When it goes out: an instant, or what clocks at each site show then, as `YYYY-MM-DDTHH:MM:SS`. */
export type GoesOut = Instant | { readonly siteTime: string };

/** The instants that come of it. */
export interface EditionTimes {
  /** When the first screen gets it, and when the last does. */
  readonly first: Instant;
  readonly last: Instant;
  /** By the ids of screens; null where all get it together. */
  readonly screens: ReadonlyMap<string, Instant> | null;
  readonly siteTime: string | null;
}

/** Between which editions one goes out that waits: when the one before is everywhere, and when the one after begins. */
export interface Between {
  readonly after?: Date | null | undefined;
  readonly before?: Date | null | undefined;
}

/** So far ahead an edition can be planned. */
const AHEAD_MS = 400 * DAY;
/** So long before it has to be known: for players to hear of it. */
const NOTICE_MS = MINUTE / 12;

/** When an edition with a plan would go out, between those around it. Throws 422 with what to do. */
export function readReach(goesOut: GoesOut, plan: Plan, now: Instant, { after, before }: Between = {}): EditionTimes {
  const reach = reachOf(goesOut, plan);
  if (!(reach.first >= now + NOTICE_MS))
    throw new Refusal(
      422,
      reach.first < reach.last
        ? 'At one of the sites this time is over, or too close for players to hear of it. Choose a later time.'
        : 'This time is over, or too close for players to hear of it. Choose a later time, or publish now.',
    );
  if (reach.last > now + AHEAD_MS)
    throw new Refusal(422, 'You can plan at most 400 days ahead. Choose an earlier time.');
  if (after && reach.first <= after.getTime())
    throw new Refusal(422, `It builds on an edition planned for ${utc(after)}. Choose a later time.`);
  if (before && reach.last >= before.getTime())
    throw new Refusal(
      422,
      `The next edition goes out at ${utc(before)}. Choose an earlier time, or move that one first.`,
    );
  return reach;
}

function reachOf(goesOut: GoesOut, plan: Plan): EditionTimes {
  if (typeof goesOut === 'number') {
    const at = Math.round(goesOut / 1000) * 1000;
    return { first: at, last: at, screens: null, siteTime: null };
  }
  const time = readSiteTime(goesOut.siteTime);
  if (time === null)
    throw new Refusal(422, 'A time at each site is a date and a time. Write it like 2026-12-01T06:00:00.');
  const screens = siteInstants(plan, time);
  const instants = [...screens.values()];
  if (instants.length === 0)
    throw new Refusal(422, 'No screen would receive it at a site’s own time. Choose one time for all.');
  return { first: min(instants) ?? 0, last: max(instants) ?? 0, screens, siteTime: goesOut.siteTime };
}

const utc = (at: Date) => `${at.toISOString().slice(0, 16).replace('T', ' ')} UTC`;

/** Writes from when on an edition is for each screen; those that are not named get it with the whole edition. */
export async function writeReach(
  edition: string,
  instants: ReadonlyMap<string, Instant> | null,
  within: Transaction,
): Promise<void> {
  await rows(
    'UPDATE edition_screens SET from_at = NULL WHERE edition_id = $1 AND from_at IS NOT NULL',
    [edition],
    within,
  );
  if (!instants || instants.size === 0) return;
  await rowsOfMany(
    `UPDATE edition_screens s SET from_at = t.at FROM unnest($2::text[], $3::timestamptz[]) AS t(screen, at)
     WHERE s.edition_id = $1 AND s.screen = t.screen`,
    [edition, [...instants.keys()], [...instants.values()].map((at) => new Date(at).toISOString())],
    instants.size,
    within,
  );
}

/** Lets an edition that was written again reach the same screens as the one it replaces: at the sites' own times, and on the same pilots. */
export async function carryReach(
  from: { readonly id: string; readonly siteTime: string | null },
  to: { readonly id: string; readonly plan: Plan },
  within: Transaction,
): Promise<void> {
  if (from.siteTime !== null)
    return writeReach(to.id, siteInstants(to.plan, readSiteTime(from.siteTime) as LocalTime), within);
  const tried = await rows<{ screen: string; at: Date }>(
    'SELECT screen, from_at AS at FROM edition_screens WHERE edition_id = $1 AND from_at IS NOT NULL',
    [from.id],
    within,
  );
  if (tried.length > 0) await writeReach(to.id, new Map(tried.map(({ screen, at }) => [screen, at.getTime()])), within);
}

/** When the first screen gets each of some editions that wait, by their ids. */
export async function beginnings(ids: readonly string[], within?: Transaction): Promise<Map<string, Date>> {
  const found = await rows<{ id: string; at: Date | null }>(
    `SELECT e.id, coalesce((SELECT min(from_at) FROM edition_screens s WHERE s.edition_id = e.id), e.planned_for) AS at
     FROM editions e WHERE e.id = ANY($1)`,
    [ids],
    within,
  );
  return new Map(found.flatMap(({ id, at }) => (at ? [[id, at] as const] : [])));
}
