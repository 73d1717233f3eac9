import { z } from 'zod';
import { readDuration } from '@/core';

/** A field for how long something shows, in milliseconds; empty is none of its own. What is refused is told at the field. */
export const secondsTextSchema = z.string().transform((text, context): number | undefined => {
  if (text.trim() === '') return undefined;
  const read = readDuration(text);
  if (read.ok) return read.value;
  context.addIssue({ code: 'custom', message: read.message });
  return z.NEVER;
});
