import * as z from 'zod';
import { reference } from '../plan/references';
import { parseDate } from './dates';
import { parseRule } from './rule';
import { MOST_DAYS, NAMED_EDGE, parseClock, parseEdge, type WrittenWindow } from './written';
import { isZone } from './zone';

/** When, as a plan writes it (domain section 3), and a site's opening hours. */

const WEEKDAY_KEYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;

export const dateSchema = z
  .string()
  .refine((text) => parseDate(text) !== null, { error: 'Write a date that exists as YYYY-MM-DD.', abort: true })
  .refine((text) => text >= '1900' && text < '3000', 'A date lies between 1900 and 2999.');

export const zoneSchema = z.string().refine(isZone, 'This time zone is unknown. Write it like Europe/Oslo.');

const ruleSchema = z
  .string()
  .max(500, 'A rule has at most 500 characters.')
  .superRefine((text, context) => {
    const result = parseRule(text);
    if (!result.ok) context.addIssue({ code: 'custom', message: result.message });
  });

const NAMED = '“opens”, “closes”, “sunrise” or “sunset”, with an offset such as closes-00:30';
const START = `A window starts at HH:MM or HH:MM:SS, or at ${NAMED}.`;
const END = `A window ends at HH:MM, HH:MM:SS or 24:00, or at ${NAMED}.`;

const DAYS = 'A window may end 1 to 7 days later. Write the days as a whole number.';

export const windowSchema = z.tuple([
  z.string().refine((text) => parseEdge(text, false) !== null, START),
  z.string().refine((text) => parseEdge(text, true) !== null, END),
  z.int(DAYS).min(1, DAYS).max(MOST_DAYS, DAYS).optional(),
]) as z.ZodType<WrittenWindow, WrittenWindow>;

const datesSchema = z.array(dateSchema).max(4000, 'There are at most 4000 dates: make a calendar of them.');
const calendarsSchema = z.array(reference('calendar')).max(50, 'There are at most 50 calendars.');

const fields = {
  clock: z
    .union([z.literal('site'), zoneSchema], 'The clock is “site” or an IANA zone such as Europe/Oslo.')
    .optional(),
  from: dateSchema.optional(),
  to: dateSchema.optional(),
  repeat: ruleSchema.optional(),
  also: datesSchema.optional(),
  except: datesSchema.optional(),
  only: calendarsSchema.optional(),
  not: calendarsSchema.optional(),
  windows: z.array(windowSchema).max(100, 'There are at most 100 windows in a day.').optional(),
};

/**
 * What each field chooses: dates, or times on them. Carrying one day of a booking alone leaves the former behind and keeps
 * the latter (`core/booking/dates.ts`), so that no field is lost in a copy.
 */
export const WHEN_FIELDS: Readonly<Record<keyof typeof fields, 'dates' | 'times'>> = {
  clock: 'times',
  from: 'dates',
  to: 'dates',
  repeat: 'dates',
  also: 'dates',
  except: 'dates',
  only: 'dates',
  not: 'dates',
  windows: 'times',
};

interface Checked {
  readonly clock?: string | undefined;
  readonly from?: string | undefined;
  readonly repeat?: string | undefined;
  readonly windows?: readonly WrittenWindow[] | undefined;
}

function check({ clock, from, repeat, windows }: Checked, context: z.RefinementCtx): void {
  if (repeat !== undefined && from === undefined)
    context.addIssue({ code: 'custom', path: ['from'], message: 'A repeat starts at “from”: give its first date.' });
  if (clock === undefined || clock === 'site') return;
  (windows ?? []).forEach((window, i) =>
    window.forEach((edge, side) => {
      if (NAMED_EDGE.test(String(edge)))
        context.addIssue({
          code: 'custom',
          path: ['windows', i, side],
          message: `“${edge}” uses the site’s clock. Remove the named clock, or write a time.`,
        });
    }),
  );
}

const setSchema = z.strictObject(fields).superRefine(check);

/** How many sets of hours a `When` may have. */
export const MOST_SETS = 20;

/** Dates, and the hours on them, by one clock. `{}` is always. */
export type SetOfHours = z.infer<typeof setSchema>;

/** A set of instants: one set of hours, or several together. */
export type When = (SetOfHours & { any?: undefined }) | { any: SetOfHours[] };

export const whenSchema = z
  .strictObject({
    ...fields,
    any: z
      .array(setSchema)
      .min(1, '“any” is empty. Write at least one set of hours, or leave “any” out for always.')
      .max(MOST_SETS, `There are at most ${MOST_SETS} sets of hours.`)
      .optional(),
  })
  .superRefine((when, context) => {
    check(when, context);
    const { any, ...others } = when;
    for (const field of any ? Object.keys(others) : [])
      context.addIssue({
        code: 'custom',
        path: [field],
        message: `“any” can’t have other fields beside it. Move “${field}” into each of its sets of hours.`,
      });
  }) as unknown as z.ZodType<When, When>;

const openingSchema = z.tuple([
  z.string().refine((text) => parseClock(text) !== null, 'Opening is written HH:MM.'),
  z.string().refine((text) => text === '24:00' || parseClock(text) !== null, 'Closing is written HH:MM, or 24:00.'),
]);

const openingsSchema = z.array(openingSchema).max(24, 'A site opens at most 24 times a day.');

export const hoursSchema = z.strictObject({
  weekly: z.partialRecord(z.enum(WEEKDAY_KEYS), openingsSchema).optional(),
  dates: z
    .record(dateSchema, openingsSchema)
    .refine((dates) => Object.keys(dates).length <= 4000, 'A site has at most 4000 dates with hours of their own.')
    .optional(),
});

export type OpeningHours = z.infer<typeof hoursSchema>;
