import type * as z from 'zod';
import { pointer, problemsOf } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { unsoundPlace } from '@/core/text';

/** Reads input by a schema; throws a 422 with every problem. What no database keeps is refused wherever it stands. */
export function readInput<T>(schema: z.ZodType<T>, input: unknown): T {
  const unsound = unsoundPlace(input);
  if (unsound) {
    const message = 'This text contains a character that can’t be stored. Please type it again.';
    throw new Refusal(422, message, [{ path: pointer(unsound), message }]);
  }
  const result = schema.safeParse(input);
  if (result.success) return result.data;
  const problems = problemsOf(result.error);
  throw new Refusal(422, problems[0]?.message ?? 'This input is not valid.', problems);
}
