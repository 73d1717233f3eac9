import type { Transaction } from 'sequelize';
import { Refusal } from '@/core';
import { InvitationRow, NetworkRow, PersonRow, publish, rows, transaction } from '@/database';
import { notFound } from '../errors';
import { createNetwork } from '../plan/networks';
import { slugFor } from '../plan/slug';
import { readInput } from './input';
import { foundingSchema, inviteSchema } from './schemas';
import { endSessions, type Actor } from './sessions';
import { newToken } from './tokens';
import { record } from './trail';

/** A person of the network, as the others see them. */
export interface Person {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly you: boolean;
  readonly joinedAt: string;
  /** When they were last here, to some minutes; null where no session of theirs stands. */
  readonly seenAt: string | null;
  readonly sessions: number;
  /** Calendar feeds that they opened: they know the addresses. */
  readonly feeds: number;
}

/** A link that was given out and not used yet. */
export interface Invitation {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  /** Whether it sets the password of a person anew, rather than making one. */
  readonly reset: boolean;
  readonly by: string | null;
  readonly expiresAt: string;
}

/** What is told once: the link's secret, and until when it works. */
export interface GivenLink {
  readonly token: string;
  readonly expiresAt: string;
}

const INVITED_HOURS = 7 * 24;
const RESET_HOURS = 24;
const MOST_OPEN = 100;

/** The people of the actor's network, by name. */
export async function people({ networkId, personId }: Actor): Promise<Person[]> {
  const found = await rows<Omit<Person, 'joinedAt' | 'seenAt'> & { joinedAt: Date; seenAt: Date | null }>(
    `SELECT p.id, p.name, p.email, p.id IS NOT DISTINCT FROM $2 AS you, p.created_at AS "joinedAt", max(s.seen_at) AS "seenAt",
       count(s.id)::int AS sessions, (SELECT count(*)::int FROM feeds f WHERE f.person_id = p.id) AS feeds
     FROM people p LEFT JOIN sessions s ON s.person_id = p.id AND s.expires_at > now()
     WHERE p.network_id = $1 AND p.removed_at IS NULL GROUP BY p.id ORDER BY lower(p.name), p.id`,
    [networkId, personId],
  );
  return found.map((one) => ({
    ...one,
    joinedAt: one.joinedAt.toISOString(),
    seenAt: one.seenAt?.toISOString() ?? null,
  }));
}

/** The links of the actor's network that still work, the newest first. */
export async function invitations({ networkId }: Actor): Promise<Invitation[]> {
  const found = await rows<Omit<Invitation, 'expiresAt'> & { expiresAt: Date }>(
    `SELECT i.id, i.name, i.email, i.person_id IS NOT NULL AS reset, p.name AS by, i.expires_at AS "expiresAt"
     FROM invitations i LEFT JOIN people p ON p.id = i.by_id
     WHERE i.network_id = $1 AND i.expires_at > now() ORDER BY i.created_at DESC`,
    [networkId],
  );
  return found.map((one) => ({ ...one, expiresAt: one.expiresAt.toISOString() }));
}

/**
 * Invites somebody: whoever opens the link becomes a person of the network. A second invitation to one address takes the first's place.
 * Throws 409 where the address is a person's of this network, and 422 by the fields.
 */
export async function invite(actor: Actor, input: unknown): Promise<GivenLink> {
  const { name, email } = readInput(inviteSchema, input);
  const { networkId } = actor;
  const there = await PersonRow.findOne({ where: { networkId, email } });
  if (there) throw new Refusal(409, `${there.name} is here already, by this address.`);
  return give(actor, { personId: null, name, email, hours: INVITED_HOURS });
}

/** Makes another network on this server, and a link for its first person. Throws 422 by the fields. */
export async function foundNetwork(
  input: unknown,
  by: Omit<Actor, 'networkId'>,
): Promise<{ readonly slug: string; readonly link: GivenLink }> {
  const { network, name, email } = readInput(foundingSchema, input);
  return transaction(async (within) => {
    await rows('LOCK TABLE networks IN SHARE ROW EXCLUSIVE MODE', [], within);
    const taken = await NetworkRow.findAll({ attributes: ['slug'], transaction: within });
    const slug = slugFor(
      network,
      taken.map((one) => one.slug),
    );
    const actor = { ...by, networkId: await createNetwork({ name: network, slug }, within) };
    await record({ ...actor, act: 'network-made', about: network }, within);
    return { slug, link: await give(actor, { personId: null, name, email, hours: INVITED_HOURS }, within) };
  });
}

