import { z } from 'zod';
import { parseInstant } from '../instant';
import { isTag, parseSelector } from '../selector';
import { parseDate } from '../when/dates';
import { parseRule } from '../when/rule';
import { parseClock, parseEdge } from '../when/windows';
import { isZone } from '../when/zone';

/** The plan file, format version 1: docs/plan-format.md. Every type of the plan is inferred from here. */

const WEEKDAY_KEYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;

export const idSchema = z
  .string()
  .max(80, 'An id has at most 80 characters.')
  .regex(/^[a-z0-9][a-z0-9_-]*$/, 'An id is made of a-z, 0-9, "-" and "_", and begins with a letter or digit.');

export const nameSchema = z.string().trim().min(1, 'Write a name.').max(120, 'A name has at most 120 characters.');

export const tagSchema = z
  .string()
  .max(80, 'A tag has at most 80 characters.')
  .refine(
    isTag,
    'A tag is made of letters, digits, "-" and "_" (one ":" may stand between two parts), and is none of the words and, or, not, all.',
  )
  .transform((tag) => tag.toLowerCase());

export const tagsSchema = z.array(tagSchema).transform((tags) => [...new Set(tags)]);

export const dateSchema = z
  .string()
  .refine((text) => parseDate(text) !== null, 'Write a date that exists as YYYY-MM-DD.');

const instantSchema = z
  .string()
  .refine((text) => parseInstant(text) !== null, 'Write an instant as 2026-11-03T10:00:00Z.');

export const durationSchema = z
  .int('A duration is a whole number of milliseconds.')
  .min(100, 'A duration is at least 100 milliseconds.')
  .max(86_400_000, 'A duration is at most 24 hours.');

export const zoneSchema = z.string().refine(isZone, 'This time zone is unknown: use an IANA name such as Europe/Oslo.');

export const selectorSchema = z.string().superRefine((text, context) => {
  const result = parseSelector(text);
  if ('error' in result)
    context.addIssue({ code: 'custom', message: `${result.error} (at character ${result.at + 1})` });
});

const ruleSchema = z.string().superRefine((text, context) => {
  const result = parseRule(text);
  if ('error' in result) context.addIssue({ code: 'custom', message: result.error });
});

const START = 'A window starts at HH:MM or HH:MM:SS, or at "opens" or "closes" with an offset such as closes-00:30.';
const END = 'A window ends at HH:MM, HH:MM:SS or 24:00, or at "opens" or "closes" with an offset such as closes-00:30.';

export const windowSchema = z.tuple([
  z.string().refine((text) => parseEdge(text, false) !== null, START),
  z.string().refine((text) => parseEdge(text, true) !== null, END),
]);

export const whenSchema = z
  .strictObject({
    clock: z
      .union([z.literal('site'), zoneSchema], 'The clock is "site" or an IANA zone such as Europe/Oslo.')
      .optional(),
    from: dateSchema.optional(),
    to: dateSchema.optional(),
    repeat: ruleSchema.optional(),
    also: z.array(dateSchema).optional(),
    except: z.array(dateSchema).optional(),
    only: z.array(idSchema).optional(),
    not: z.array(idSchema).optional(),
    windows: z.array(windowSchema).optional(),
  })
  .superRefine((when, context) => {
    if (when.repeat !== undefined && when.from === undefined)
      context.addIssue({ code: 'custom', path: ['from'], message: 'A repeat starts at "from": give its first date.' });
    if (when.clock === undefined || when.clock === 'site') return;
    (when.windows ?? []).forEach((window, i) =>
      window.forEach((edge, side) => {
        if (/^(opens|closes)/.test(edge))
          context.addIssue({
            code: 'custom',
            path: ['windows', i, side],
            message: `"${edge}" is read on the site's clock: take the named clock away, or write a time.`,
          });
      }),
    );
  });

