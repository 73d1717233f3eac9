import { z } from 'zod';
import {
  bookingSchema,
  dateSchema,
  nameSchema,
  parseRule,
  selectorSchema,
  weeklyDays,
  weeklyRule,
  whenSchema,
  windowSchema,
  type Booking,
  type When,
} from '@/core';
import { contentOf, contentValue } from '@/interface/kit/content-field';

/** What the booking form holds; `bookingFormSchema` reads it into a booking by the core's own schemas. */
export interface BookingValues {
  name: string;
  content: string;
  seconds: string;
  where: string;
  from: string;
  to: string;
  /** 0 Monday to 6 Sunday. */
  days: number[];
  /** A repeat that is more than weekdays; empty for none. */
  rule: string;
  windows: { start: string; end: string }[];
  clock: string;
  /** `only:ID`, `not:ID`, or empty. */
  calendar: string;
  priority: string;
  takeover: boolean;
  wake: boolean;
  onHold: boolean;
}

const optionalDate = z.union([z.literal(''), dateSchema]);

export const bookingFormSchema = z
  .object({
    name: nameSchema,
    content: z.string().min(1, 'Choose what is shown.'),
    seconds: z.string(),
    where: selectorSchema,
    from: optionalDate,
    to: optionalDate,
    days: z.array(z.number()),
    rule: z.string().trim(),
    windows: z.array(
      z.object({ start: z.string().trim(), end: z.string().trim() }).superRefine(({ start, end }, context) => {
        for (const issue of windowSchema.safeParse([start, end]).error?.issues ?? [])
          context.addIssue({ code: 'custom', path: [issue.path[0] === 0 ? 'start' : 'end'], message: issue.message });
      }),
    ),
    clock: z.string(),
    calendar: z.string(),
    priority: z.coerce.number().pipe(bookingSchema.shape.priority.unwrap()),
    takeover: z.boolean(),
    wake: z.boolean(),
    onHold: z.boolean(),
  })
  .superRefine(({ from, to, rule, seconds }, context) => {
    if (from && to && to < from)
      context.addIssue({ code: 'custom', path: ['to'], message: 'The last day comes before the first.' });
    if (seconds.trim() !== '' && !(Number(seconds) >= 0.1))
      context.addIssue({ code: 'custom', path: ['seconds'], message: 'Write at least 0.1 seconds, or nothing.' });
    const read = rule === '' ? null : parseRule(rule);
    if (read && 'error' in read) context.addIssue({ code: 'custom', path: ['rule'], message: read.error });
    if (rule !== '' && from === '')
      context.addIssue({ code: 'custom', path: ['from'], message: 'A repeat needs its first day.' });
  });

/** A booking's values for the form; those of a new one where there is none. */
export function bookingValues(booking: Booking | null): BookingValues {
  const when: When = booking?.when ?? {};
  const rule = when.repeat === undefined ? null : parseRule(when.repeat);
  const weekly = rule && !('error' in rule) && rule.interval === 1 ? weeklyDays(rule) : null;
  const [only] = when.only ?? [];
  const [not] = when.not ?? [];
  return {
    name: booking?.name ?? '',
    content: contentValue(booking?.content),
    seconds: booking?.content.durationMs === undefined ? '' : String(booking.content.durationMs / 1000),
    where: booking?.where ?? '',
    from: when.from ?? '',
    to: when.to ?? '',
    days: weekly ?? [],
    rule: weekly ? '' : (when.repeat ?? ''),
    windows: (when.windows ?? []).map(([start, end]) => ({ start, end })),
    clock: when.clock ?? 'site',
    calendar: only ? `only:${only}` : not ? `not:${not}` : '',
    priority: String(booking?.priority ?? 3),
    takeover: booking?.takeover ?? false,
    wake: booking?.wake ?? false,
    onHold: booking?.onHold ?? false,
  };
}

/** The booking's document from checked values. What the form does not show of an earlier `When` stays. `today` starts weekdays that have no first day. */
export function bookingDocument(
  values: z.output<typeof bookingFormSchema>,
  before: Booking | null,
  now: Date,
): Omit<Booking, 'id'> {
  const { from, to, days, rule, windows, clock, calendar } = values;
  const [list, id] = calendar.split(':');
  const repeat = rule !== '' ? rule : days.length > 0 && days.length < 7 ? weeklyRule(days) : undefined;
  const first = from !== '' ? from : repeat === undefined ? undefined : now.toISOString().slice(0, 10);
  const { also, except } = before?.when ?? {};
  const when: When = whenSchema.parse({
    ...(clock === 'site' ? {} : { clock }),
    ...(first === undefined ? {} : { from: first }),
    ...(to === '' ? {} : { to }),
    ...(repeat === undefined ? {} : { repeat }),
    ...(also ? { also } : {}),
    ...(except ? { except } : {}),
    ...(id ? { [list === 'only' ? 'only' : 'not']: [id] } : {}),
    ...(windows.length > 0 ? { windows: windows.map(({ start, end }) => [start, end]) } : {}),
  });
  const seconds = values.seconds.trim();
  return {
    name: values.name,
    content: contentOf(
      values.content,
      seconds === '' ? undefined : Math.round(Number(seconds) * 1000),
    ) as Booking['content'],
    where: values.where.trim(),
    priority: values.priority,
    ...(values.takeover ? { takeover: true } : {}),
    ...(values.takeover && values.wake ? { wake: true } : {}),
    ...(values.onHold ? { onHold: true } : {}),
    created: before?.created ?? now.toISOString(),
    when,
  };
}
