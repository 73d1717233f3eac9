import { z } from 'zod';
import { KINDS, contentSchema, idSchema, selectorSchema, zoneSchema, type Kind } from '@/core';

/** The id of a row, as a browser sends it back. */
export const rowSchema = z.uuid('There is no such thing: load the page anew.');

/** Which files of the library are asked for, in a query. */
export const mediaFilters = {
  search: z.string().max(500, 'A search has at most 500 characters.').default(''),
  kind: z.enum(['image', 'video', 'sound'], 'The kinds of media are image, video and sound.').nullable().default(null),
  audible: z.stringbool().default(false),
  unused: z.stringbool().default(false),
  ending: z.stringbool().default(false),
  small: z.stringbool().default(false),
  archived: z.stringbool().default(false),
};

/** So many fit into one request; a plan is hardly larger. */
const MOST_CHOSEN = 10_000;

/** Which objects of the plan are meant. */
export const chosenSchema = z
  .array(
    z.object({ kind: z.enum(Object.keys(KINDS) as Kind[], 'There is no such kind of thing.'), id: idSchema }),
    'A choice is a list of kinds and ids: load the page anew, then try again.',
  )
  .min(1, 'Choose at least one change.')
  .max(MOST_CHOSEN, `At most ${MOST_CHOSEN} changes at once: choose fewer.`);

/** How the next edition is published. */
export const publishingSchema = z.object({ chosen: chosenSchema.optional(), note: z.string().optional() });

/** The number of a change that somebody has seen. */
export const changeSchema = z.int('A change is a whole number.').min(0).max(Number.MAX_SAFE_INTEGER);

/** What a program calls a request that is to be done once. */
export const idempotencySchema = z
  .string()
  .regex(/^[\x21-\x7e]{1,200}$/, 'An idempotency key is 1 to 200 visible ASCII characters without blanks.')
  .optional();

/** An instant, in milliseconds since 1970. */
export const instantSchema = z
  .int('Say when: as "tomorrow 06:00".')
  .min(0)
  .max(8.64e15, 'No calendar goes that far: say an earlier moment.');

/** When an edition goes out: an instant, or what clocks at each site show then. */
export const goesOutSchema = z.union([instantSchema, z.object({ siteTime: z.string().max(40) })], {
  error: 'Say when: an instant in milliseconds, or a siteTime as 2026-12-01T06:00:00.',
});

/** On which screens an edition is tried first, and after how many minutes, or at which instant, the others get it; null waits for a person. */
export const pilotingSchema = z.object({
  where: selectorSchema,
  minutes: z
    .int('Write whole minutes.')
    .min(1, 'At least a minute.')
    .max(1440, 'At most a day: 1440 minutes.')
    .nullable(),
  at: instantSchema.nullish(),
});

/** What is put on at once, where, and until when. */
export const putOnSchema = z.object({
  content: contentSchema,
  where: selectorSchema,
  until: z.int('Say until when: as "1 hour", or "until 18:00".').min(0).max(Number.MAX_SAFE_INTEGER),
  zone: zoneSchema,
});

/** An edition's number, as a part of an address. */
export const editionNumberSchema = z.coerce
  .number('An edition is a number.')
  .int('An edition is a whole number.')
  .min(1, 'Editions begin with 1.')
  .max(2 ** 31 - 1, 'There is no such edition.');
