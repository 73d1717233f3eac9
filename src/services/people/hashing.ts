import { hash, verify } from '@node-rs/argon2';
import pLimit from 'p-limit';
import { Refusal } from '@/core';

/**
 * Passwords are hashed slowly on purpose: few at a time, so that whoever asks for many slows down nobody but those who sign in; and
 * past a queue that would last some seconds, nobody waits.
 */
const AT_ONCE = 2;
const MOST_WAITING = 60;

const limit = pLimit(AT_ONCE);

function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (limit.pendingCount >= MOST_WAITING)
    throw new Refusal(503, 'Too many people sign in at this moment: try again in some seconds.');
  return limit(work);
}

/** What is stored of a password. Throws 503 where too many are asked for at once. */
export const hashPassword = async (password: string): Promise<string> => inTurn(() => hash(password));

/** Whether a password is that of a stored hash. Throws 503 where too many are asked for at once. */
export const verifyPassword = async (stored: string, password: string): Promise<boolean> =>
  inTurn(() => verify(stored, password));
