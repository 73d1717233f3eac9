import * as z from 'zod';
import { readDuration } from '@/core/plan';

/** A field for how long something shows, in milliseconds; empty for no duration of its own. Errors are shown at the field. */
export const secondsTextSchema = z.string().transform((text, context): number | undefined => {
  if (text.trim() === '') return undefined;
  const read = readDuration(text);
  if (read.ok) return read.value;
  context.addIssue({ code: 'custom', message: read.message });
  return z.NEVER;
});
