import { MINUTE, type Instant } from '../instant';
import type { Booking } from '../plan';
import { spanWhen, type When } from '../when';

/** Whether a booking is a takeover that waits to be fired: it is on hold, whatever its times say. */
export const isPrepared = ({ takeover, onHold }: Booking): boolean => takeover === true && onHold === true;

/** The longest a drill may last, in milliseconds, because people forget to end drills. */
const DRILL_MS = 10 * MINUTE;

/** A prepared takeover as a drill of itself, on other screens: the same content, for minutes, marked as a drill where it is seen. */
export function drillOf(
  { content, priority, wake, prepared }: Booking,
  where: string,
): Omit<Booking, 'id' | 'name' | 'created' | 'when'> {
  const lasts = Math.min(prepared?.lasts ?? DRILL_MS, DRILL_MS);
  return {
    content,
    where,
    priority,
    takeover: true,
    ...(wake ? { wake } : {}),
    drill: true,
    prepared: { ...prepared, lasts },
  };
}

/**
 * When a takeover is in force that is fired at an instant: from the second that is running, for as long as was prepared, less than a day;
 * without that until it is cleared. Null for an end that is not known.
 */
export function inForce(booking: Booking, now: Instant): { readonly when: When; readonly until: Instant | null } {
  const lasts = booking.prepared?.lasts;
  if (lasts === undefined) return { when: {}, until: null };
  const until = Math.floor((now + Math.max(lasts, MINUTE)) / 1000) * 1000;
  return { when: spanWhen(now, until, 'UTC'), until };
}
