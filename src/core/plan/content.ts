import * as z from 'zod';
import { durationSchema } from './fields';
import { reference } from './references';

/** What is shown (domain section 1): one file, or a playlist. */
export type Content =
  | { readonly media: string; readonly durationMs?: number | undefined; readonly playlist?: undefined }
  | { readonly playlist: string; readonly media?: undefined; readonly durationMs?: undefined };

export const contentSchema = z
  .strictObject({
    media: reference('media').optional(),
    playlist: reference('playlist').optional(),
    durationMs: durationSchema.optional(),
  })
  .superRefine((content, context) => {
    if ((content.media === undefined) === (content.playlist === undefined))
      context.addIssue({ code: 'custom', message: 'Name one content: either "media" or "playlist".' });
    if (content.playlist !== undefined && content.durationMs !== undefined)
      context.addIssue({
        code: 'custom',
        path: ['durationMs'],
        message: 'A playlist’s duration comes from its items. Remove this one.',
      });
  })
  .transform((content) => content as Content);
