import * as z from 'zod';
import { CONTENTS, CONTENT_KINDS, type Content, type ContentKind } from './contents';
import { durationSchema } from './fields';
import { idField, reference } from './references';

/** New schemas of the fields by which an object names a content, one for each kind. The plan has no list of inputs: profiles name them. */
export const contentFields = () =>
  Object.fromEntries(
    CONTENT_KINDS.map((kind) => [kind, (kind === 'input' ? idField() : reference(kind)).optional()]),
  ) as Record<ContentKind, z.ZodOptional<ReturnType<typeof reference>>>;

/** Reports a duration beside a content of which the duration comes from what is in it. */
export function checkTimed(
  one: { readonly [K in ContentKind]?: string | undefined } & { readonly durationMs?: number | undefined },
  context: z.RefinementCtx,
): void {
  for (const kind of CONTENT_KINDS)
    if (one[kind] !== undefined && one.durationMs !== undefined && !CONTENTS[kind].timed)
      context.addIssue({
        code: 'custom',
        path: ['durationMs'],
        message: `A ${CONTENTS[kind].called}’s duration comes from its items. Remove this one.`,
      });
}

export const contentSchema = z
  .strictObject({ ...contentFields(), durationMs: durationSchema.optional() })
  .superRefine((content, context) => {
    if (CONTENT_KINDS.filter((kind) => content[kind] !== undefined).length !== 1)
      context.addIssue({
        code: 'custom',
        message: `Name one content: ${CONTENT_KINDS.map((kind) => `“${kind}”`).join(' or ')}.`,
      });
    checkTimed(content, context);
  })
  .transform((content) => content as Content);
