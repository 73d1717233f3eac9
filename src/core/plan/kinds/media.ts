import * as z from 'zod';
import { whenSchema } from '../../when/schema';
import { durationSchema, idSchema, instantSchema, nameSchema, pixelsSchema, tagsSchema } from '../fields';
import { defineKind } from '../kind';
import { duration, pixels, plain, tags, text, when, yesNo } from '../say';

const part = z
  .number('A focus is two numbers from 0 to 1.')
  .min(0, 'A focus lies in the picture: from 0, at its left or its top.')
  .max(1, 'A focus lies in the picture: up to 1, at its right or its bottom.');

/** A picture, a film or a sound. Of its fields some are measured from the file, and stay. */
const fields = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(['image', 'video', 'sound'], 'The kinds of media are image, video and sound.'),
  width: pixelsSchema.optional(),
  height: pixelsSchema.optional(),
  /** The point that stays visible when the picture is cropped to fill a screen: from its left, and from its top, 0 to 1. */
  focus: z.tuple([part, part]).optional(),
  /** A film that has sound. */
  audio: z.boolean().optional(),
  bytes: z.int().min(0).max(1e15, 'A file has at most 1 000 000 GB.'),
  durationMs: durationSchema.optional(),
  tags: tagsSchema.optional(),
  added: instantSchema,
  when: whenSchema.optional(),
  /** Kept, but shown nowhere, collected by no rule and offered nowhere. */
  archived: z.boolean().optional(),
  sha256: z
    .string()
    .regex(/^[0-9a-f]{64}$/, 'A SHA-256 has 64 digits 0-9 and a-f.')
    .optional(),
  /** How a video is written, as players get it; absent: not known. */
  codec: z
    .string()
    .regex(/^[a-z0-9]{2,20}$/, 'A codec has a short name such as h264.')
    .optional(),
  type: z
    .string()
    .regex(/^[a-z]+\/[a-z0-9.+-]+$/, 'A type is a media type such as image/png.')
    .optional(),
});

export const mediaSchema = fields.superRefine(({ kind, width, height, durationMs, focus, codec }, context) => {
  const wrong = (path: string, message: string) => context.addIssue({ code: 'custom', path: [path], message });
  if (kind !== 'sound') {
    for (const [field, size] of Object.entries({ width, height }))
      if (size === undefined) wrong(field, `A picture or video has a ${field}.`);
    return;
  }
  for (const [field, value] of Object.entries({ width, height, focus, codec }))
    if (value !== undefined) wrong(field, `A sound has no ${field}. Remove it.`);
  if (durationMs === undefined) wrong('durationMs', 'A sound has a duration.');
});

export type Media = z.infer<typeof mediaSchema>;
export type MediaKind = Media['kind'];

/** What is seen: a picture or a film. */
export type ShownMedia = Media & { readonly kind: 'image' | 'video'; readonly width: number; readonly height: number };

const hundredths = (part: number) => `${Math.round(part * 100)} %`;

export const media = defineKind({
  kind: 'media',
  collection: 'media',
  noun: 'media file',
  schema: mediaSchema,
  fields: {
    name: text('name'),
    tags,
    when: when('available'),
    archived: yesNo('archived'),
    durationMs: duration(),
    focus: { label: 'focus', say: ([x, y]: readonly [number, number]) => `${hundredths(x)} × ${hundredths(y)}` },
    kind: plain('kind'),
    audio: yesNo('has sound'),
    width: pixels('width'),
    height: pixels('height'),
    bytes: plain('bytes'),
    added: plain('added'),
    // A hash means nothing to people, so a change only says that the file was replaced.
    sha256: { label: 'file', say: (hash: string) => `version ${hash.slice(0, 6)}`, became: () => 'file replaced' },
    type: plain('type'),
    codec: plain('codec'),
  },
  // Cameras name files alike.
  nameScope: () => null,
  measured: ['kind', 'audio', 'width', 'height', 'bytes', 'added', 'sha256', 'type', 'codec'],
});