export const contentSchema = z
  .strictObject({ media: idSchema.optional(), playlist: idSchema.optional(), durationMs: durationSchema.optional() })
  .superRefine((content, context) => {
    if ((content.media === undefined) === (content.playlist === undefined))
      context.addIssue({ code: 'custom', message: 'Name one content: either "media" or "playlist".' });
    if (content.playlist !== undefined && content.durationMs !== undefined)
      context.addIssue({
        code: 'custom',
        path: ['durationMs'],
        message: 'A playlist has the durations of its items: remove this one.',
      });
  })
  .transform((content) => content as Content);

/** What is shown: one file, or a playlist. */
export type Content =
  | { readonly media: string; readonly durationMs?: number | undefined; readonly playlist?: undefined }
  | { readonly playlist: string; readonly media?: undefined; readonly durationMs?: undefined };

const openingSchema = z.tuple([
  z.string().refine((text) => parseClock(text) !== null, 'Opening is written HH:MM.'),
  z.string().refine((text) => text === '24:00' || parseClock(text) !== null, 'Closing is written HH:MM, or 24:00.'),
]);

export const hoursSchema = z.strictObject({
  weekly: z.partialRecord(z.enum(WEEKDAY_KEYS), z.array(openingSchema)).optional(),
  dates: z.record(dateSchema, z.array(openingSchema)).optional(),
});

export const networkSchema = z.strictObject({
  name: nameSchema,
  defaultDurationMs: durationSchema.optional(),
  backdrop: contentSchema.optional(),
});

const holidaysSchema = z.strictObject({
  country: z.string().regex(/^[A-Z]{2}$/, 'A country is written by two capital letters (ISO 3166-1), as NO.'),
  region: z
    .string()
    .regex(/^[A-Z0-9-]{1,10}$/, 'A region is written as in ISO 3166-2, without the country.')
    .optional(),
});

export const calendarSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  dates: z.array(
    z.union(
      [
        dateSchema,
        z.tuple([dateSchema, dateSchema]).refine(([a, b]) => a <= b, 'The first date comes before the last.'),
      ],
      'A calendar lists dates (YYYY-MM-DD) and pairs [first, last] in order.',
    ),
  ),
  /** Whose public holidays the dates follow; the dates themselves are what counts. */
  holidays: holidaysSchema.optional(),
});

export const siteSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  timeZone: zoneSchema,
  tags: tagsSchema.optional(),
  location: z
    .strictObject({ latitude: z.number().min(-90).max(90), longitude: z.number().min(-180).max(180) })
    .optional(),
  hours: hoursSchema.optional(),
  backdrop: contentSchema.optional(),
});

const pixels = z
  .int('A size is a whole number of pixels.')
  .min(1, 'A size is at least 1 pixel.')
  .max(32_768, 'A size is at most 32 768 pixels.');

export const screenSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  site: idSchema,
  width: pixels,
  height: pixels,
  tags: tagsSchema.optional(),
  backdrop: contentSchema.optional(),
  lightsOut: z.array(whenSchema).optional(),
});

export const mediaSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(['image', 'video'], 'The kinds of media are image and video.'),
  width: pixels,
  height: pixels,
  bytes: z.int().min(0),
  durationMs: durationSchema.optional(),
  tags: tagsSchema.optional(),
  added: instantSchema,
  when: whenSchema.optional(),
  sha256: z
    .string()
    .regex(/^[0-9a-f]{64}$/, 'A SHA-256 has 64 digits 0-9 and a-f.')
    .optional(),
  type: z
    .string()
    .regex(/^[a-z]+\/[a-z0-9.+-]+$/, 'A type is a media type such as image/png.')
    .optional(),
});

