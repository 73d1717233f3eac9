import { Op } from 'sequelize';
import * as z from 'zod';
import { currentPlan, emptyPlan, nameSchema, selectorSchema, type Plan } from '@/core/plan';
import { screensMatching, selectorOf } from '@/core/selector';
import { dateOfLocalTime, toLocalTime, zoneTable } from '@/core/when';
import { writeCalendar } from '@/core/formats/icalendar';
import { EditionRow, FeedRow, rows } from '@/database';
import { notFound } from '../errors';
import { demand, newToken, readInput, tokenHash, type Actor } from '../people';

/** A feed as the list shows it. Its address is returned once only: the hash of its secret is stored. */
export interface Feed {
  readonly id: string;
  readonly name: string;
  readonly where: string;
  readonly createdAt: string;
  readonly fetchedAt: string | null;
}

const feedSchema = z.object({ name: nameSchema, where: selectorSchema });

/** The actor's feeds, oldest first. */
export async function feeds(actor: Actor): Promise<Feed[]> {
  const found = await FeedRow.findAll({ where: { networkId: actor.networkId }, order: [['createdAt', 'ASC']] });
  return found.map((row) => ({
    id: row.id,
    name: row.name,
    where: row.selector,
    createdAt: row.createdAt.toISOString(),
    fetchedAt: row.fetchedAt?.toISOString() ?? null,
  }));
}

/** Opens a feed of all bookings that reach the selector's screens. Returns its secret, which is returned this once only. Throws 422. */
export async function openFeed(actor: Actor, input: unknown): Promise<{ token: string }> {
  demand(actor, 'plan');
  const { name, where } = readInput(feedSchema, input);
  const { token, hash } = newToken();
  await FeedRow.create({
    networkId: actor.networkId,
    name,
    selector: where,
    tokenHash: hash,
    personId: actor.personId,
    fetchedAt: null,
  });
  return { token };
}

/** Closes a feed: from then on its address is not known. Throws 404 for one that the actor's network does not have. */
export async function closeFeed(actor: Actor, id: string): Promise<void> {
  demand(actor, 'plan');
  if (!z.uuid().safeParse(id).success) throw notFound('feed');
  const removed = await FeedRow.destroy({ where: { networkId: actor.networkId, id } });
  if (removed === 0) throw notFound('feed');
}

/** The calendar that a feed's address answers with: the newest edition's bookings. Throws 404 for an unknown or closed one. */
export async function feedCalendar(token: string, now: number): Promise<string> {
  const feed = await FeedRow.findOne({ where: { tokenHash: tokenHash(token) } });
  if (!feed) throw notFound('feed');
  const { networkId } = feed;
  const edition = await EditionRow.findOne({
    where: { networkId, number: { [Op.not]: null } },
    order: [['number', 'DESC']],
  });
  await rows('UPDATE feeds SET fetched_at = now() WHERE id = $1', [feed.id]);
  const stamp = edition?.publishedAt.getTime() ?? feed.createdAt.getTime();
  return edition
    ? calendarOf(currentPlan(edition.plan, edition.format), feed.selector, feed.name, stamp, now)
    : calendarOf(emptyPlan('none'), feed.selector, feed.name, stamp, now);
}

/**
 * The bookings that reach a selector's screens, on the clock and opening hours of the first of their sites where all of these
 * have one zone; floating where they have several.
 */
export function calendarOf(plan: Plan, where: string, name: string, stamp: number, now: number): string {
  const chosen = new Set(screensMatching(plan, selectorOf(where)));
  const places = new Set([...chosen].map((screen) => screen.site));
  const sites = plan.sites.filter((site) => places.has(site.id));
  const [site] = sites;
  const single = new Set(sites.map((one) => one.timeZone)).size === 1 ? site : undefined;
  const bookings = plan.bookings.filter((booking) =>
    screensMatching(plan, selectorOf(booking.where)).some((screen) => chosen.has(screen)),
  );
  const from = dateOfLocalTime(toLocalTime(zoneTable(site?.timeZone ?? 'UTC'), now));
  return writeCalendar(plan, bookings, { name, from, stamp, ...(single ? { site: single } : {}) });
}
