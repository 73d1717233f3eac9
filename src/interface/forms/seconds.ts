import * as z from 'zod';
import { readDuration } from '@/core/plan';

/** A duration in a field, within what a schema of milliseconds allows; empty for none. Errors are shown at the field. */
export const durationTextSchema = (
  allowed: z.ZodType<number>,
  unread = 'This isn’t a duration. Write it like 30 s or 10 min.',
) =>
  z.string().transform((text, context): number | undefined => {
    if (text.trim() === '') return undefined;
    const read = readDuration(text);
    const checked = read.ok ? allowed.safeParse(read.value) : null;
    if (checked?.success) return checked.data;
    context.addIssue({ code: 'custom', message: checked?.error?.issues[0]?.message ?? unread });
    return z.NEVER;
  });

/** A field for how long something shows, in milliseconds; empty for no duration of its own. Errors are shown at the field. */
export const secondsTextSchema = z.string().transform((text, context): number | undefined => {
  if (text.trim() === '') return undefined;
  const read = readDuration(text);
  if (read.ok) return read.value;
  context.addIssue({ code: 'custom', message: read.message });
  return z.NEVER;
});