/** The networks of this server, and how many people each has. */
export async function networks(): Promise<{ readonly slug: string; readonly name: string; readonly people: number }[]> {
  return rows(
    `SELECT n.slug, o.name, (SELECT count(*)::int FROM people p WHERE p.network_id = n.id AND p.removed_at IS NULL) AS people
     FROM networks n JOIN plan_objects o ON o.network_id = n.id AND o.kind = 'network' ORDER BY n.slug`,
  );
}

/** Makes a link by which another person sets their password anew. Throws 404, and 409 for oneself. */
export async function offerReset(actor: Actor, id: string): Promise<GivenLink> {
  if (id === actor.personId) throw new Refusal(409, 'You know your password: change it yourself.');
  const { name, email } = await memberOf(actor, id);
  return give(actor, { personId: id, name, email, hours: RESET_HOURS });
}

interface ToGive {
  readonly personId: string | null;
  readonly name: string;
  readonly email: string;
  readonly hours: number;
}

async function give(actor: Actor, { personId, name, email, hours }: ToGive, within?: Transaction): Promise<GivenLink> {
  if (!within) return transaction((own) => give(actor, { personId, name, email, hours }, own));
  const { networkId } = actor;
  const { token, hash } = newToken();
  const expiresAt = new Date(Date.now() + hours * 3_600_000);
  await rows('DELETE FROM invitations WHERE network_id = $1 AND email = $2', [networkId, email], within);
  if ((await InvitationRow.count({ where: { networkId }, transaction: within })) >= MOST_OPEN)
    throw new Refusal(409, `${MOST_OPEN} links wait to be used: withdraw some first.`);
  await InvitationRow.create(
    { networkId, personId, name, email, tokenHash: hash, byId: actor.personId, expiresAt },
    { transaction: within },
  );
  await record({ ...actor, act: personId ? 'reset-offered' : 'invited', about: `${name} (${email})` }, within);
  return { token, expiresAt: expiresAt.toISOString() };
}

/** Takes a link back: it does not work any more. Throws 404. */
export async function withdraw(actor: Actor, id: string): Promise<void> {
  await transaction(async (within) => {
    const [gone] = await rows<{ name: string; email: string }>(
      'DELETE FROM invitations WHERE network_id = $1 AND id = $2 RETURNING name, email',
      [actor.networkId, id],
      within,
    );
    if (!gone) throw notFound('link');
    await record({ ...actor, act: 'withdrawn', about: `${gone.name} (${gone.email})` }, within);
  });
}

/** Ends all sessions of another person, as after a lost computer. Throws 404. */
export async function signOutPerson(actor: Actor, id: string): Promise<void> {
  const { name } = await memberOf(actor, id);
  await transaction(async (within) => {
    await endSessions(id, within);
    await record({ ...actor, act: 'sessions-ended', about: name }, within);
  });
}

/**
 * Removes a person: their sessions, the links that they gave out and the calendar feeds whose addresses they know end at once; what
 * they did keeps their name. Throws 404, and 409 for oneself.
 */
export async function removePerson(actor: Actor, id: string): Promise<void> {
  if (id === actor.personId) throw new Refusal(409, 'Nobody removes themselves: ask another person of the network.');
  const { name, email } = await memberOf(actor, id);
  await transaction(async (within) => {
    await endSessions(id, within);
    await rows('DELETE FROM invitations WHERE by_id = $1 OR person_id = $1', [id], within);
    await rows('DELETE FROM feeds WHERE person_id = $1', [id], within);
    await rows('DELETE FROM personal_keys WHERE person_id = $1', [id], within);
    // What they are sending right now ends with the word to all processes.
    await rows("DELETE FROM uploads WHERE person_id = $1 AND state = 'sending'", [id], within);
    await publish({ kind: 'session', network: actor.networkId, person: id }, within);
    const removed = await rows(
      `UPDATE people SET removed_at = now(), email = NULL, password_hash = NULL, sample_password = false
       WHERE id = $1 AND removed_at IS NULL RETURNING id`,
      [id],
      within,
    );
    if (removed.length === 0) throw notFound('person');
    await record({ ...actor, act: 'removed', about: `${name} (${email})` }, within);
  });
}

async function memberOf({ networkId }: Actor, id: string): Promise<{ readonly name: string; readonly email: string }> {
  const person = await PersonRow.findOne({ where: { networkId, id } });
  if (!person?.email) throw notFound('person');
  return { name: person.name, email: person.email };
}
