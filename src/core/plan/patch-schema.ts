import * as z from 'zod';
import { idField } from './references';
import { ALL_KINDS, isKind } from './registry';
import type { Kind } from './registry';

/** The form of patches that come over the wire. What their fields hold is checked when they are made of an object. */

const kind = z.custom<Kind>(isKind, `The kinds are ${ALL_KINDS.join(', ')}.`);
const id = idField();
const fields = z.record(z.string().max(40), z.unknown());
const place = z.union([id, z.null()]);

const entryPatchSchema = z.union([
  z.strictObject({ id, add: fields, after: place }),
  z.strictObject({ id, set: fields, was: fields.optional() }),
  z.strictObject({ id, after: place }),
  z.strictObject({ id, remove: z.literal(true), was: fields.optional() }),
]);

const patchSchema = z.union(
  [
    z.strictObject({ kind, id: id.optional(), add: fields }),
    z.strictObject({
      kind,
      id,
      set: fields,
      was: fields.optional(),
      entries: z.record(z.string(), z.array(entryPatchSchema)).optional(),
    }),
    z.strictObject({ kind, id, remove: z.literal(true), was: fields.optional() }),
  ],
  'This isn’t a change of a plan. Reload the page, then try again.',
);

/** At most so many at once: a plan file is read by its own way in. */
const MOST = 5000;

export const patchesSchema = z
  .array(patchSchema, 'Changes of a plan are a list. Reload the page, then try again.')
  .min(1, 'There’s nothing to change here.')
  .max(MOST, `At most ${MOST} changes at once. Send them in parts.`);
