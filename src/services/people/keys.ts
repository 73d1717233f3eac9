import { Refusal } from '@/core';
import { publish, rows, transaction, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { readInput } from './input';
import { limitAttempts, placeOf } from './limits';
import { keySchema, type Right } from './schemas';
import type { Actor, Origin } from './sessions';
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
  const found = await rows<Omit<PersonalKey, 'madeAt' | 'usedAt'> & { made: Date; used: Date | null }>(
    `SELECT id, name, rights, created_at AS made, used_at AS used FROM personal_keys WHERE person_id = $1
     ORDER BY created_at DESC, id DESC`,
    [personId],
  );
  return found.map(({ made, used, ...key }) => ({
    ...{ ...key, madeAt: made.toISOString(), usedAt: used?.toISOString() ?? null },
  }));
}

/** Makes a key. Its secret is told now, and never again. Throws 422 by the fields, 409 where there are too many. */
export async function makeKey(actor: Actor, input: unknown): Promise<{ readonly id: string; readonly token: string }> {
  const { name, rights } = readInput(keySchema, input);
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
    if (made.length === 0) throw new Refusal(409, `You have ${MOST_KEYS} keys: end one that is not used any more.`);
    await record({ ...actor, act: 'key-made', about: name }, within);
  });
  return { id, token };
}

/** Ends one of the actor's own keys at once. Throws 404 where it is none. */
export async function endKey(actor: Actor, id: string): Promise<void> {
  await transaction(async (within) => {
    const [ended] = await rows<{ name: string }>(
      'DELETE FROM personal_keys WHERE person_id = $1 AND id = $2 RETURNING name',
      [actor.personId, id],
      within,
    );
    if (!ended) throw notFound('key');
    if (actor.personId) await publish({ kind: 'session', network: actor.networkId, person: actor.personId }, within);
    await record({ ...actor, act: 'key-ended', about: ended.name }, within);
  });
}

/**
 * The person for whom a program works by a key. Throws 401 where nobody knows the key (429 after too many of those from one address), 403
 * where it has no right to this.
 */
export async function actorOfKey(token: string, right: Right, from: Pick<Origin, 'address'>): Promise<Actor> {
  const [found] = await rows<Actor & { id: string; rights: Right[] }>(
    `SELECT k.id, k.rights, p.id AS "personId", p.name, p.network_id AS "networkId" FROM personal_keys k
     JOIN people p ON p.id = k.person_id WHERE k.token_hash = $1 AND p.removed_at IS NULL`,
    [tokenHash(token)],
  );
  if (!found) {
    // Only misses count: a program with a good key works on, whoever guesses from the same address.
    await limitAttempts(`key:${placeOf(from.address)}`, TRIES.most, TRIES.seconds);
    throw new Refusal(401, 'This key is not known: it was ended, or a part of it is missing.');
  }
  const { id, rights, ...actor } = found;
  if (!rights.includes(right)) throw new Refusal(403, 'This key may not do this: make one that may.');
  await rows(
    `UPDATE personal_keys SET used_at = now() WHERE id = $1 AND (used_at IS NULL OR used_at < now() - interval '1 minute')`,
    [id],
  );
  return actor;
}
