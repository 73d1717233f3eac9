import * as z from 'zod';
import { idSchema, instantSchema, selectorSchema } from '../plan/fields';
import { pointer } from '../plan/read';
import { done, refused, type Result } from '../refusal';

/** That a cue was fired, or with `end` ended, and on which screens: a fact, kept beside the plan (domain section 11). */
export const firingSchema = z.strictObject({
  cue: idSchema,
  at: instantSchema,
  /** Absent: on all screens that its bookings reach. */
  where: selectorSchema.optional(),
  /** It ends what was fired, in place of firing. */
  end: z.literal(true).optional(),
});

export type Firing = z.infer<typeof firingSchema>;

/** A firing as the server knows it: by whom or what, and whether it is a local choice, made by a number key at the screen. */
export interface KnownFiring extends Firing {
  readonly by?: string | undefined;
  readonly isLocal?: true | undefined;
}

const listSchema = z.array(firingSchema).max(10_000, 'Give at most 10 000 firings.');

/** A JSON list of firings, checked; each problem with its place below `path`. */
export function readFirings(list: unknown, path: readonly string[] = []): Result<readonly Firing[]> {
  const read = listSchema.safeParse(list);
  if (read.success) return done(read.data);
  return refused(
    read.error.issues.map((issue) => ({ path: pointer([...path, ...issue.path]), message: issue.message })),
  );
}
