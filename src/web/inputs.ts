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

/** What is put on at once, where, and until when. */
export const putOnSchema = z.object({
  content: contentSchema,
  where: selectorSchema,
  until: z.int('Say until when: as "1 hour", or "until 18:00".').min(0).max(Number.MAX_SAFE_INTEGER),
  zone: zoneSchema,
});
