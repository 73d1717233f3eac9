import { ascending, group, max, sort } from 'd3-array';
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

/** An edition that is out, or waits, as far as it may have reached a screen. */
interface Reaching {
  readonly id: string;
  readonly network: string;
  readonly number: number | null;
  readonly plannedFor: Date | null;
  readonly publishedAt: Date;
}

/** What an edition gives to the screen of a player. */
interface GivenTo extends Pick<Reaching, 'number' | 'plannedFor' | 'publishedAt'> {
  readonly player: string;
  readonly edition: string;
  readonly screen: string;
  readonly from: Date | null;
  readonly hash: string;
  readonly delivered: string | null;
  readonly reached: boolean;
}

/**
 * Writes down which screens the edition that is out has reached. Earlier entries stay. It takes small queries, each by keys alone: one large
 * query makes PostgreSQL guess row counts, and a wrong guess reads all editions for each player.
 */
export async function noteReached(heard: readonly Playing[], now = Date.now()): Promise<void> {
  const said = new Map(heard.map((one) => [one.player, one]));
  const reached = (await givenTo([...said.keys()], now)).flatMap(({ player, edition, screen, ...given }) => {
    const told = said.get(player);
    if (given.reached || !told || (told.program !== given.hash && told.program !== given.delivered)) return [];
    const since = sinceOf(given);
    return [{ edition, screen, at: new Date(Math.max(told.seen, since)).toISOString() }];
  });
  if (reached.length === 0) return;
  await rows(
    `UPDATE edition_screens s SET reached_at = t.at
     FROM unnest($1::uuid[], $2::text[], $3::timestamptz[]) AS t(edition, screen, at)
     WHERE s.edition_id = t.edition AND s.screen = t.screen AND s.reached_at IS NULL`,
    [reached.map((one) => one.edition), reached.map((one) => one.screen), reached.map((one) => one.at)],
  );
}

/** Since when a screen has an edition: pilots have it before the others do. */
const sinceOf = ({ number, from, plannedFor, publishedAt }: Omit<GivenTo, 'player' | 'edition' | 'screen'>): number =>
  number === null
    ? (from ?? plannedFor ?? publishedAt).getTime()
    : Math.min(from?.getTime() ?? Infinity, publishedAt.getTime());

/** What each of some players is given now: by the newest edition, or by one that waits and has reached its screen. */
async function givenTo(players: readonly string[], now: number): Promise<GivenTo[]> {
  const places = await rows<{ player: string; network: string; screen: string }>(
    `SELECT p.id AS player, p.network_id AS network, o.slug AS screen
     FROM players p JOIN plan_objects o ON o.id = p.screen_id WHERE p.id = ANY($1)`,
    [players],
  );
  const reaching = group(await reachingIn([...new Set(places.map(({ network }) => network))]), (one) => one.network);
  const asked = places.flatMap((place) =>
    (reaching.get(place.network) ?? []).map((edition) => ({ ...place, edition })),
  );
  const found = await rows<
    { edition: string; screen: string } & Pick<GivenTo, 'from' | 'hash' | 'delivered' | 'reached'>
  >(
    `SELECT s.edition_id AS edition, s.screen, s.from_at AS from, s.hash, s.delivered, s.reached_at IS NOT NULL AS reached
     FROM unnest($1::uuid[], $2::text[]) AS t(edition, screen)
     JOIN edition_screens s ON s.edition_id = t.edition AND s.screen = t.screen`,
    [asked.map(({ edition }) => edition.id), asked.map(({ screen }) => screen)],
  );
  const rowOf = new Map(found.map((row) => [`${row.edition} ${row.screen}`, row]));
  return places.flatMap(({ player, network, screen }) => {
    for (const { id, number, plannedFor, publishedAt } of reaching.get(network) ?? []) {
      const row = rowOf.get(`${id} ${screen}`);
      if (!row) continue;
      const from = row.from ?? plannedFor;
      if (number === null && !(from && from.getTime() <= now)) continue;
      return [{ player, ...row, number, plannedFor, publishedAt }];
    }
    return [];
  });
}

/** The newest edition of some networks, and all that wait there, the last first. */
const reachingIn = (networks: readonly string[]): Promise<Reaching[]> =>
  rows<Reaching>(
    `SELECT e.id, e.network_id AS network, e.number, e.planned_for AS "plannedFor", e.published_at AS "publishedAt"
     FROM unnest($1::uuid[]) AS n(id) JOIN editions e ON e.network_id = n.id
       AND (e.number IS NULL OR e.number = (SELECT max(number) FROM editions l WHERE l.network_id = n.id))
     ORDER BY e.number DESC NULLS FIRST, e.planned_for DESC`,
    [networks],
  );

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
