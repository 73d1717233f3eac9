import type { Transaction } from 'sequelize';
import { Refusal } from '@/core/refusal';
import { REFUSED, ROLE, rightsOf, type Role } from '@/core/roles';
import { InvitationRow, NetworkRow, PersonRow, publish, rows, transaction } from '@/database';
import { notFound } from '../errors';
import { createNetwork } from '../plan/networks';
import { slugFor } from '../plan/slug';
import { demand } from './demand';
import { readInput } from './input';
import { foundingSchema, inviteSchema, roleSchema } from './schemas';
import type { Actor } from './actor';
import { endSessions } from './sessions';
import { newToken } from './tokens';
import { record } from './trail';

/** A person of the network, as the others see them. */
export interface Person {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
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
  /** Whether it resets a person's password, rather than adding a person. */
  readonly reset: boolean;
  /** What the person will be; null where it sets a password. */
  readonly role: Role | null;
  readonly by: string | null;
  readonly expiresAt: string;
}

/** The link's secret, which is returned once only, and until when it works. */
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
    `SELECT p.id, p.name, p.email, p.role, p.id IS NOT DISTINCT FROM $2 AS you, p.created_at AS "joinedAt", max(s.seen_at) AS "seenAt",
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

/** The links of the actor's network that still work, the newest first. For owners only. */
export async function invitations({ networkId, may }: Actor): Promise<Invitation[]> {
  if (!may.includes('people')) return [];
  const found = await rows<Omit<Invitation, 'expiresAt'> & { expiresAt: Date }>(
    `SELECT i.id, i.name, i.email, i.role, i.person_id IS NOT NULL AS reset, p.name AS by, i.expires_at AS "expiresAt"
     FROM invitations i LEFT JOIN people p ON p.id = i.by_id
     WHERE i.network_id = $1 AND i.expires_at > now() ORDER BY i.created_at DESC`,
    [networkId],
  );
  return found.map((one) => ({ ...one, expiresAt: one.expiresAt.toISOString() }));
}

/**
 * Invites a person, by an owner: the person who opens the link joins the network with that role. A second invitation to one address
 * takes the first's place. Throws 409 where the address is a person's of this network, and 422 by the fields.
 */
export async function invite(actor: Actor, input: unknown): Promise<GivenLink> {
  demand(actor, 'people');
  const { name, email, role } = readInput(inviteSchema, input);
  const { networkId } = actor;
  const there = await PersonRow.findOne({ where: { networkId, email } });
  if (there) throw new Refusal(409, `${there.name} already has this address here.`);
  return give(actor, { personId: null, role, name, email, hours: INVITED_HOURS });
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
    return {
      slug,
      link: await give(actor, { personId: null, role: 'owner', name, email, hours: INVITED_HOURS }, within),
    };
  });
}

/** The networks of this server, and how many people each has. */
export async function networks(): Promise<{ readonly slug: string; readonly name: string; readonly people: number }[]> {
  return rows(
    `SELECT n.slug, o.name, (SELECT count(*)::int FROM people p WHERE p.network_id = n.id AND p.removed_at IS NULL) AS people
     FROM networks n JOIN plan_objects o ON o.network_id = n.id AND o.kind = 'network' ORDER BY n.slug`,
  );
}

/** Makes a link with which another person resets their password, by an owner. Throws 404, and 409 for oneself. */
export async function offerReset(actor: Actor, id: string): Promise<GivenLink> {
  demand(actor, 'people');
  if (id === actor.personId) throw new Refusal(409, 'Change your own password under “Your password”.');
  const { name, email } = await memberOf(actor, id);
  return give(actor, { personId: id, role: null, name, email, hours: RESET_HOURS });
}

interface ToGive {
  readonly personId: string | null;
  readonly role: Role | null;
  readonly name: string;
  readonly email: string;
  readonly hours: number;
}

async function give(actor: Actor, toGive: ToGive, within?: Transaction): Promise<GivenLink> {
  if (!within) return transaction((own) => give(actor, toGive, own));
  const { personId, role, name, email, hours } = toGive;
  const { networkId } = actor;
  await lockOwners(actor, within);
  const { token, hash } = newToken();
  const expiresAt = new Date(Date.now() + hours * 3_600_000);
  await rows('DELETE FROM invitations WHERE network_id = $1 AND email = $2', [networkId, email], within);
  if ((await InvitationRow.count({ where: { networkId }, transaction: within })) >= MOST_OPEN)
    throw new Refusal(409, `${MOST_OPEN} links are waiting to be used. Withdraw some first.`);
  await InvitationRow.create(
    { networkId, personId, role, name, email, tokenHash: hash, byId: actor.personId, expiresAt },
    { transaction: within },
  );
  await record({ ...actor, act: personId ? 'reset-offered' : 'invited', about: `${name} (${email})` }, within);
  return { token, expiresAt: expiresAt.toISOString() };
}

/** Withdraws a link, by an owner, so that it no longer works. Throws 404. */
export async function withdraw(actor: Actor, id: string): Promise<void> {
  demand(actor, 'people');
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

/** Ends all sessions of another person, by an owner, as after a lost computer. Throws 404. */
export async function signOutPerson(actor: Actor, id: string): Promise<void> {
  demand(actor, 'people');
  const { name } = await memberOf(actor, id);
  await transaction(async (within) => {
    await endSessions(id, within);
    await record({ ...actor, act: 'sessions-ended', about: name }, within);
  });
}

/**
 * Gives a person another role, by an owner. What the new role does not allow ends at once: rights of their keys, files that they are sending,
 * and links that they gave out as an owner. Throws 404, 409 for the last owner, and 422 for an unknown role.
 */
export async function setRole(actor: Actor, id: string, input: unknown): Promise<void> {
  demand(actor, 'people');
  const role = readInput(roleSchema, input);
  const { networkId } = actor;
  await transaction(async (within) => {
    const owners = await lockOwners(actor, within);
    const { name, role: before } = await memberOf(actor, id, within);
    if (before === role) return;
    if (owners.length === 1 && owners[0] === id)
      throw new Refusal(409, `${name} is the only owner. Make another person an owner first.`);
    await PersonRow.update({ role }, { where: { id }, transaction: within });
    if (before === 'owner') await rows('DELETE FROM invitations WHERE by_id = $1', [id], within);
    await narrowKeys(id, role, within);
    if (!ROLE[role].may.includes('library')) await endSending(id, within);
    await publish({ kind: 'session', network: networkId, person: id }, within);
    await publish({ kind: 'role', network: networkId, person: id }, within);
    await record({ ...actor, act: 'role-set', about: `${name}: ${ROLE[role].name.toLowerCase()}` }, within);
  });
}

/** Takes from a person's keys what the person may no longer do; a key that is good for nothing more ends. */
async function narrowKeys(person: string, role: Role, within: Transaction): Promise<void> {
  const allowed = rightsOf(role);
  await rows('DELETE FROM personal_keys WHERE person_id = $1 AND NOT rights && $2::text[]', [person, allowed], within);
  await rows(
    'UPDATE personal_keys SET rights = ARRAY(SELECT r FROM unnest(rights) AS r WHERE r = ANY($2::text[])) WHERE person_id = $1',
    [person, allowed],
    within,
  );
}

/** Ends what a person is sending right now: the processes that take it in hear of it by their session. */
const endSending = (person: string, within: Transaction) =>
  rows("DELETE FROM uploads WHERE person_id = $1 AND state = 'sending'", [person], within);

/**
 * Keeps the network's owners as they are until the transaction ends, and returns their ids. Throws 403 where the actor is an owner no more: two
 * who take each other's role away do it one after the other.
 */
async function lockOwners({ networkId, personId }: Actor, within: Transaction): Promise<string[]> {
  const found = await rows<{ id: string }>(
    "SELECT id FROM people WHERE network_id = $1 AND role = 'owner' AND removed_at IS NULL ORDER BY id FOR UPDATE",
    [networkId],
    within,
  );
  const owners = found.map(({ id }) => id);
  if (personId !== null && !owners.includes(personId)) throw new Refusal(403, REFUSED.people);
  return owners;
}

/**
 * Removes a person, by an owner: their sessions, the links that they gave out and the calendar feeds whose addresses they know end at once; what
 * they did keeps their name. Throws 404, and 409 for oneself.
 */
export async function removePerson(actor: Actor, id: string): Promise<void> {
  demand(actor, 'people');
  if (id === actor.personId) throw new Refusal(409, 'You can’t remove yourself. Ask another owner of the network.');
  await transaction(async (within) => {
    const owners = await lockOwners(actor, within);
    const { name, email } = await memberOf(actor, id, within);
    // Removing yourself is possible by the command line only.
    if (owners.length === 1 && owners[0] === id)
      throw new Refusal(409, `${name} is the only owner. Make another person an owner first.`);
    await endSessions(id, within);
    await rows('DELETE FROM invitations WHERE by_id = $1 OR person_id = $1', [id], within);
    await rows('DELETE FROM feeds WHERE person_id = $1', [id], within);
    await rows('DELETE FROM personal_keys WHERE person_id = $1', [id], within);
    await endSending(id, within);
    await rows('DELETE FROM requests WHERE person_id = $1 AND answered_at IS NULL', [id], within);
    await publish({ kind: 'requests', network: actor.networkId }, within);
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

async function memberOf(
  { networkId }: Actor,
  id: string,
  within?: Transaction,
): Promise<{ readonly name: string; readonly email: string; readonly role: Role }> {
  const person = await PersonRow.findOne({ where: { networkId, id }, transaction: within });
  if (!person?.email) throw notFound('person');
  const { name, email, role } = person;
  return { name, email, role };
}
