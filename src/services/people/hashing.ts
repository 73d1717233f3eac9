import { hash, verify } from '@node-rs/argon2';
import pLimit from 'p-limit';
import { Refusal } from '@/core/refusal';

/**
 * Passwords are hashed slowly on purpose. A person who tries many should slow down only requests that look like theirs. So each of these lanes hashes one
 * at a time, and no lane waits for another. When the queue is longer than some seconds, requests are refused at once.
 */
export type Lane =
  /** A person who has logged in from there before, or is logged in now. */
  | 'known'
  /** A first try from an address. */
  | 'new'
  /** An address that has sent wrong passwords lately. */
  | 'doubtful';

const MOST_WAITING = 30;

const LANES = { known: pLimit(1), new: pLimit(1), doubtful: pLimit(1) };

function inTurn<T>(lane: Lane, work: () => Promise<T>): Promise<T> {
  const limit = LANES[lane];
  if (limit.pendingCount >= MOST_WAITING)
    throw new Refusal(503, 'Too many people are logging in right now. Try again in a few seconds.');
  return limit(work);
}

/** What is stored of a password. Throws 503 where too many are asked for at once. */
export const hashPassword = async (password: string): Promise<string> => inTurn('known', () => hash(password));

/** Whether a password is that of a stored hash. Throws 503 where too many are asked for at once. */
export const verifyPassword = async (stored: string, password: string, lane: Lane = 'known'): Promise<boolean> =>
  inTurn(lane, () => verify(stored, password));
