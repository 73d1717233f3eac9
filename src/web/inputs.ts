import * as z from 'zod';
import { KINDS, contentSchema, idSchema, selectorSchema, type Kind } from '@/core/plan';
import { zoneSchema } from '@/core/when';

/** The id of a row, as a browser sends it back. */
export const rowSchema = z.uuid('That doesn’t exist. Reload the page.');

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
    z.object({ kind: z.enum(Object.keys(KINDS) as Kind[], 'There’s no such kind of object.'), id: idSchema }),
    'A choice is a list of kinds and ids. Reload the page, then try again.',
  )
  .min(1, 'Choose at least one change.')
  .max(MOST_CHOSEN, `At most ${MOST_CHOSEN} changes at once. Choose fewer.`);

/** How the next edition is published. */
export const publishingSchema = z.object({ chosen: chosenSchema.optional(), note: z.string().optional() });

/** The number of a change that a person has seen. */
export const changeSchema = z.int('A change is a whole number.').min(0).max(Number.MAX_SAFE_INTEGER);

/** What a program calls a request that is to be done once. */
export const idempotencySchema = z
  .string()
  .regex(/^[\x21-\x7e]{1,200}$/, 'An idempotency key is 1 to 200 visible ASCII characters without blanks.')
  .optional();

/** An instant, in milliseconds since 1970. */
export const instantSchema = z
  .int('Write when, e.g. “tomorrow 06:00”.')
  .min(0)
  .max(8.64e15, 'That is too far ahead. Choose an earlier time.');

/** When an edition goes out: an instant, or what clocks at each site show then. */
export const goesOutSchema = z.union([instantSchema, z.object({ siteTime: z.string().max(40) })], {
  error: 'Give a time: an instant in milliseconds, or a siteTime like 2026-12-01T06:00:00.',
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
  until: z.int('Write until when, e.g. “1 hour” or “until 18:00”.').min(0).max(Number.MAX_SAFE_INTEGER),
  zone: zoneSchema,
  wake: z.boolean().optional(),
});

/** An edition's number, as a part of an address. */
export const editionNumberSchema = z.coerce
  .number('An edition is a number.')
  .int('An edition is a whole number.')
  .min(1, 'Editions begin with 1.')
  .max(2 ** 31 - 1, 'This edition doesn’t exist.');

/** Screens by their ids, as many as one page asks about. */
export const screensSchema = z.array(idSchema).max(200, 'At most 200 screens at once.');

/** Players that wait, and the screens that they are given. */
/** Where a player is to be: a screen's id, or "wall/2" for a display of a wall. */
export const placeSchema = z.string().max(84);

export const givenSchema = z
  .array(z.object({ waiting: rowSchema, screen: placeSchema }))
  .max(1000, 'At most 1,000 players at once.');

/** Codes that players show, and the screens that they are for. */
export const pairsSchema = z
  .array(z.object({ screen: placeSchema, code: z.string().max(40) }))
  .min(1, 'Write at least one code.')
  .max(1000, 'At most 1,000 codes at once.');
