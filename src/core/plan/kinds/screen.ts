import * as z from 'zod';
import { whenSchema } from '../../when/schema';
import { contentSchema } from '../content-schema';
import { idSchema, nameSchema, pixelsSchema, tagsSchema } from '../fields';
import { defineKind } from '../kind';
import { reference } from '../references';
import { content, pixels, tags, text, whenWords } from '../say';

/** A display at a site: its size, its tags, and the hours in which it is off. */
export const screenSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  site: reference('site'),
  width: pixelsSchema,
  height: pixelsSchema,
  tags: tagsSchema.optional(),
  backdrop: contentSchema.optional(),
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
    tags,
    backdrop: content('backdrop'),
    lightsOut: {
      label: 'lights-out',
      say: (list, names) => list.map((one) => whenWords(one, names)).join('; ') || 'never',
    },
  },
  nameScope: (document) => document.site,
});
