import { LRUCache } from 'lru-cache';
import type { Transaction } from 'sequelize';
import { cueEffect, reachedBy } from '@/core/forecast';
import type { Firing } from '@/core/cues';
import { DAY } from '@/core/instant';
import { LATE_MS, objectIn, type Cue } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { publish, rows, transaction, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { newestPlan } from '../editions';
import { demand, readInput, recordQuietly, type Actor } from '../people';
import { draftPlan } from '../plan';
import { limitPresses, type Presser } from './floods';
import { fireSchema } from './schemas';

/** Firing and ending cues. A firing is a fact beside the plan: it is kept, told to players, and given to the forecast. */

/** A cue that was fired, or ended. */
export interface Fired {
  readonly id: string;
  readonly cue: string;
  readonly name: string;
  readonly at: string;
  /** When the last screen returns to what it would show otherwise, unless it is ended before. */
  readonly until: string;
  readonly end: boolean;
  /** The selector; null for all screens that its bookings reach. */
  readonly where: string | null;
  /** On how many screens. */
  readonly screens: number;
  /** By whom or what. */
  readonly by: string | null;
}

/** What came together with a firing. */
export interface ByWhom {
  readonly byKey?: boolean | undefined;
  readonly idempotencyKey?: string | undefined;
}

/** The same press by the same hand within this time is one: a finger that bounces, a double click. */
const SAME_PRESS_MS = 500;
/** A notification of the database holds 8000 bytes: so many ids have room in one. */
const MOST_TOLD = 80;

const pressed = new LRUCache<string, Promise<Fired>>({ max: 10_000, ttl: SAME_PRESS_MS });

/**
 * Fires a cue, or with `end` ends it, on the screens that both its bookings and `where` reach. Under one idempotency key it is done once,
 * and answered the same. Throws 404 for no cue, 409 for one that is not published yet, 422 for a selector that is none or where no screen
 * would show anything, 429 for too many.
 */
export async function fireCue(
  actor: Actor,
  order: unknown,
  { byKey = false, idempotencyKey }: ByWhom = {},
  now = Date.now(),
): Promise<Fired> {
  demand(actor, 'operate');
  const presser = {
    networkId: actor.networkId,
    key: `${byKey ? 'program' : 'person'} ${actor.personId ?? ''}`,
    said: byKey ? `a program with a key of ${actor.name}` : actor.name,
    personId: actor.personId,
  };
  return press(presser, readInput(fireSchema, order), idempotencyKey, now);
}

/** Who or what presses, and the person behind it, if any. */
export interface Hand extends Presser {
  readonly personId: string | null;
}

/** What is fired, as it was read. */
export interface Press {
  readonly cue: string;
  readonly where?: string | undefined;
  readonly end?: boolean | undefined;
}

/** The same for whatever may fire: a board that was opened by a link has no person. */
export async function press(hand: Hand, order: Press, idempotencyKey: string | undefined, now: number): Promise<Fired> {
  const again = JSON.stringify([hand.networkId, hand.key, order, idempotencyKey ?? null]);
  const same = pressed.get(again);
  if (same) return same;
  // Before anything is asked of the database: a flood costs nobody else anything.
  await limitPresses(hand, order.cue);
  const once = pressed.get(again) ?? strike(hand, order, { idempotencyKey, now });
  pressed.set(again, once);
  once.catch(() => pressed.delete(again));
  return once;
}

async function unpublished(networkId: string, id: string): Promise<Refusal> {
  const { plan } = await draftPlan({ networkId });
  const cue = objectIn(plan, 'cue', id);
  return cue ? new Refusal(409, `“${cue.name}” isn’t published yet. Publish it, then fire it.`) : notFound('cue');
}

async function strike(
  hand: Hand,
  { cue: id, where, end = false }: Press,
  { idempotencyKey, now }: { idempotencyKey: string | undefined; now: number },
): Promise<Fired> {
  const plan = await newestPlan(hand.networkId);
  const cue = plan && objectIn(plan, 'cue', id);
  if (!plan || !cue) throw await unpublished(hand.networkId, id);
  const screens = reachedBy(plan, cue.id, where);
  if (screens.length === 0)
    throw new Refusal(
      422,
      where === undefined
        ? `“${cue.name}” reaches no screen: no published booking waits for it.`
        : `“${cue.name}” reaches no screen at “${where}”.`,
    );
  const at = new Date(now).toISOString();
  const firing: Firing = { cue: cue.id, at, ...(where === undefined ? {} : { where }) };
  const effect = end ? null : cueEffect(plan, cue.id, screens, [firing], now);
  if (effect?.until === null)
    throw new Refusal(422, `“${cue.name}” has nothing to show now: its bookings or their files have other times.`);
  return transaction((within) =>
    write(
      { hand, cue, at: now, until: effect?.until ?? now + DAY, end, where: where ?? null, screens, idempotencyKey },
      within,
    ),
  );
}

/** A firing as it is written down. */
export interface Written {
  readonly hand: Hand;
  readonly cue: Cue;
  readonly at: number;
  readonly until: number;
  readonly end: boolean;
  readonly where: string | null;
  readonly screens: readonly string[];
  readonly idempotencyKey: string | undefined;
}

/** Writes a firing, tells those whom it concerns, and answers it; what was written under the same idempotency key before stays. */
export async function write(
  { hand, cue, at, until, end, where, screens, idempotencyKey }: Written,
  within: Transaction,
): Promise<Fired> {
  const { networkId, personId, said } = hand;
  const made = await rows<Row>(
    `INSERT INTO cue_firings (id, network_id, cue, name, at, until, late_after, ends, selector, screens, origin, said, fired_by, idempotency_key)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14)
     ON CONFLICT (network_id, idempotency_key) DO NOTHING RETURNING ${COLUMNS}`,
    [
      ...[uuidv7(), networkId, cue.id, cue.name, new Date(at), new Date(until), new Date(at + (cue.lateMs ?? LATE_MS))],
      ...[end, where, screens, hand.key, said, personId, idempotencyKey ?? null],
    ],
    within,
  );
  const [row] =
    made.length > 0
      ? made
      : await rows<Row>(
          `SELECT ${COLUMNS} FROM cue_firings WHERE network_id = $1 AND idempotency_key = $2`,
          [networkId, idempotencyKey],
          within,
        );
  if (!row) throw notFound('firing');
  if (row.cue !== cue.id || row.end !== end)
    throw new Refusal(422, `This idempotency key was used for “${row.name}”. Use another key for another firing.`);
  const told = screens.length > MOST_TOLD ? null : screens;
  if (made.length > 0) {
    const where = row.screens === 1 ? '1 screen' : `${row.screens} screens`;
    const about = `${cue.name}, on ${where}${personId === null ? `, by ${said}` : ''}`;
    await recordQuietly({ networkId, personId, act: end ? 'cue-ended' : 'cue-fired', about }, within);
    await publish({ kind: 'cues', network: networkId, screens: told }, within);
  }
  return firedOf(row);
}

export const COLUMNS = `id, cue, name, at, until, ends AS end, selector AS where, cardinality(screens) AS screens, said AS by`;

export type Row = Omit<Fired, 'at' | 'until'> & { readonly at: Date; readonly until: Date };

export const firedOf = ({ at, until, ...row }: Row): Fired => ({
  ...row,
  at: at.toISOString(),
  until: until.toISOString(),
});
