import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { Refusal } from '@/core/refusal';
import { SECOND } from '@/core/instant';
import { rows } from '@/database';
import { logger } from '@/log';
import type { Actor } from '../people';

/**
 * What fires too often is passed over before it reaches the database, and counted, so that people can find what has gone mad. Counted in
 * this process: with several web servers each lets as many through.
 */

/** One hand with one cue; one hand with all of them, so that it can't hold up the others; and all of a network together. */
const EACH = { points: 10, duration: 10 };
const HAND = { points: 30, duration: 10 };
const TOGETHER = { points: 200, duration: 10 };
const each = new RateLimiterMemory(EACH);
const hand = new RateLimiterMemory(HAND);
const together = new RateLimiterMemory(TOGETHER);

/** By what a cue is fired. */
export interface Presser {
  readonly networkId: string;
  /** Tells it apart from all others. */
  readonly key: string;
  /** How people call it, such as “Ida”, or “Deck 5 bar, by touch”. */
  readonly said: string;
}

/** A flood that was seen: how often something fired a cue and was passed over. */
export interface Flood {
  readonly cue: string;
  readonly said: string;
  readonly since: string;
  readonly last: string;
  readonly count: number;
}

/** Throws 429 if this fires the cue too often. */
export async function limitPresses(presser: Presser, cue: string) {
  const { networkId, key } = presser;
  try {
    await hand.consume(`${networkId} ${key}`);
    await each.consume(`${networkId} ${key} ${cue}`);
    await together.consume(networkId);
  } catch (reached) {
    if (!(reached instanceof RateLimiterRes)) throw reached;
    passOver(presser, cue);
    const seconds = Math.max(1, Math.ceil(reached.msBeforeNext / SECOND));
    throw new Refusal(
      429,
      `This cue is fired too often: ${EACH.points} times in ${EACH.duration} seconds at most. Wait ${seconds} s, then try again.`,
    );
  }
}

const WRITE_AFTER_MS = SECOND;
let passed = new Map<
  string,
  { readonly presser: Presser; readonly cue: string; readonly since: Date; count: number }
>();
let timer: NodeJS.Timeout | null = null;

function passOver(presser: Presser, cue: string): void {
  const key = JSON.stringify([presser.networkId, presser.said, cue]);
  const one = passed.get(key) ?? { presser, cue, since: new Date(), count: 0 };
  one.count++;
  passed.set(key, one);
  timer ??= setTimeout(() => {
    timer = null;
    writeFloods().catch((error: unknown) =>
      logger.warn({ error }, 'presses that were passed over could not be counted'),
    );
  }, WRITE_AFTER_MS);
}

/** A flood is another one after a pause of so long. */
const PAUSE = "interval '10 minutes'";

/** Writes down what was passed over since the last time. */
export async function writeFloods(): Promise<void> {
  const list = [...passed.values()].map(({ presser, cue, since, count }) => ({
    ...{ network: presser.networkId, said: presser.said, cue, since: since.toISOString(), count },
  }));
  passed = new Map();
  if (list.length === 0) return;
  await rows(
    `INSERT INTO cue_floods AS f (network_id, cue, said, since, last, count)
     SELECT network, cue, said, since, now(), count
     FROM jsonb_to_recordset($1::jsonb) AS x(network uuid, cue text, said text, since timestamptz, count int)
     ON CONFLICT (network_id, cue, said) DO UPDATE SET last = excluded.last,
       since = CASE WHEN f.last < excluded.since - ${PAUSE} THEN excluded.since ELSE f.since END,
       count = CASE WHEN f.last < excluded.since - ${PAUSE} THEN excluded.count ELSE f.count + excluded.count END`,
    [JSON.stringify(list)],
  );
}

/** What fired too often within the last day, the newest first. */
export async function floods({ networkId }: Actor): Promise<Flood[]> {
  const found = await rows<Omit<Flood, 'since' | 'last'> & { since: Date; last: Date }>(
    `SELECT cue, said, since, last, count FROM cue_floods
     WHERE network_id = $1 AND last > now() - interval '1 day' ORDER BY last DESC LIMIT 20`,
    [networkId],
  );
  return found.map(({ since, last, ...flood }) => ({
    ...flood,
    since: since.toISOString(),
    last: last.toISOString(),
  }));
}
