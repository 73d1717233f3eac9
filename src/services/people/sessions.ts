import { SessionRow, publish, rows, subscribe } from '@/database';
import { newToken, tokenHash } from './tokens';

/** Who asks: every service call takes one, and sees that person's network only. */
export interface Actor {
  readonly personId: string | null;
  readonly name: string;
  readonly networkId: string;
}

const DAYS_SIGNED_IN = 14;
/** A stream looks again so often whether its session still stands: for sessions that end by time, and messages that were lost. */
const LOOK_AGAIN_MS = 60_000;

export interface OpenSession {
  /** For the cookie, once: only its hash is stored. */
  readonly token: string;
  readonly expires: Date;
}

export async function openSession(personId: string): Promise<OpenSession> {
  const { token, hash } = newToken();
  const expires = new Date(Date.now() + DAYS_SIGNED_IN * 86_400_000);
  await SessionRow.create({ tokenHash: hash, personId, expiresAt: expires });
  await rows('DELETE FROM sessions WHERE expires_at < now()');
  return { token, expires };
}

/** Ends a session; what it holds open ends too, in all processes. */
export async function signOut(token: string): Promise<void> {
  const [ended] = await rows<{ person: string; network: string }>(
    `DELETE FROM sessions s USING people p WHERE s.token_hash = $1 AND p.id = s.person_id
     RETURNING p.id AS person, p.network_id AS network`,
    [tokenHash(token)],
  );
  if (ended) await publish({ kind: 'session', ...ended });
}

/** The person of a session token, or null where it is unknown or expired. */
export async function actorOf(token: string | undefined): Promise<Actor | null> {
  if (!token) return null;
  const [found] = await rows<{ personId: string; name: string; networkId: string }>(
    `SELECT p.id AS "personId", p.name, p.network_id AS "networkId" FROM sessions s JOIN people p ON p.id = s.person_id
     WHERE s.token_hash = $1 AND s.expires_at > now()`,
    [tokenHash(token)],
  );
  return found ?? null;
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
