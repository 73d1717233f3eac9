import { Op, type Transaction } from 'sequelize';
import { currentPlan, withUsedMedia, type Plan } from '@/core/plan';
import { EditionRow, rows } from '@/database';
import { notFound } from '../errors';
import type { Actor } from '../people';
import { counted } from './arrivals';
import { isDraftAt, isOut, newestEdition } from './frozen';

/** What is out, and what was: for lists, pages and players. */

/** One publication, as the list shows it. */
export interface Edition {
  /** The same as while it waited. */
  readonly id: string;
  readonly number: number;
  readonly publishedAt: string;
  readonly person: string | null;
  /** The edition that this one published again. */
  readonly again: number | null;
  /** Whether it holds all that was changed until then, or a choice of it. */
  readonly whole: boolean;
  /** What it is for, in its author's words. */
  readonly note: string | null;
  /** How many screens it gave another program than the edition before. */
  readonly touched: number;
  /** How many of these were heard to play it while it was out, and when the last of them was first; null for none. */
  readonly reached: number;
  readonly reachedAt: string | null;
  /** When it was planned to go out; null where it was published at once. */
  readonly plannedFor: string | null;
}

/** A network's editions, newest first. */
export async function editions(actor: Actor): Promise<Edition[]> {
  interface Row extends Omit<Edition, 'publishedAt' | 'plannedFor' | 'reachedAt' | 'touched'> {
    readonly publishedAt: Date;
    readonly plannedFor: Date | null;
    readonly touched: number | null;
    readonly last: Date | null;
  }
  const found = await rows<Row>(
    `SELECT e.id, e.number, e.published_at AS "publishedAt", e.planned_for AS "plannedFor", p.name AS person, e.again, e.whole, e.note,
       e.touched, e.reached, e.last_reached AS last
     FROM editions e LEFT JOIN people p ON p.id = e.person_id
     WHERE e.network_id = $1 AND e.number IS NOT NULL ORDER BY e.number DESC LIMIT 100`,
    [actor.networkId],
  );
  const list: Edition[] = [];
  for (const { publishedAt, plannedFor, touched, reached, last, ...row } of found) {
    // The newest ones still arrive, so they are counted now.
    const now = touched === null ? await counted(row.id) : { touched, reached, last };
    list.push({
      ...row,
      ...{ touched: now.touched, reached: now.reached, reachedAt: now.last?.toISOString() ?? null },
      ...{ publishedAt: publishedAt.toISOString(), plannedFor: plannedFor?.toISOString() ?? null },
    });
  }
  return list;
}

/** The plan of the newest edition: what the players run. Null before the first. */
export async function publishedPlan(actor: Actor): Promise<{ plan: Plan; number: number } | null> {
  const newest = await newestEdition(actor.networkId);
  return newest && { plan: newest.plan, number: newest.number };
}

/**
 * The newest edition for a page whose draft is at `change`. The plan is null where it equals that draft, as right after a
 * publication. Otherwise the plan has only the files that it uses. Null before the first edition.
 */
export async function editionFor(
  actor: Actor,
  change: number,
): Promise<{ readonly number: number; readonly plan: Plan | null } | null> {
  const newest = await newestEdition(actor.networkId);
  if (!newest) return null;
  return { number: newest.number, plan: isDraftAt(newest, change) ? null : withUsedMedia(newest.plan) };
}

/** An edition's plan with only the files that it uses. Throws 404 if that edition isn't there, or it was cleared away. */
export async function editionPlan({ networkId }: Actor, number: number): Promise<{ number: number; plan: Plan }> {
  const row = await EditionRow.findOne({ where: { networkId, number }, attributes: ['plan', 'format'] });
  if (!row) throw notFound('edition');
  return { number, plan: withUsedMedia(currentPlan(row.plan, row.format)) };
}

/** What was out at an instant, and from when to when. */
export interface OutThen {
  /** Null before the first edition, and where it was cleared away since. */
  readonly edition: { readonly number: number; readonly plan: Plan } | null;
  /** Whether an edition was published then that has been cleared away since. */
  readonly cleared: boolean;
  /** Null from the beginning on, and to this day. */
  readonly from: string | null;
  readonly to: string | null;
}

/** The edition that was out at an instant; its plan has the files alone that it uses. */
export async function editionAt({ networkId }: Actor, at: Date): Promise<OutThen> {
  const [row] = await EditionRow.findAll({
    where: { networkId, ...isOut, publishedAt: { [Op.lte]: at } },
    order: [['number', 'DESC']],
    limit: 1,
  });
  const next = await EditionRow.findOne({
    where: { networkId, ...isOut, publishedAt: { [Op.gt]: at } },
    attributes: ['number', 'publishedAt'],
    order: [['number', 'ASC']],
  });
  // An edition made by hand may have followed it and been cleared away since.
  const [gone] = await rows<{ number: number; from: Date }>(
    `SELECT number, published_at AS from FROM cleared_editions WHERE network_id = $1 AND published_at <= $2
     ORDER BY published_at DESC LIMIT 1`,
    [networkId, at],
  );
  const isGone = gone !== undefined && gone.number > (row?.number ?? 0);
  const [nextGone] = await rows<{ from: Date }>(
    `SELECT published_at AS from FROM cleared_editions WHERE network_id = $1 AND published_at > $2 ORDER BY published_at LIMIT 1`,
    [networkId, at],
  );
  const ends = [next?.publishedAt, nextGone?.from].flatMap((one) => (one ? [one.getTime()] : []));
  const from = isGone ? gone.from : row?.publishedAt;
  return {
    edition:
      row?.number && !isGone ? { number: row.number, plan: withUsedMedia(currentPlan(row.plan, row.format)) } : null,
    cleared: isGone || (!row && (next?.number ?? 1) > 1),
    from: from?.toISOString() ?? null,
    to: ends.length > 0 ? new Date(Math.min(...ends)).toISOString() : null,
  };
}

/** Program hashes of the newest edition by screen id; empty before the first. */
export async function publishedPrograms(networkId: string, within?: Transaction): Promise<Map<string, string>> {
  const found = await rows<{ screen: string; hash: string }>(
    `SELECT screen, hash FROM edition_screens WHERE edition_id = (SELECT id FROM editions
       WHERE network_id = $1 AND number IS NOT NULL ORDER BY number DESC LIMIT 1)`,
    [networkId],
    within,
  );
  return new Map(found.map((row) => [row.screen, row.hash]));
}
