import { Refusal } from '@/core/refusal';
import { ROLE, mayByKey, rightsOf, type Right, type Role } from '@/core/roles';
import { publish, rows, transaction, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { readInput } from './input';
import { limitAttempts, placeOf } from './limits';
import { keySchema } from './schemas';
import type { Actor } from './actor';
import { roleOf, type Origin } from './sessions';
import { newToken, tokenHash } from './tokens';
import { record } from './trail';

/** Keys by which a person's programs work for them, within the rights that the key has. */

/** A key as its person sees it. */
export interface PersonalKey {
  readonly id: string;
  readonly name: string;
  readonly rights: readonly Right[];
  readonly madeAt: string;
  /** When it was used last, to the minute; null for never. */
  readonly usedAt: string | null;
}

/** What stands before each key, so that who finds one knows what it is. */
const PREFIX = 'lanternpost_';
const MOST_KEYS = 50;
const TRIES = { most: 30, seconds: 300 };

/** The actor's own keys, the newest first. */
export async function keys({ personId }: Actor): Promise<PersonalKey[]> {
  const found = await rows<KeyRow>(
    `SELECT id, name, rights, created_at AS made, used_at AS used FROM personal_keys WHERE person_id = $1
     ORDER BY created_at DESC, id DESC`,
    [personId],
  );
  return found.map(keyOf);
}

type KeyRow = Omit<PersonalKey, 'madeAt' | 'usedAt'> & { readonly made: Date; readonly used: Date | null };

const keyOf = ({ id, name, rights, made, used }: KeyRow): PersonalKey => ({
  ...{ id, name, rights },
  ...{ madeAt: made.toISOString(), usedAt: used?.toISOString() ?? null },
});

/** A key of someone else, as owners see it. */
export interface OthersKey extends PersonalKey {
  readonly person: string;
}

/** The keys of the network's other people. For owners only. */
export async function othersKeys({ networkId, personId, may }: Actor): Promise<OthersKey[]> {
  if (!may.includes('people')) return [];
  const found = await rows<KeyRow & { person: string }>(
    `SELECT k.id, k.name, k.rights, k.created_at AS made, k.used_at AS used, p.name AS person FROM personal_keys k
     JOIN people p ON p.id = k.person_id WHERE p.network_id = $1 AND p.id IS DISTINCT FROM $2 ORDER BY lower(p.name), k.created_at DESC, k.id`,
    [networkId, personId],
  );
  return found.map((row) => ({ ...keyOf(row), person: row.person }));
}

/**
 * Makes a key. Its secret is returned this once only. Throws 403 for rights that the actor does not have, 422 by the fields, 409 where there
 * are too many.
 */
export async function makeKey(actor: Actor, input: unknown): Promise<{ readonly id: string; readonly token: string }> {
  const { name, rights } = readInput(keySchema, input);
  const mine = await roleOf(actor);
  if (!rights.every((right) => rightsOf(mine).includes(right)))
    throw new Refusal(
      403,
      `A key can’t do more than you. As ${ROLE[mine].name.toLowerCase()} you can’t give it these rights.`,
    );
  const token = PREFIX + newToken().token;
  const id = uuidv7();
  await transaction(async (within) => {
    const made = await rows(
      `INSERT INTO personal_keys (id, person_id, name, rights, token_hash)
       SELECT $1, p.id, $3, $4, $5 FROM people p WHERE p.id = $2 AND p.removed_at IS NULL
         AND (SELECT count(*) FROM personal_keys WHERE person_id = $2) < $6 RETURNING id`,
      [id, actor.personId, name, rights, tokenHash(token), MOST_KEYS],
      within,
    );
    if (made.length === 0)
      throw new Refusal(409, `You have ${MOST_KEYS} keys, which is the limit. Delete one you no longer use.`);
    await record({ ...actor, act: 'key-made', about: name }, within);
  });
  return { id, token };
}

/** Ends one of the actor's own keys at once, or, by an owner, one of anybody in the network. Throws 404 where it is none. */
export async function endKey(actor: Actor, id: string): Promise<void> {
  await transaction(async (within) => {
    const [ended] = await rows<{ name: string; person: string; whose: string }>(
      `DELETE FROM personal_keys k USING people p WHERE p.id = k.person_id AND k.id = $3 AND p.network_id = $2
         AND (p.id = $1 OR $4) RETURNING k.name, p.id AS person, p.name AS whose`,
      [actor.personId, actor.networkId, id, actor.may.includes('people')],
      within,
    );
    if (!ended) throw notFound('key');
    await publish({ kind: 'session', network: actor.networkId, person: ended.person }, within);
    const about = ended.person === actor.personId ? ended.name : `${ended.name} (${ended.whose})`;
    await record({ ...actor, act: 'key-ended', about }, within);
  });
}

/**
 * The person whose key a program uses. Throws 401 for an unknown key (429 after too many of those from one address), 403
 * where it has no right to this.
 */
export async function actorOfKey(token: string, right: Right, from: Pick<Origin, 'address'>): Promise<Actor> {
  const [found] = await rows<Omit<Actor, 'may'> & { id: string; rights: Right[]; role: Role }>(
    `SELECT k.id, k.rights, p.id AS "personId", p.name, p.network_id AS "networkId", p.role FROM personal_keys k
     JOIN people p ON p.id = k.person_id WHERE k.token_hash = $1 AND p.removed_at IS NULL`,
    [tokenHash(token)],
  );
  if (!found) {
    // Only misses count: a program with a good key works on, whoever guesses from the same address.
    await limitAttempts(`key:${placeOf(from.address)}`, TRIES.most, TRIES.seconds);
    throw new Refusal(401, 'This key isn’t known. It was deleted, or part of it is missing.');
  }
  const { id, rights, role, ...actor } = found;
  if (!rights.includes(right)) throw new Refusal(403, 'This key may not do this. Create one with that right.');
  if (!rightsOf(role).includes(right))
    throw new Refusal(
      403,
      `${actor.name} may no longer do this, so their key may not either. Use the key of someone who may.`,
    );
  await rows(
    `UPDATE personal_keys SET used_at = now() WHERE id = $1 AND (used_at IS NULL OR used_at < now() - interval '1 minute')`,
    [id],
  );
  return { ...actor, may: mayByKey(right, role), byKey: true };
}