export const itemSchema = z
  .strictObject({
    media: idSchema.optional(),
    playlist: idSchema.optional(),
    collect: selectorSchema.optional(),
    order: z.enum(['name', 'newest', 'oldest'], 'The order is name, newest or oldest.').optional(),
    limit: z.int().min(1, 'The limit is at least 1.').optional(),
    durationMs: durationSchema.optional(),
    where: selectorSchema.optional(),
    when: whenSchema.optional(),
  })
  .superRefine((item, context) => {
    const named = [item.media, item.playlist, item.collect].filter((value) => value !== undefined);
    if (named.length !== 1)
      context.addIssue({ code: 'custom', message: 'An item names one of "media", "playlist" and "collect".' });
    if (item.collect === undefined)
      for (const field of ['order', 'limit'] as const)
        if (item[field] !== undefined)
          context.addIssue({
            code: 'custom',
            path: [field],
            message: `"${field}" belongs to a collecting rule: remove it.`,
          });
    if (item.playlist !== undefined && item.durationMs !== undefined)
      context.addIssue({
        code: 'custom',
        path: ['durationMs'],
        message: 'A playlist has the durations of its items: remove this one.',
      });
  })
  .transform((item) => item as Item);

interface ItemConditions {
  readonly where?: string | undefined;
  readonly when?: When | undefined;
}

/** An entry of a playlist: a file, a nested playlist, or a collecting rule over media. */
export type Item = ItemConditions &
  (
    | {
        readonly media: string;
        readonly durationMs?: number | undefined;
        readonly playlist?: undefined;
        readonly collect?: undefined;
      }
    | {
        readonly playlist: string;
        readonly media?: undefined;
        readonly collect?: undefined;
        readonly durationMs?: undefined;
      }
    | {
        readonly collect: string;
        readonly order?: 'name' | 'newest' | 'oldest' | undefined;
        readonly limit?: number | undefined;
        readonly durationMs?: number | undefined;
        readonly media?: undefined;
        readonly playlist?: undefined;
      }
  );

export const playlistSchema = z.strictObject({ id: idSchema, name: nameSchema, items: z.array(itemSchema) });

export const bookingSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  content: contentSchema,
  where: selectorSchema,
  priority: z
    .int('A priority is a whole number from 1 to 5.')
    .min(1, 'A priority is 1 to 5.')
    .max(5, 'A priority is 1 to 5.')
    .default(3),
  takeover: z.boolean().optional(),
  wake: z.boolean().optional(),
  onHold: z.boolean().optional(),
  created: instantSchema,
  when: whenSchema.default({}),
});

export const planSchema = z.strictObject({
  format: z.literal('lanternpost/plan', 'This is no plan file: "format" must be "lanternpost/plan".'),
  version: z.literal(1, 'This plan file is of another version: only version 1 can be read.'),
  network: networkSchema,
  calendars: z.array(calendarSchema).default([]),
  sites: z.array(siteSchema).default([]),
  screens: z.array(screenSchema).default([]),
  media: z.array(mediaSchema).default([]),
  playlists: z.array(playlistSchema).default([]),
  bookings: z.array(bookingSchema).default([]),
});

export type When = z.infer<typeof whenSchema>;
export type OpeningHours = z.infer<typeof hoursSchema>;
export type Network = z.infer<typeof networkSchema>;
export type Calendar = z.infer<typeof calendarSchema>;
export type Site = z.infer<typeof siteSchema>;
export type Screen = z.infer<typeof screenSchema>;
export type Media = z.infer<typeof mediaSchema>;
export type Playlist = z.infer<typeof playlistSchema>;
export type Booking = z.infer<typeof bookingSchema>;
export type Plan = z.infer<typeof planSchema>;

/**
 * The plan file as a JSON Schema (draft 2020-12): its form. What only shows between parts (dangling ids, a playlist in itself), and
 * what is more than form (a rule, a zone, a selector), `readPlan` alone can tell.
 */
export function planJsonSchema(): object {
  return { title: 'Lanternpost plan file', ...z.toJSONSchema(planSchema, { io: 'input', unrepresentable: 'any' }) };
}
