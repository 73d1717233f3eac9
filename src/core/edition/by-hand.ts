import equal from 'fast-deep-equal';
import { putOnOf } from '../booking';
import type { Instant } from '../instant';
import { objectIn, withObject, type Booking, type ObjectKey, type Plan } from '../plan';
import { spanWhen, type When } from '../when';
import { chosenPlan } from './choice';

/**
 * What people do by hand on top of what is planned: takeovers that were fired, and what was put on now. It stays on the glass until it is
 * ended by hand or by its own time, whatever is published in the meantime. Once it has ended, no older edition brings it back.
 */

/** A takeover that was fired: what its booking says of its time while it is in force, and what it said before. */
export interface Fired {
  readonly booking: string;
  readonly during: When;
  readonly before: When;
  /** A drill's booking is there only for the drill. */
  readonly drill: boolean;
}

/** What a booking says of its time while it is in force, from when it was fired until when it ends by itself; null for never. */
export const firedWhen = (firedAt: Instant, until: Instant | null): When =>
  until === null ? {} : spanWhen(firedAt, until, 'UTC');

/** Whether a booking is in a plan as it was fired. */
export const isAsFired = (booking: Booking, { during }: Pick<Fired, 'during'>): boolean =>
  booking.takeover === true && !booking.onHold && equal(booking.when, during);

export interface ByHand {
  /** The takeovers that are in force now. */
  readonly inForce: readonly Fired[];
  /** Takeovers that were fired and cleared again. */
  readonly cleared: readonly Fired[];
  /** The plan that screens show now. */
  readonly glass: Plan;
}

/**
 * A plan that is about to go out, with what is on the glass by hand laid over it: takeovers that are in force, and what was put on and is not
 * over. Takeovers that were cleared since the plan was made, and what was ended, are taken out of it. Returns the same plan if nothing differs.
 */
export function withByHand(plan: Plan, { inForce, cleared, glass }: ByHand, now: Instant): Plan {
  const isOn = (booking: Booking | null | undefined) => {
    const on = booking ? putOnOf(booking) : null;
    return on !== null && on.to > now;
  };
  const forced = new Set(inForce.map(({ booking }) => booking));
  let next = plan;
  for (const fired of cleared) {
    const booking = objectIn(next, 'booking', fired.booking);
    if (!booking || forced.has(booking.id) || !isAsFired(booking, fired)) continue;
    const prepared: Booking = { ...booking, when: fired.before, onHold: true };
    next = withObject(next, 'booking', booking.id, fired.drill ? null : prepared);
  }
  for (const booking of next.bookings)
    if (isOn(booking) && !forced.has(booking.id) && !isOn(objectIn(glass, 'booking', booking.id)))
      next = withObject(next, 'booking', booking.id, null);
  const laidOver = glass.bookings
    .filter((booking) => forced.has(booking.id) || isOn(booking))
    .filter((booking) => !equal(booking, objectIn(next, 'booking', booking.id)))
    .map(({ id }): ObjectKey => ({ kind: 'booking', id }));
  return laidOver.length === 0 ? next : chosenPlan(next, glass, laidOver, { withPlaces: false }).plan;
}
