import { isIPv6 } from 'node:net';
import { rows } from '@/database';
import { Refusal } from '@/core/refusal';

/** Network part of an IPv6 address, in groups of 16 bits: whoever has one address of it has all of them (RFC 6177). */
const PREFIX_GROUPS = 4;

/** What counts as one place for limits: an IPv4 address, or the /64 network of an IPv6 one. */
export function placeOf(address: string): string {
  const [bare = ''] = address.split('%');
  if (!isIPv6(bare)) return address;
  const [before = '', after] = bare.split('::');
  const groups = (text: string | undefined) => (text ? text.split(':') : []);
  const head = groups(before);
  const tail = groups(after);
  const missing = after === undefined ? 0 : 8 - head.length - tail.length;
  const all = [...head, ...Array.from({ length: Math.max(0, missing) }, () => '0'), ...tail];
  return `${all
    .slice(0, PREFIX_GROUPS)
    .map((group) => parseInt(group, 16).toString(16))
    .join(':')}::/64`;
}

/**
 * Counts an attempt under `key` and throws 429 once there were more than `most` within `seconds`. Kept in the database, so
 * that all processes count together; it is not undone when the attempt fails.
 */
export async function limitAttempts(key: string, most: number, seconds: number): Promise<number> {
  const [row] = await rows<{ count: number; wait: number }>(
    `INSERT INTO attempts (key, count, resets_at) VALUES ($1, 1, now() + make_interval(secs => $2))
     ON CONFLICT (key) DO UPDATE SET
       count = CASE WHEN attempts.resets_at <= now() THEN 1 ELSE attempts.count + 1 END,
       resets_at = CASE WHEN attempts.resets_at <= now() THEN excluded.resets_at ELSE attempts.resets_at END
     RETURNING count, ceil(extract(epoch FROM resets_at - now()))::int AS wait`,
    [key, seconds],
  );
  if (row && row.count > most) throw new Refusal(429, `Too many attempts. Wait ${row.wait} seconds, then try again.`);
  return row?.count ?? 1;
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
