import { z } from 'zod';
import { parseInstant } from '../instant';
import { isTag, parseSelector } from '../selector';
import { idField } from './references';

/** Fields that several kinds of plan objects have. */

export const idSchema = idField();

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

export const instantSchema = z
  .string()
  .refine((text) => parseInstant(text) !== null, 'Write an instant as 2026-11-03T10:00:00Z.');

export const durationSchema = z
  .int('A duration is a whole number of milliseconds.')
  .min(100, 'A duration is at least 100 milliseconds.')
  .max(86_400_000, 'A duration is at most 24 hours.');

export const selectorSchema = z.string().superRefine((text, context) => {
  const result = parseSelector(text);
  if (result.ok) return;
  const at = result.problems[0]?.at ?? 0;
  context.addIssue({ code: 'custom', message: `${result.message} (at character ${at + 1})` });
});

/** A width or height. */
export const pixelsSchema = z
  .int('A size is a whole number of pixels.')
  .min(1, 'A size is at least 1 pixel.')
  .max(32_768, 'A size is at most 32 768 pixels.');
