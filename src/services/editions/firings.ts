import type { Transaction } from 'sequelize';
import type { When } from '@/core/when';
import { rows } from '@/database';
import { notFound } from '../errors';
import type { Actor } from '../people';

/** Takeovers that were fired: what is in force, what was, and which screens showed it. */

/** A takeover that was fired, and what became of it. */
export interface Firing {
  readonly id: string;
  /** The booking's id, and its name at the time. */
  readonly booking: string;
  readonly name: string;
  readonly firedAt: string;
  readonly firedBy: string | null;
  /** Whether a program did it, by that person's key. */
  readonly byKey: boolean;
  /** Whether it was a drill, on other screens, and marked so. */
  readonly drill: boolean;
  /** When it ends by itself; null for with the all-clear. */
  readonly until: string | null;
  /** For how many screens it is; how many of them say that they show it, and how many have said so. */
  readonly screens: number;
  readonly showing: number;
  readonly showed: number;
  readonly edition: number;
  readonly clearedAt: string | null;
  readonly clearedBy: string | null;
  readonly clearedByKey: boolean;
}

/** From when to when a screen showed it, by its player's own word. */
export interface ShownOn {
  readonly screen: string;
  /** Null where it has not said so. */
  readonly from: string | null;
  /** When it ended; for one still in force, when its player was last online. */
  readonly to: string | null;
  readonly over: boolean;
}

type FiringRow = Omit<Firing, 'firedAt' | 'until' | 'clearedAt'> &
  Record<'firedAt' | 'until' | 'clearedAt', Date | null>;

const FIRING = `SELECT f.id, f.booking, f.name, f.fired_at AS "firedAt", p.name AS "firedBy", f.by_key AS "byKey", f.drill, f.until,
    cardinality(f.screens) AS screens, f.edition, f.cleared_at AS "clearedAt", c.name AS "clearedBy", f.cleared_by_key AS "clearedByKey",
    (SELECT count(*)::int FROM firing_screens s WHERE s.firing_id = f.id AND NOT s.over) AS showing,
    (SELECT count(*)::int FROM firing_screens s WHERE s.firing_id = f.id) AS showed
  FROM firings f LEFT JOIN people p ON p.id = f.fired_by LEFT JOIN people c ON c.id = f.cleared_by`;
const MOST = 100;

const firingOf = (row: FiringRow): Firing => ({
  ...row,
  firedAt: row.firedAt?.toISOString() ?? '',
  until: row.until?.toISOString() ?? null,
  clearedAt: row.clearedAt?.toISOString() ?? null,
});

/** The screens that one was fired on, and which of them showed it, from when to when. Throws 404 for none. */
export async function firingScreens({ networkId }: Actor, id: string): Promise<ShownOn[]> {
  const found = await rows<{ screen: string | null; from: Date | null; to: Date | null; over: boolean | null }>(
    `SELECT x.screen, s.shown_from AS from, s.shown_to AS to, s.over
     FROM firings f LEFT JOIN LATERAL unnest(f.screens) AS x(screen) ON true
     LEFT JOIN firing_screens s ON s.firing_id = f.id AND s.screen = x.screen
     WHERE f.network_id = $1 AND f.id = $2 ORDER BY x.screen`,
    [networkId, id],
  );
  if (found.length === 0) throw notFound('activated takeover');
  return found.flatMap(({ screen, from, to, over }) =>
    screen === null
      ? []
      : [{ screen, from: from?.toISOString() ?? null, to: to?.toISOString() ?? null, over: over ?? false }],
  );
}

/** What was fired last, the newest first. */
export async function firings({ networkId }: Actor): Promise<Firing[]> {
  const found = await rows<FiringRow>(
    `${FIRING} WHERE f.network_id = $1 ORDER BY f.fired_at DESC, f.id DESC LIMIT ${MOST}`,
    [networkId],
  );
  return found.map(firingOf);
}

/** Whether it is in force at an instant: neither cleared nor over by itself. */
export const isOn = ({ clearedAt, until }: Firing, now: number): boolean =>
  clearedAt === null && (until === null || Date.parse(until) > now);

export async function lastFiring(networkId: string, booking: string, within: Transaction): Promise<Firing | null> {
  const [row] = await rows<FiringRow>(
    `${FIRING} WHERE f.network_id = $1 AND f.booking = $2 ORDER BY f.fired_at DESC, f.id DESC LIMIT 1`,
    [networkId, booking],
    within,
  );
  return row ? firingOf(row) : null;
}

export async function firingBy(id: string, within: Transaction): Promise<Firing> {
  const [row] = await rows<FiringRow>(`${FIRING} WHERE f.id = $1`, [id], within);
  if (!row) throw notFound('activated takeover');
  return firingOf(row);
}

export async function firedBy(networkId: string, key: string, within: Transaction): Promise<Firing | null> {
  const [row] = await rows<FiringRow>(
    `${FIRING} WHERE f.network_id = $1 AND f.idempotency_key = $2`,
    [networkId, key],
    within,
  );
  return row ? firingOf(row) : null;
}

export async function timeBefore(firing: string, within: Transaction): Promise<When> {
  const [row] = await rows<{ when: When }>('SELECT time_before AS when FROM firings WHERE id = $1', [firing], within);
  return row?.when ?? {};
}

/** What a player told that it shows. */
export interface Told {
  readonly player: string;
  /** The booking whose takeover it shows; null for anything else. */
  readonly booking: string | null;
  /** Since when, by its corrected clock; null where it does not say. */
  readonly since: number | null;
  readonly seen: number;
}

/** Writes down which screens show what was fired, and which do no longer. Costs one look where nothing was. */
export async function noteShown(told: readonly Told[]): Promise<void> {
  const list = JSON.stringify(
    told.map(({ player, booking, since, seen }) => ({
      ...{ player, booking, seen: new Date(seen).toISOString() },
      since: since === null ? null : new Date(Math.min(since, seen)).toISOString(),
    })),
  );
  await rows(
    `WITH told AS (
       SELECT p.network_id, s.slug AS screen, t.booking, t.since, t.seen
       FROM jsonb_to_recordset($1::jsonb) AS t(player uuid, booking text, since timestamptz, seen timestamptz)
       -- For a wall its first player speaks.
       JOIN players p ON p.id = t.player AND NOT EXISTS (SELECT 1 FROM players q WHERE q.screen_id = p.screen_id AND q.part < p.part)
       JOIN plan_objects s ON s.id = p.screen_id
     ), over AS (
       UPDATE firing_screens o SET over = true, shown_to = greatest(o.shown_from, o.shown_to, coalesce(t.since, o.shown_to))
       FROM told t JOIN firings f ON f.network_id = t.network_id
       WHERE o.firing_id = f.id AND o.screen = t.screen AND NOT o.over AND t.booking IS DISTINCT FROM f.booking
     )
     INSERT INTO firing_screens (firing_id, screen, shown_from, shown_to)
     SELECT f.id, t.screen, greatest(f.fired_at, coalesce(t.since, t.seen)), greatest(f.fired_at, coalesce(t.since, t.seen), t.seen)
     FROM told t JOIN LATERAL (
       SELECT id, fired_at FROM firings WHERE network_id = t.network_id AND booking = t.booking AND fired_at <= t.seen
       ORDER BY fired_at DESC LIMIT 1
     ) f ON true WHERE t.booking IS NOT NULL
     ON CONFLICT (firing_id, screen) DO UPDATE SET shown_to = greatest(firing_screens.shown_to, excluded.shown_to), over = false`,
    [list],
  );
}
