import * as z from 'zod';
import { parseDate } from '../../when/dates';
import { dateSchema } from '../../when/schema';
import { idSchema, nameSchema } from '../fields';
import { defineKind } from '../kind';
import { text } from '../say';

const holidaysSchema = z.strictObject({
  country: z.string().regex(/^[A-Z]{2}$/, 'Write a country as two capital letters (ISO 3166-1), like NO.'),
  region: z
    .string()
    .regex(/^[A-Z0-9-]{1,10}$/, 'Write a region as in ISO 3166-2, without the country.')
    .optional(),
});

/** About a hundred years. */
const MOST_DAYS = 36_525;

/** How many days dates and spans cover, one that is covered twice counted twice. */
const daysOf = (dates: readonly (string | readonly [string, string])[]) =>
  dates.reduce((sum, date) => {
    const [first, last] = typeof date === 'string' ? [date, date] : date;
    return sum + ((parseDate(last) ?? 0) - (parseDate(first) ?? 0)) + 1;
  }, 0);

/** Days that bookings name: only on these, or not on these. */
export const calendarSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  dates: z
    .array(
      z.union(
        [
          dateSchema,
          z.tuple([dateSchema, dateSchema]).refine(([a, b]) => a <= b, 'The first date comes before the last.'),
        ],
        'A calendar lists dates (YYYY-MM-DD) and pairs [first, last] in order.',
      ),
    )
    .max(4000, 'A calendar has at most 4000 dates and spans.')
    .refine(
      (dates) => daysOf(dates) <= MOST_DAYS,
      `A calendar covers at most ${MOST_DAYS} days. For longer, give the booking itself first and last dates.`,
    ),
  /** Whose public holidays the dates follow; the dates themselves are what counts. */
  holidays: holidaysSchema.optional(),
});

export type Calendar = z.infer<typeof calendarSchema>;

const MOST_SPOKEN = 6;

export const calendar = defineKind({
  kind: 'calendar',
  collection: 'calendars',
  noun: 'calendar',
  schema: calendarSchema,
  fields: {
    name: text('name'),
    dates: {
      label: 'dates',
      say: (dates) => {
        const words = dates.map((date) => (typeof date === 'string' ? date : date.join(' to ')));
        const more = words.length - MOST_SPOKEN;
        return words.length === 0
          ? 'none'
          : `${words.slice(0, MOST_SPOKEN).join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
      },
    },
    holidays: {
      label: 'public holidays',
      say: ({ country, region }) => (region === undefined ? country : `${country}-${region}`),
    },
  },
  nameScope: () => 'network',
});
