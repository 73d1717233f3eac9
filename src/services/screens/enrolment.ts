import * as z from 'zod';
import { DAY } from '@/core/instant';
import { lineSchema } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { PairingRow, publish, rows, transaction, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { demand, limitAttempts, newToken, placeOf, readInput, record, tokenHash, type Actor } from '../people';
import { newUserCode, showCode } from './codes';
import type { PairingStart } from './pairing';
import { namedPlace, readyPart } from './places';

/** Players that start unattended: with an enrolment key they wait in the network's tray until a person gives them their screens. */

/** An enrolment key as people see it. */
export interface EnrolmentKey {
  readonly id: string;
  readonly name: string;
  /** For so many players at most, and how many used it. */
  readonly most: number;
  readonly used: number;
  readonly madeAt: string;
  readonly expiresAt: string;
}

/** A player that waits for a screen. */
export interface WaitingPlayer {
  readonly id: string;
  /** What it shows large, in its colour. */
  readonly number: number;
  readonly serial: string;
  readonly software: string | null;
  readonly address: string;
  /** The name of its key. */
  readonly key: string;
  readonly since: string;
  /** When it asked last whether it has a screen. */
  readonly seenAt: string;
}

/** What waits in a network, and the keys by which more may come. */
export interface Tray {
  readonly waiting: readonly WaitingPlayer[];
  readonly keys: readonly EnrolmentKey[];
}

const MOST_KEYS = 50;
const POLL_SECONDS = 4;
/** So long a player that was given a screen may take to collect its token. */
const COLLECT_MINUTES = 15;
const TRIES = { most: 30, seconds: 300 };
const IS_OVER = 'This enrolment key is over, or all of its players have come. Make another on Screens, in the tray.';

const keyInput = z.object({
  name: lineSchema('A name', 80).refine((name) => name !== '', 'Write a name.'),
  most: z
    .int('Write a whole number of players.')
    .min(1, 'A key is for 1 player at least.')
    .max(1000, 'A key is for 1000 players at most.'),
  days: z
    .int('Write a whole number of days.')
    .min(1, 'A key lasts a day at least.')
    .max(90, 'A key lasts 90 days at most.'),
});

/** The tray of the actor's network: players by their numbers, keys by their age. Keys that are over aren't there. */
export async function tray({ networkId }: Actor): Promise<Tray> {
  const [waiting, keys] = await Promise.all([
    rows<WaitingPlayer & { since: Date; seenAt: Date }>(
      `SELECT p.id, p.number, p.serial, p.software, p.address, k.name AS key, p.begun_at AS since, p.seen_at AS "seenAt"
       FROM pairings p JOIN enrolment_keys k ON k.id = p.key_id
       WHERE p.network_id = $1 AND p.screen_id IS NULL AND p.number IS NOT NULL AND p.expires_at > now() ORDER BY p.number`,
      [networkId],
    ),
    rows<EnrolmentKey & { madeAt: Date; expiresAt: Date }>(
      `SELECT id, name, most, used, created_at AS "madeAt", expires_at AS "expiresAt" FROM enrolment_keys
       WHERE network_id = $1 AND expires_at > now() ORDER BY created_at DESC, id DESC`,
      [networkId],
    ),
  ]);
  const iso = (date: Date) => date.toISOString();
  return {
    waiting: waiting.map(({ since, seenAt, ...one }) => ({ ...one, since: iso(since), seenAt: iso(seenAt) })),
    keys: keys.map(({ madeAt, expiresAt, ...one }) => ({ ...one, madeAt: iso(madeAt), expiresAt: iso(expiresAt) })),
  };
}

/** Makes an enrolment key. Its secret is returned this once only. Throws 409 where there are too many, 422 by the fields. */
export async function makeEnrolmentKey(
  actor: Actor,
  input: unknown,
): Promise<{ readonly id: string; readonly key: string }> {
  demand(actor, 'operate');
  const { name, most, days } = readInput(keyInput, input);
  const { token, hash } = newToken();
  const id = uuidv7();
  await transaction(async (within) => {
    await rows('DELETE FROM enrolment_keys WHERE network_id = $1 AND expires_at < now()', [actor.networkId], within);
    const made = await rows(
      `INSERT INTO enrolment_keys (id, network_id, name, token_hash, most, expires_at)
       SELECT $1, $2, $3, $4, $5, $6 WHERE (SELECT count(*) FROM enrolment_keys WHERE network_id = $2) < $7 RETURNING id`,
      [id, actor.networkId, name, hash, most, new Date(Date.now() + days * DAY), MOST_KEYS],
      within,
    );
    if (made.length === 0)
      throw new Refusal(409, `You have ${MOST_KEYS} enrolment keys, which is the limit. End one first.`);
    await record({ ...actor, act: 'enrolment-key-made', about: name }, within);
  });
  return { id, key: token };
}

/** Ends an enrolment key at once: from then on no player comes by it, and those that wait show a code instead. Throws 404 for none. */
export async function endEnrolmentKey(actor: Actor, id: string): Promise<void> {
  demand(actor, 'operate');
  await transaction(async (within) => {
    const [ended] = await rows<{ name: string }>(
      'DELETE FROM enrolment_keys WHERE id = $1 AND network_id = $2 RETURNING name',
      [id, actor.networkId],
      within,
    );
    if (!ended) throw notFound('enrolment key');
    await record({ ...actor, act: 'enrolment-key-ended', about: ended.name }, within);
  });
}

/** What a player says of itself as it enrols. */
export interface Enrolling {
  readonly key: string;
  /** The same at each start of this device. */
  readonly serial: string;
  readonly software?: string | undefined;
}

/**
 * Puts a player into the tray of its key's network. The same device comes again to its own place. Throws 403 for a key that is unknown, over,
 * or used by as many players as it is for; 429 after too many tries from one address.
 */
export async function startEnrolment(
  { key, serial, software }: Enrolling,
  address: string,
): Promise<PairingStart & { readonly number: number }> {
  const { token, hash } = newToken();
  const found = await transaction(async (within) => {
    // One after the other for each key, so that none is used too often.
    const [known] = await rows<{ id: string; networkId: string; most: number; used: number; expiresAt: Date }>(
      `SELECT id, network_id AS "networkId", most, used, expires_at AS "expiresAt" FROM enrolment_keys
       WHERE token_hash = $1 AND expires_at > now() FOR UPDATE`,
      [tokenHash(key)],
      within,
    );
    if (!known) return null;
    // Numbers are of the network, whatever the key.
    await rows('SELECT pg_advisory_xact_lock(hashtext($1))', [`tray ${known.networkId}`], within);
    const away = await rows(
      'SELECT 1 FROM pairings WHERE key_id = $1 AND serial = $2 AND number IS NULL',
      [known.id, serial],
      within,
    );
    if (away.length > 0) return null;
    const again = await rows<{ number: number; userCode: string }>(
      `UPDATE pairings SET device_hash = $3, address = $4, software = $5, seen_at = now() WHERE key_id = $1 AND serial = $2 AND screen_id IS NULL
       RETURNING number, user_code AS "userCode"`,
      [known.id, serial, hash, address, software ?? null],
      within,
    );
    if (again[0]) return { ...known, ...again[0] };
    // It was given a screen and is here again: it was reset, so it waits again.
    const reset = await rows(
      'DELETE FROM pairings WHERE key_id = $1 AND serial = $2 RETURNING id',
      [known.id, serial],
      within,
    );
    if (reset.length === 0 && known.used >= known.most) return null;
    const [made] = await rows<{ number: number; userCode: string }>(
      `INSERT INTO pairings (id, device_hash, user_code, expires_at, network_id, key_id, serial, address, software, number)
       SELECT $1, $2, $3, $4, $5, $6, $7, $8, $9,
         (SELECT min(n) FROM generate_series(1, 1001) n WHERE NOT EXISTS (
            SELECT 1 FROM pairings p WHERE p.network_id = $5 AND p.number = n AND p.screen_id IS NULL AND p.expires_at > now()))
       RETURNING number, user_code AS "userCode"`,
      [uuidv7(), hash, newUserCode(), known.expiresAt, known.networkId, known.id, serial, address, software ?? null],
      within,
    );
    if (reset.length === 0) await rows('UPDATE enrolment_keys SET used = used + 1 WHERE id = $1', [known.id], within);
    return made ? { ...known, ...made } : null;
  });
  if (!found) {
    // Only misses count: boxes behind one address come with a good key, as many as there are.
    await limitAttempts(`enrol:${placeOf(address)}`, TRIES.most, TRIES.seconds);
    throw new Refusal(403, IS_OVER);
  }
  const expiresIn = Math.max(1, Math.round((found.expiresAt.getTime() - Date.now()) / 1000));
  return {
    deviceCode: token,
    userCode: showCode(found.userCode),
    expiresIn,
    interval: POLL_SECONDS,
    number: found.number,
  };
}

/** A waiting player, and the place that it is to have: a screen, or a display of a wall. */
export interface Given {
  readonly waiting: string;
  readonly screen: string;
}

/**
 * Gives waiting players their screens, in place of earlier players. Each stands alone: says of each what was wrong; null if it has its screen.
 */
export async function giveScreens(
  actor: Actor,
  list: readonly Given[],
): Promise<(Given & { readonly error: string | null })[]> {
  demand(actor, 'operate');
  const results: (Given & { readonly error: string | null })[] = [];
  for (const one of list) results.push({ ...one, error: await giveScreen(actor, one) });
  return results;
}

async function giveScreen({ networkId }: Actor, { waiting, screen }: Given): Promise<string | null> {
  return transaction(async (within) => {
    const place = await said(namedPlace(networkId, screen, within));
    if (typeof place === 'string') return place;
    const { screen: row, part: named } = place;
    const pairing = await PairingRow.findOne({
      where: { id: waiting, networkId },
      transaction: within,
      lock: within.LOCK.UPDATE,
    });
    const isThere = pairing?.screenId === row.id && (named === null || pairing.part === named);
    if (!pairing || (pairing.screenId && !isThere))
      return 'This player no longer waits. It may have been given a screen by someone else.';
    if (pairing.screenId) return null;
    const part = await said(readyPart(place, within));
    if (typeof part === 'string') return part;
    await rows('DELETE FROM pairings WHERE screen_id = $1 AND part = $2', [row.id, part], within);
    await rows(
      `UPDATE pairings SET screen_id = $2, part = $3, expires_at = now() + interval '${COLLECT_MINUTES} minutes' WHERE id = $1`,
      [pairing.id, row.id, part],
      within,
    );
    await publish({ kind: 'players', network: networkId }, within);
    return null;
  });
}

/** What is found, or the sentence of a refusal. */
const said = <T>(found: Promise<T>): Promise<T | string> =>
  found.catch((error: unknown) => {
    if (error instanceof Refusal) return error.message;
    throw error;
  });

/** Takes a waiting player out of the tray for good: by this key it doesn't come back, and it shows a code instead. Throws 404 for none. */
export async function sendAway(actor: Actor, id: string): Promise<void> {
  demand(actor, 'operate');
  // The row stays without a number, so that its serial number is known as removed.
  const gone = await rows(
    `UPDATE pairings SET number = NULL, device_hash = $3, user_code = $4
     WHERE id = $1 AND network_id = $2 AND screen_id IS NULL AND number IS NOT NULL RETURNING id`,
    [id, actor.networkId, newToken().hash, newUserCode()],
  );
  if (gone.length === 0) throw notFound('waiting player');
}

/** Notes that a waiting player asked again; written once in ten seconds. */
export async function noteWaiting(deviceCode: string): Promise<void> {
  await rows(
    `UPDATE pairings SET seen_at = now() WHERE device_hash = $1 AND key_id IS NOT NULL AND seen_at < now() - interval '10 seconds'`,
    [tokenHash(deviceCode)],
  );
}
