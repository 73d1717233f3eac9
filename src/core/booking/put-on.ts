import type { Instant } from '../instant';
import type { Booking, Plan } from '../plan';
import { screensMatching, selectorOf } from '../selector';
import { spanOf, spanWhen } from '../when';

/** A booking that was put on at once: a takeover of the lowest priority, from a second to another. */
export interface PutOn {
  readonly booking: Booking;
  readonly from: Instant;
  readonly to: Instant;
}

const PRIORITY = 1;

/** What of a booking follows from its being put on, from an instant to another, on a zone's clock. */
export const puttingOn = (from: Instant, to: Instant, zone: string) =>
  ({ takeover: true, priority: PRIORITY, when: spanWhen(from, to, zone) }) as const;

/** Null for a booking that was not put on at once. */
export function putOnOf(booking: Booking): PutOn | null {
  const { takeover, priority, onHold, when } = booking;
  const span = takeover && priority === PRIORITY && !onHold ? spanOf(when) : null;
  return span && { booking, from: span[0], to: span[1] };
}

/** What was put on in a plan, what ends first first, with the ids of the screens that it is for. */
export function putOnsIn(plan: Plan): (PutOn & { readonly screens: readonly string[] })[] {
  return plan.bookings
    .flatMap((booking) => putOnOf(booking) ?? [])
    .sort((a, b) => a.to - b.to)
    .map((one) => ({ ...one, screens: screensMatching(plan, selectorOf(one.booking.where)).map(({ id }) => id) }));
}
