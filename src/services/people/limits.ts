import { rows } from '@/database';
import { Refusal } from '@/core';

/**
 * Counts an attempt under `key` and throws 429 once there were more than `most` within `seconds`. Kept in the database, so
 * that all processes count together; it is not undone when the attempt fails.
 */
export async function limitAttempts(key: string, most: number, seconds: number): Promise<void> {
  const [row] = await rows<{ count: number; wait: number }>(
    `INSERT INTO attempts (key, count, resets_at) VALUES ($1, 1, now() + make_interval(secs => $2))
     ON CONFLICT (key) DO UPDATE SET
       count = CASE WHEN attempts.resets_at <= now() THEN 1 ELSE attempts.count + 1 END,
       resets_at = CASE WHEN attempts.resets_at <= now() THEN excluded.resets_at ELSE attempts.resets_at END
     RETURNING count, ceil(extract(epoch FROM resets_at - now()))::int AS wait`,
    [key, seconds],
  );
  if (row && row.count > most) throw new Refusal(429, `Too many attempts: wait ${row.wait} seconds, then try again.`);
}

/** Takes one attempt under `key` back: it succeeded, and many may come from one address rightly. */
export async function giveBackAttempt(key: string): Promise<void> {
  await rows('UPDATE attempts SET count = count - 1 WHERE key = $1 AND count > 0', [key]);
}

/** Forgets the attempts under `key`, after one that succeeded. */
export async function forgetAttempts(key: string): Promise<void> {
  await rows('DELETE FROM attempts WHERE key = $1', [key]);
}

/** Forgets attempts whose time is over. */
export async function clearAttempts(): Promise<void> {
  await rows('DELETE FROM attempts WHERE resets_at <= now()');
}
