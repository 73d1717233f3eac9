import { newEntryId, type Item, type Media } from '@/core/plan';

/** Files as new items of a playlist. */
export const itemsOf = (files: readonly Media[]): Item[] =>
  files.map(({ id }) => ({ id: newEntryId(Math.random), media: id }));
