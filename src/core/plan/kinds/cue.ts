import * as z from 'zod';
import { idSchema, nameSchema } from '../fields';
import { defineKind } from '../kind';
import { durationWords, plain, text } from '../say';

/** How late a firing may come to a player and still count, where the cue doesn't say. */
export const LATE_MS = 60_000;

/** Something that people, keys, touches or programs fire, and that bookings wait for. */
export const cueSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  /** The number key of a remote control or keyboard that fires it, on that screen alone. */
  key: z.int('A key is a whole number.').min(0, 'A key is 0 to 9.').max(9, 'A key is 0 to 9.').optional(),
  /** A firing that comes to a player later than this is dropped. */
  lateMs: z
    .int('Write whole milliseconds.')
    .min(1000, 'A firing may come at least a second late.')
    .max(86_400_000, 'A firing may come at most a day late.')
    .optional(),
});

export type Cue = z.infer<typeof cueSchema>;

export const cue = defineKind({
  kind: 'cue',
  collection: 'cues',
  noun: 'cue',
  schema: cueSchema,
  fields: {
    name: text('name'),
    key: plain('key'),
    lateMs: { label: 'counts if it comes within', say: durationWords },
  },
  nameScope: () => 'network',
});
