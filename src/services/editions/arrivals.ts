import { ascending, max, sort } from 'd3-array';
import { rows } from '@/database';
import { notFound } from '../errors';
import type { Actor } from '../people';
import { givenAt, givenIn, type Given } from './given';

/** How far editions came: which players were heard to play what an edition gives them, and when. */

/** What a player was heard to play: the hash of its program, and when that was, in milliseconds. */
export interface Playing {
  readonly player: string;
  readonly program: string;
  readonly seen: number;
}

/**
 * Writes down which screens the edition that they are on has reached. Earlier entries stay. A wall is reached when all of its players play it:
 * returns the players that are to be told of again, since others of their walls are not there yet.
 */
export async function noteReached(heard: readonly Playing[], now = Date.now()): Promise<readonly string[]> {
  const places = await rows<{ player: string; network: string; screen: string; beside: readonly Beside[] | null }>(
    `SELECT p.id AS player, p.network_id AS network, o.slug AS screen, CASE WHEN o.document ? 'wall' THEN (
       SELECT jsonb_agg(jsonb_build_object('player', q.id, 'program', q.report->>'program'))
       FROM players q WHERE q.screen_id = p.screen_id AND q.id <> p.id) END AS beside
     FROM players p JOIN plan_objects o ON o.id = p.screen_id WHERE p.id = ANY($1)`,
    [heard.map(({ player }) => player)],
  );
  const said = new Map(heard.map((one) => [one.player, one]));
  const given = await givenIn(
    [...new Set(places.map(({ network }) => network))],
    [...new Set(places.map(({ screen }) => screen))],
  );
  const behind: string[] = [];
  const reached = places.flatMap(({ player, network, screen, beside }) => {
    const on = givenAt(given.get(network)?.of(screen) ?? [], now);
    const told = said.get(player);
    const isOn = (program: string | null | undefined) =>
      typeof program === 'string' && (program === on?.hash || program === on?.delivered);
    if (!on || on.reached || !told || !isOn(told.program)) return [];
    if (beside?.some((one) => !isOn(said.get(one.player)?.program ?? one.program))) {
      behind.push(player);
      return [];
    }
    const at = new Date(Math.max(told.seen, sinceOf(on))).toISOString();
    return [{ edition: on.edition.id, screen, at }];
  });
  if (reached.length === 0) return behind;
  await rows(
    `UPDATE edition_screens s SET reached_at = t.at
     FROM unnest($1::uuid[], $2::text[], $3::timestamptz[]) AS t(edition, screen, at)
     WHERE s.edition_id = t.edition AND s.screen = t.screen AND s.reached_at IS NULL`,
    [reached.map((one) => one.edition), reached.map((one) => one.screen), reached.map((one) => one.at)],
  );
  return behind;
}

/** Another player of the same wall, and what it told last that it plays. */
interface Beside {
  readonly player: string;
  readonly program: string | null;
}

/** Since when a screen has an edition: pilots have it before the others do. */
const sinceOf = ({ edition: { number, publishedAt }, from, own }: Given): number =>
  number === null ? from : Math.min(own?.getTime() ?? Infinity, publishedAt.getTime());

/** A screen that an edition gave something else than the edition before. */
export interface Arrival {
  readonly screen: string;
  /** When its player was first heard to play that; null for not yet, or never. */
  readonly at: string | null;
}

/** A screen that an edition changed, and when it was reached. */
interface Changed {
  readonly screen: string;
  readonly reached: Date | null;
}

/** The screens that an edition gave something else than the one before: both are read whole, as a join of the two may be planned badly. */
async function changedScreens(id: string): Promise<Changed[]> {
  const [before] = await rows<{ id: string }>(
    `SELECT b.id FROM editions e JOIN editions b ON b.network_id = e.network_id
       AND b.number = (SELECT max(number) FROM editions l WHERE l.network_id = e.network_id AND l.number < e.number)
     WHERE e.id = $1`,
    [id],
  );
  const had = before ? await givenBy(before.id) : [];
  const hashes = new Map(had.map(({ screen, hash }) => [screen, hash]));
  return (await givenBy(id)).filter(({ screen, hash }) => hashes.get(screen) !== hash);
}

const givenBy = (id: string): Promise<(Changed & { readonly hash: string })[]> =>
  rows('SELECT screen, hash, reached_at AS reached FROM edition_screens WHERE edition_id = $1', [id]);

/** How many screens an edition changed, how many of them it reached, and when the last. */
export interface Counted {
  readonly touched: number;
  readonly reached: number;
  readonly last: Date | null;
}

export async function counted(edition: string): Promise<Counted> {
  const changed = await changedScreens(edition);
  const reached = changed.flatMap(({ reached: at }) => at ?? []);
  return { touched: changed.length, reached: reached.length, last: max(reached) ?? null };
}

/**
 * Counts, once, how far each edition came that a later one has replaced: its count no longer grows. Waits a minute after the later one went
 * out, since heartbeats from before may still be on their way into the database.
 */
export async function countArrivals(now: Date): Promise<void> {
  const over = await rows<{ id: string }>(
    `SELECT e.id FROM editions e WHERE e.number IS NOT NULL AND e.touched IS NULL AND EXISTS (
       SELECT 1 FROM editions f WHERE f.network_id = e.network_id AND f.number > e.number
         AND f.published_at < $1::timestamptz - interval '1 minute')`,
    [now],
  );
  for (const { id } of over) {
    const { touched, reached, last } = await counted(id);
    await rows('UPDATE editions SET touched = $2, reached = $3, last_reached = $4 WHERE id = $1', [
      ...[id, touched, reached, last],
    ]);
  }
}

/** How far an edition came: the first to arrive first, then those that did not. Throws 404 for an edition that there is not. */
export async function arrivals({ networkId }: Actor, number: number): Promise<Arrival[]> {
  const [edition] = await rows<{ id: string }>('SELECT id FROM editions WHERE network_id = $1 AND number = $2', [
    ...[networkId, number],
  ]);
  if (!edition) throw notFound('edition');
  const found = sort(
    await changedScreens(edition.id),
    (a, b) =>
      ascending(a.reached?.getTime() ?? Infinity, b.reached?.getTime() ?? Infinity) || ascending(a.screen, b.screen),
  );
  return found.map(({ screen, reached }) => ({ screen, at: reached?.toISOString() ?? null }));
}
