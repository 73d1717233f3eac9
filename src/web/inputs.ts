import { z } from 'zod';

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
