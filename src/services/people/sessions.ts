import type { Transaction } from 'sequelize';
import type { Role } from '@/core/roles';
import { config } from '@/config';
import { SessionRow, onBehalfOf, publish, rows, subscribe, transaction } from '@/database';
import { notFound } from '../errors';
import { actorIn, type Actor } from './actor';
import { newToken, tokenHash } from './tokens';
import { record } from './trail';

/** The role of a person; that of a viewer where the person is not known. */
export async function roleOf({ personId }: Pick<Actor, 'personId'>): Promise<Role> {
  const [found] = await rows<{ role: Role }>('SELECT role FROM people WHERE id = $1', [personId]);
  return found?.role ?? 'viewer';
}

/** Where a session comes from: the address, and what the browser or program calls itself. */
export interface Origin {
  readonly address: string;
  readonly agent: string | null;
}

/** A session as its person sees it. */
export interface Session {
  readonly id: string;
  readonly here: boolean;
  readonly openedAt: string;
  /** When it was used last, to some minutes. */
  readonly seenAt: string;
  readonly address: string | null;
  readonly agent: string | null;
}

/** Does work for a person. Its database queries wait for their network's share of connections. */
export const inNameOf = <T>({ networkId }: Actor, work: () => Promise<T>): Promise<T> => onBehalfOf(networkId, work);

const DAYS_SIGNED_IN = 14;
const MOST_OF_AGENT = 300;
/** A stream looks again so often whether its session still stands: for sessions that end by time, and messages that were lost. */
const LOOK_AGAIN_MS = 60_000;

export interface OpenSession {
  /** For the cookie, once: only its hash is stored. */
  readonly token: string;
  readonly expires: Date;
}

export async function openSession(personId: string, from: Origin, within?: Transaction): Promise<OpenSession> {
  const { token, hash } = newToken();
  const expires = new Date(Date.now() + DAYS_SIGNED_IN * 86_400_000);
  const agent = from.agent?.slice(0, MOST_OF_AGENT) ?? null;
  await SessionRow.create(
    { tokenHash: hash, personId, expiresAt: expires, address: from.address, agent },
    { transaction: within },
  );
  await rows('DELETE FROM sessions WHERE expires_at < now()', [], within);
  return { token, expires };
}

/** Ends a session; what it holds open ends too, in all processes. */
export async function signOut(token: string): Promise<void> {
  await transaction(async (within) => {
    const [ended] = await rows<{ person: string; network: string }>(
      `DELETE FROM sessions s USING people p WHERE s.token_hash = $1 AND p.id = s.person_id
       RETURNING p.id AS person, p.network_id AS network`,
      [tokenHash(token)],
      within,
    );
    if (!ended) return;
    await record({ networkId: ended.network, personId: ended.person, act: 'signed-out' }, within);
    await publish({ kind: 'session', ...ended }, within);
  });
}

/** A person's sessions that stand, the one of `token` first, then the last used. */
export async function sessions({ personId }: Actor, token: string): Promise<Session[]> {
  const found = await rows<Omit<Session, 'openedAt' | 'seenAt'> & { openedAt: Date; seenAt: Date }>(
    `SELECT id, token_hash = $2 AS here, created_at AS "openedAt", seen_at AS "seenAt", address, agent FROM sessions
     WHERE person_id = $1 AND expires_at > now() ORDER BY here DESC, seen_at DESC LIMIT 100`,
    [personId, tokenHash(token)],
  );
  return found.map((one) => ({ ...one, openedAt: one.openedAt.toISOString(), seenAt: one.seenAt.toISOString() }));
}

/** Ends one of the actor's own sessions. Throws 404 where it is none. */
export async function endSession(actor: Actor, id: string): Promise<void> {
  await transaction(async (within) => {
    const ended = await rows(
      'DELETE FROM sessions WHERE person_id = $1 AND id = $2 RETURNING id',
      [actor.personId, id],
      within,
    );
    if (ended.length === 0) throw notFound('session');
    await record({ ...actor, act: 'sessions-ended' }, within);
    await tellEnded(actor.networkId, actor.personId, within);
  });
}

/** Ends a person's sessions, all but that of `keep`. Returns how many. */
export async function endSessions(personId: string, within: Transaction, keep?: string): Promise<number> {
  const ended = await rows<{ network: string }>(
    `DELETE FROM sessions s USING people p WHERE p.id = s.person_id AND s.person_id = $1 AND s.token_hash <> $2
     RETURNING p.network_id AS network`,
    [personId, keep === undefined ? '' : tokenHash(keep)],
    within,
  );
  if (ended[0]) await tellEnded(ended[0].network, personId, within);
  return ended.length;
}

async function tellEnded(network: string, person: string | null, within: Transaction): Promise<void> {
  if (person) await publish({ kind: 'session', network, person }, within);
}

/**
 * The person of a session token, or null where it is unknown or expired. A password that everybody can read opens nothing but a server
 * that runs the sample network.
 */
export async function actorOf(token: string | undefined): Promise<Actor | null> {
  if (!token) return null;
  const [found] = await rows<{ personId: string; name: string; networkId: string; role: Role }>(
    `WITH seen AS (
       UPDATE sessions SET seen_at = now() WHERE token_hash = $1 AND seen_at < now() - interval '5 minutes'
     )
     SELECT p.id AS "personId", p.name, p.network_id AS "networkId", p.role FROM sessions s JOIN people p ON p.id = s.person_id
     WHERE s.token_hash = $1 AND s.expires_at > now() AND ($2 OR NOT p.sample_password)`,
    [tokenHash(token), config().demo],
  );
  return found ? actorIn(found) : null;
}

/** Calls `onEnd`, once, when a person's session ends, wherever and however. Returns how to stop watching. */
export function watchSession({ personId }: Actor, token: string, onEnd: () => void): () => void {
  let over = false;
  const stop = () => {
    over = true;
    clearInterval(timer);
    unsubscribe();
  };
  const look = async () => {
    // Where the database does not answer nothing is known: the next look follows.
    const stands = await actorOf(token).then(Boolean, () => true);
    if (over || stands) return;
    stop();
    onEnd();
  };
  const timer = setInterval(() => void look(), LOOK_AGAIN_MS);
  const unsubscribe = subscribe((message) => {
    if (message.kind === 'resync' || (message.kind === 'session' && message.person === personId)) void look();
  });
  return stop;
}
