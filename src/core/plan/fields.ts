import * as z from 'zod';
import { parseInstant } from '../instant';
import { isTag, parseSelector } from '../selector';
import { graphemes, isOneLine, isSeen, isSound, trimmed } from '../text';
import { idField } from './references';

/** Fields that several kinds of plan objects have. */

export const idSchema = idField();

/** Bytes of UTF-8 that one character of a text may be made of on average: a flag or a family is made of many. */
const BYTES = 40;
/** The same of a name as a whole: an index of the database has to hold it. */
const BYTES_OF_NAME = 2520;
const encoder = new TextEncoder();

/**
 * A line of text, trimmed, of at most so many characters as people count them, of characters that can be kept and sent: for what
 * people call things, and for what devices tell. `what` begins the sentences; `bytes` bounds it in UTF-8.
 */
export const lineSchema = (what: string, most: number, bytes = most * BYTES) =>
  z
    .string()
    .overwrite(trimmed)
    .refine(isSound, { error: `${what} contains a character that can’t be stored. Please type it again.`, abort: true })
    .refine(isOneLine, `${what} must be one line. Remove line breaks and control characters.`)
    .refine((text) => text.length <= most || text.length > bytes || graphemes(text) <= most, {
      error: `${what} has at most ${most} characters.`,
      abort: true,
    })
    .refine(
      (text) => text.length <= most || encoder.encode(text).length <= bytes,
      `${what} is too long. Remove accents and composed characters.`,
    );

export const MOST_OF_NAME = 120;

export const nameSchema = lineSchema('A name', MOST_OF_NAME, BYTES_OF_NAME).refine(isSeen, 'Write a name.');

export const tagSchema = z
  .string()
  .max(80, 'A tag has at most 80 characters.')
  .refine(
    isTag,
    'A tag has letters, digits, “-” and “_”, and one “:” between two parts at most. It can’t be and, or, not, or all.',
  )
  .transform((tag) => tag.toLowerCase());

export const tagsSchema = z
  .array(tagSchema)
  .max(100, 'You can set at most 100 tags.')
  .transform((tags) => [...new Set(tags)]);

export const instantSchema = z
  .string()
  .refine((text) => parseInstant(text) !== null, 'Write an instant like 2026-11-03T10:00:00Z.');

export const durationSchema = z
  .int('A duration is a whole number of milliseconds.')
  .min(100, 'A duration is at least 100 milliseconds.')
  .max(86_400_000, 'A duration is at most 24 hours.');

export const MOST_OF_SELECTOR = 2000;

export const selectorSchema = z.string().superRefine((text, context) => {
  if (text.length > MOST_OF_SELECTOR)
    return context.addIssue({
      code: 'custom',
      message: `A selector has at most ${MOST_OF_SELECTOR} characters. Give the screens a tag, and use that.`,
    });
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
