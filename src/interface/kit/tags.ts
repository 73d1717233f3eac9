import { z } from 'zod';
import { tagsSchema } from '@/core';

/** Tags as one types them, separated by commas or spaces. */
export const tagsTextSchema = z
  .string()
  .transform((text) => text.split(/[\s,]+/).filter((tag) => tag !== ''))
  .pipe(tagsSchema);

export const tagsText = (tags: readonly string[] | undefined) => (tags ?? []).join(', ');
