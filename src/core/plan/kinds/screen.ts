import * as z from 'zod';
import { whenSchema } from '../../when/schema';
import { contentSchema } from '../content-schema';
import { idSchema, nameSchema, pixelsSchema, tagsSchema } from '../fields';
import { defineKind } from '../kind';
import { reference } from '../references';
import { content, durationWords, pixels, tags, text, whenWords, yesNo } from '../say';

const MM = 'Write millimetres, like 1210.';
const millimetres = (least: number) =>
  z.number(MM).min(least, MM).max(20_000, 'A display is at most 20 000 mm wide and high.');

/** Several displays that show one picture: how many, and how large each is without its frame. */
const wallSchema = z
  .strictObject({
    rows: z
      .int('Write a whole number of rows.')
      .min(1, 'A wall has 1 row at least.')
      .max(10, 'A wall has at most 10 rows.'),
    columns: z
      .int('Write a whole number of columns.')
      .min(1, 'A wall has 1 column at least.')
      .max(10, 'A wall has at most 10 columns.'),
    widthMm: millimetres(10),
    heightMm: millimetres(10),
    /** From one picture to the next: both frames, and the gap between them. */
    betweenMm: z.number(MM).min(0, MM).max(500, 'Between two displays are at most 500 mm.'),
  })
  .refine(({ rows, columns }) => rows * columns > 1, 'A wall has 2 displays at least.');

/** A display at a site: its size, its tags, the hours in which it is off, and who may see pictures of it. */
export const screenSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  site: reference('site'),
  width: pixelsSchema,
  height: pixelsSchema,
  /** What its kind of display can do; absent: not known. */
  profile: reference('profile').optional(),
  /** It is made of several displays, each with a player of its own. `width` and `height` are those of the whole picture. */
  wall: wallSchema.optional(),
  tags: tagsSchema.optional(),
  backdrop: contentSchema.optional(),
  /** What people should know of it: how it is mounted, whom to call. */
  notes: z.string().trim().max(2000, 'Notes have at most 2000 characters.').optional(),
  /** No pictures are taken of it. */
  private: z.boolean().optional(),
  /** Its player takes a picture of it so often; absent: only when a person asks for one. */
  glimpseMinutes: z
    .int('Write whole minutes.')
    .min(1, 'Pictures are taken every minute at most.')
    .max(1440, 'Pictures are taken every 1440 minutes (a day) at least.')
    .optional(),
  /** The number keys of its remote control or keyboard fire nothing. */
  keysOff: z.boolean().optional(),
  /** The arrow keys step through what plays; after so long without one it goes on by the clock. Absent: they do nothing. */
  stepRestMs: z
    .int('Write whole milliseconds.')
    .min(1000, 'It goes on after a second at least.')
    .max(3_600_000, 'It goes on after an hour at most.')
    .optional(),
  lightsOut: z.array(whenSchema).max(50, 'A screen has at most 50 lights-out times.').optional(),
});

export type Screen = z.infer<typeof screenSchema>;

export const screen = defineKind({
  kind: 'screen',
  collection: 'screens',
  noun: 'screen',
  schema: screenSchema,
  fields: {
    name: text('name'),
    site: { label: 'site', say: (id, names) => `“${names('site', id)}”` },
    width: pixels('width'),
    height: pixels('height'),
    profile: { label: 'profile', say: (id, names) => `“${names('profile', id)}”` },
    wall: {
      label: 'wall',
      say: ({ rows, columns, widthMm, heightMm, betweenMm }) =>
        `${rows} × ${columns} displays of ${widthMm} × ${heightMm} mm, ${betweenMm} mm between them`,
    },
    tags,
    backdrop: content('backdrop'),
    notes: text('notes'),
    private: yesNo('private'),
    glimpseMinutes: { label: 'pictures of it', say: (minutes) => `every ${minutes} min` },
    keysOff: yesNo('number keys off'),
    stepRestMs: { label: 'arrow keys step, and it goes on after', say: durationWords },
    lightsOut: {
      label: 'lights-out',
      say: (list, names) => list.map((one) => whenWords(one, names)).join('; ') || 'never',
    },
  },
  nameScope: (document) => document.site,
});
