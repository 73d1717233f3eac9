import * as z from 'zod';
import { contentSchema } from '../plan/content-schema';
import { idSchema, nameSchema } from '../plan/fields';
import { defineKind } from '../plan/kind';
import { contentWords, text } from '../plan/say';
import type { Content } from '../plan/contents';

/** A kind that the product does not have: an easel of panes, each with a content. Tests add it, to see what adding one takes. */
export const easel = defineKind({
  kind: 'easel',
  collection: 'easels',
  noun: 'easel',
  schema: z.strictObject({
    id: idSchema,
    name: nameSchema,
    panes: z.array(z.strictObject({ id: idSchema, title: z.string(), shows: contentSchema })),
  }),
  fields: { name: text('name'), panes: { label: 'panes', say: (panes) => `${panes.length}` } },
  nameScope: () => 'network',
  entries: {
    panes: {
      // A booking could say into which pane it goes.
      named: true,
      name: ({ title }) => String(title),
      fields: {
        title: text('title'),
        shows: { label: 'shows', say: (shows: Content, names) => contentWords(shows, names) },
      },
    },
  },
});
