import { z } from 'zod';
import { whenSchema } from '../../when/schema';
import { durationSchema, idSchema, instantSchema, nameSchema, pixelsSchema, tagsSchema } from '../fields';
import { defineKind } from '../kind';
import { duration, pixels, plain, tags, text, when } from '../say';

/** A picture or a film. Of its fields some are measured from the file, and stay. */
export const mediaSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(['image', 'video'], 'The kinds of media are image and video.'),
  width: pixelsSchema,
  height: pixelsSchema,
  bytes: z.int().min(0).max(1e15, 'A file has at most 1 000 000 GB.'),
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

export type Media = z.infer<typeof mediaSchema>;
export type MediaKind = Media['kind'];

export const media = defineKind({
  kind: 'media',
  collection: 'media',
  noun: 'media file',
  schema: mediaSchema,
  fields: {
    name: text('name'),
    tags,
    when: when('available'),
    durationMs: duration(),
    kind: plain('kind'),
    width: pixels('width'),
    height: pixels('height'),
    bytes: plain('bytes'),
    added: plain('added'),
    sha256: plain('SHA-256'),
    type: plain('type'),
  },
  // Cameras name files alike.
  nameScope: () => null,
  measured: ['kind', 'width', 'height', 'bytes', 'added', 'sha256', 'type'],
});
