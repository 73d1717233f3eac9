import * as z from 'zod';
import { idSchema, nameSchema, selectorSchema } from '@/core/plan';

/** That a cue is to be fired, or with `end` ended, as a page or a program says it. */
export const fireSchema = z.strictObject({
  cue: idSchema,
  /** Absent: on all screens that its bookings reach. */
  where: selectorSchema.optional(),
  end: z.boolean().optional(),
});

/** A button that is pressed, or whose end button is. */
export const pressSchema = z.strictObject({ button: idSchema, end: z.boolean().optional() });

/** A link to a board: for whom, or for which place. */
export const linkSchema = z.strictObject({ board: idSchema, name: nameSchema });
