import type { Booking, Plan } from '../plan/schema';
import { screensMatching, selectorOf } from '../selector';
import { programMaker } from './narrow';

/** Whom a booking reaches: the screens that its selector matches, and those of them for which its content has no item. */
export interface Reach {
  readonly screens: readonly string[];
  readonly empty: readonly string[];
}

/** Ids in the plan's order of screens. The booking need not be in the plan; on hold it reaches the same. */
export function reach(plan: Plan, booking: Booking): Reach {
  const narrow = programMaker(plan);
  const screens = screensMatching(plan, selectorOf(booking.where)).map((screen) => screen.id);
  const empty = (id: string) => {
    const { bookings, weaves = [] } = narrow(id, [booking]);
    return bookings.length + weaves.length === 0;
  };
  return { screens, empty: screens.filter(empty) };
}
