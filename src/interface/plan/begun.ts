import type { Booking, Content, Plan } from '@/core/plan';
import { dateOfLocalTime, formatDate, windowBetween } from '@/core/when';
import { contentObject } from '@/interface/kit/content/content';
import type { Held } from './gestures/held';

/** What a new booking of a content begins with. It has the content's name, unless another booking has that. */
export function begunWith(draft: Plan, content: Content): Partial<Booking> {
  const name = contentObject(draft, content)?.name;
  const isFree = name !== undefined && !draft.bookings.some((one) => one.name.toLowerCase() === name.toLowerCase());
  return isFree ? { content, name } : { content };
}

/** What a new booking that was drawn into a layer begins with. */
export function begunBooking({ start, end, layer }: Held, where: string): Partial<Booking> {
  const day = formatDate(dateOfLocalTime(start));
  const window = windowBetween(start, end);
  return {
    where,
    when: { from: day, to: day, ...(window ? { windows: [window] } : {}) },
    ...(layer === 'takeover' ? { takeover: true, priority: 5 } : { priority: layer }),
  };
}
