import * as z from 'zod';
import { contentSchema } from '../content-schema';
import { durationSchema, nameSchema } from '../fields';
import { defineKind } from '../kind';
import { content, duration, plain, text } from '../say';

/** What holds for the whole network. There is one: its id is "network", and no document carries it. */
export const networkSchema = z.strictObject({
  name: nameSchema,
  defaultDurationMs: durationSchema.optional(),
  backdrop: contentSchema.optional(),
  /** What a display shows in place of an input that it doesn't have: its backdrop, and in a zone nothing. Absent: a card that says so. */
  withoutInput: z.literal('backdrop', 'In place of an input there is a card, or the “backdrop”.').optional(),
});

export type Network = z.infer<typeof networkSchema>;

export const network = defineKind({
  kind: 'network',
  collection: null,
  noun: 'network',
  schema: networkSchema,
  fields: {
    name: text('name'),
    defaultDurationMs: duration('usual duration'),
    backdrop: content('backdrop'),
    withoutInput: plain('where an input is missing'),
  },
  nameScope: () => null,
});
