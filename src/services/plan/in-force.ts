import type { Transaction } from 'sequelize';
import { firedWhen, type Fired } from '@/core/edition';
import { Refusal } from '@/core/refusal';
import type { When } from '@/core/when';
import { rows } from '@/database';
import type { Write } from './objects';

/** Takeovers that are in force: the all-clear ends them, and no edit does. */

interface Row {
  readonly booking: string;
  readonly name: string;
  readonly firedAt: Date;
  readonly until: Date | null;
  readonly before: When;
  readonly drill: boolean;
}

/** A takeover that was fired, with its name. */
export type NamedFired = Fired & { readonly name: string };

const firedOf = ({ booking, name, firedAt, until, before, drill }: Row): NamedFired => ({
  ...{ booking, name, before, drill },
  during: firedWhen(firedAt.getTime(), until?.getTime() ?? null),
});

/** The last time that each takeover of a network was fired, where it is neither cleared nor over by itself. `only` asks of some bookings. */
export async function inForceNow(
  networkId: string,
  now: number,
  within: Transaction,
  only?: readonly string[],
): Promise<NamedFired[]> {
  const found = await rows<Row & { cleared: boolean }>(
    `SELECT DISTINCT ON (booking) booking, name, fired_at AS "firedAt", until, time_before AS before, drill, cleared_at IS NOT NULL AS cleared
     FROM firings WHERE network_id = $1 AND ($2::text[] IS NULL OR booking = ANY($2)) ORDER BY booking, fired_at DESC, id DESC`,
    [networkId, only ?? null],
    within,
  );
  return found.filter(({ cleared, until }) => !cleared && (until === null || until.getTime() > now)).map(firedOf);
}

/** All times that some bookings were fired and cleared. */
export async function clearedFirings(
  networkId: string,
  bookings: readonly string[],
  within: Transaction,
): Promise<NamedFired[]> {
  if (bookings.length === 0) return [];
  const found = await rows<Row>(
    `SELECT DISTINCT ON (booking, fired_at) booking, name, fired_at AS "firedAt", until, time_before AS before, drill FROM firings
     WHERE network_id = $1 AND booking = ANY($2) AND cleared_at IS NOT NULL ORDER BY booking, fired_at DESC`,
    [networkId, bookings],
    within,
  );
  return found.map(firedOf);
}

/** Throws 409 where an edit changes or removes a booking that is in force: it would be on the glass and in no plan. */
export async function refuseInForce(networkId: string, writes: readonly Write[], within: Transaction): Promise<void> {
  const changed = writes.flatMap(({ kind, id, before }) => (kind === 'booking' && before ? [id] : []));
  if (changed.length === 0) return;
  const [first] = await inForceNow(networkId, Date.now(), within, changed);
  if (first) throw new Refusal(409, `“${first.name}” is in force. Give the all-clear first, then change it.`);
}
