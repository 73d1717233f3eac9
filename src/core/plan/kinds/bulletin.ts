import * as z from 'zod';
import { durationSchema, idSchema, nameSchema } from '../fields';
import { defineKind } from '../kind';
import { duration, plain, text } from '../say';

/** What players draw themselves. */
export const BULLETIN_KINDS = ['notice'] as const;

/** Content that is drawn on the screen in its own size. */
export const bulletinSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(BULLETIN_KINDS, `The kind of a bulletin is ${BULLETIN_KINDS.join(', ')}.`),
  text: z.string().max(4000, 'A notice has at most 4 000 characters.'),
  /** Its time as an item of a playlist, where the item says none. */
  durationMs: durationSchema.optional(),
});

export type Bulletin = z.infer<typeof bulletinSchema>;

export const bulletin = defineKind({
  kind: 'bulletin',
  collection: 'bulletins',
  noun: 'bulletin',
  schema: bulletinSchema,
  fields: { name: text('name'), kind: plain('kind'), text: text('text'), durationMs: duration() },
  nameScope: () => 'network',
});
