import * as z from 'zod';
import { whenSchema, type When } from '../../when/schema';
import { checkTimed, contentFields } from '../content-schema';
import { CONTENTS, CONTENT_KINDS, namedIn, type ContentKind, type Naming } from '../contents';
import { durationSchema, idSchema, nameSchema, selectorSchema } from '../fields';
import { withEntryIds } from '../entries';
import { defineKind, type Names, type OldDocument } from '../kind';
import { FITS, transitionSchema, transitionWords, type Fit, type Transition } from '../looks';
import { reference } from '../references';
import { duration, durationWords, plain, selector, text, when, yesNo } from '../say';

const clipSchema = z
  .tuple([
    z.int('A clip begins at whole milliseconds.').min(0, 'A clip begins at 0 or later.'),
    z.int('A clip ends at whole milliseconds.').min(1, 'A clip must end after it begins.'),
  ])
  .refine(([begin, end]) => begin < end, 'A clip must end after it begins.');

const volumeSchema = z
  .number('A volume is a number from 0 to 1.')
  .min(0, 'A volume is at least 0.')
  .max(1, 'A volume is at most 1.');

/** What only shows: the forecast does not depend on it (domain section 9). A nested playlist's items have their own. */
const LOOK = ['transition', 'fit', 'volume'] as const;

/** What an item may be: a content, or a rule that collects files. */
const ITEM_KINDS = [...CONTENT_KINDS, 'collect'] as const;

const itemSchema = z
  .strictObject({
    /** The entry's own id, by which it is patched: the network's own affair, as no plan file carries it (`file.ts`). */
    id: idSchema.optional(),
    ...contentFields(),
    collect: selectorSchema.optional(),
    order: z.enum(['name', 'newest', 'oldest'], 'The order is name, newest or oldest.').optional(),
    limit: z.int().min(1, 'The limit is at least 1.').max(50_000, 'The limit is at most 50 000.').optional(),
    durationMs: durationSchema.optional(),
    clip: clipSchema.optional(),
    transition: transitionSchema.optional(),
    fit: z.enum(FITS, 'A fit is whole, fill, stretch or exact.').optional(),
    volume: volumeSchema.optional(),
    where: selectorSchema.optional(),
    when: whenSchema.optional(),
  })
  .superRefine((item, context) => {
    if (ITEM_KINDS.filter((kind) => item[kind] !== undefined).length !== 1)
      context.addIssue({
        code: 'custom',
        message: `An item names one of ${CONTENT_KINDS.map((kind) => `“${kind}”`).join(', ')} and “collect”.`,
      });
    if (item.collect === undefined)
      for (const field of ['order', 'limit'] as const)
        if (item[field] !== undefined)
          context.addIssue({
            code: 'custom',
            path: [field],
            message: `“${field}” belongs to a collecting rule. Remove it.`,
          });
    if (item.clip !== undefined && item.media === undefined)
      context.addIssue({ code: 'custom', path: ['clip'], message: 'Only a single video has a clip. Remove it.' });
    if (item.clip !== undefined && item.durationMs !== undefined)
      context.addIssue({
        code: 'custom',
        path: ['durationMs'],
        message: 'A clip has its own duration. Remove this one.',
      });
    checkTimed(item, context);
    for (const kind of CONTENT_KINDS)
      for (const field of LOOK)
        if (item[kind] !== undefined && item[field] !== undefined && !CONTENTS[kind].looks)
          context.addIssue({
            code: 'custom',
            path: [field],
            message: `Each item of a nested ${CONTENTS[kind].called} has its own ${field}. Remove this one.`,
          });
  })
  .transform((item) => item as Item);

interface ItemConditions {
  readonly id?: string | undefined;
  readonly where?: string | undefined;
  readonly when?: When | undefined;
}

/** How a file looks and sounds in its turn. Absent: a cut, whole, silent. */
interface ItemLook {
  readonly transition?: Transition | undefined;
  readonly fit?: Fit | undefined;
  /** Of a film's own sound, from 0 to 1. */
  readonly volume?: number | undefined;
}

type NoLook = { readonly [field in keyof ItemLook]?: undefined };

/** The look of an item that names a content, where that kind has one. */
type LookOf<K extends ContentKind> = (typeof CONTENTS)[K]['looks'] extends true ? ItemLook : NoLook;

/** Where an item begins and ends in its video, in milliseconds; excludes a duration. Only a file has one. */
interface ItemClip<C extends readonly [number, number] | never> {
  readonly clip?: C | undefined;
}

type NamingItem = {
  [K in ContentKind]: Naming<K> &
    LookOf<K> &
    ItemClip<K extends 'media' ? readonly [number, number] : never> & { readonly collect?: undefined };
}[ContentKind];

type CollectingItem = { readonly [K in ContentKind]?: undefined } & ItemLook &
  ItemClip<never> & {
    readonly collect: string;
    readonly order?: 'name' | 'newest' | 'oldest' | undefined;
    readonly limit?: number | undefined;
    readonly durationMs?: number | undefined;
  };

/** An entry of a playlist: a content (a file, a nested playlist), or a rule that collects files. */
export type Item = ItemConditions & (NamingItem | CollectingItem);

/** With all that is nested, no more may come to be either (`nesting.ts`). */
export const MOST_ENTRIES = 5000;

/** Files, playlists and collecting rules in order, each with its conditions. */
export const playlistSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  order: z.enum(['listed', 'shuffled'], 'The order is listed or shuffled.').optional(),
  /** Kept, but it shows nowhere and is offered nowhere. */
  archived: z.boolean().optional(),
  /** Each item waits for a key or a press at the screen: for presentations. Not where the playlist is in another, nor in a zone. */
  waits: z.boolean().optional(),
  /** Sound that loops beside it: the sound files of a playlist, from where its own loop begins, with a clock of their own. */
  music: z.strictObject({ playlist: reference('playlist'), volume: volumeSchema }).optional(),
  items: z
    .array(itemSchema)
    .max(MOST_ENTRIES, `A playlist has at most ${MOST_ENTRIES} items. Collect files by a tag instead.`)
    .superRefine((items, context) => {
      const seen = new Set<string>();
      items.forEach(({ id }, i) => {
        if (id !== undefined && seen.has(id))
          context.addIssue({
            code: 'custom',
            path: [i, 'id'],
            message: `Another item already has the id “${id}”. Each item needs its own id.`,
          });
        if (id !== undefined) seen.add(id);
      });
    }),
});

export type Playlist = z.infer<typeof playlistSchema>;

const percent = (part: number) => `${Math.round(part * 100)} %`;

export const playlist = defineKind({
  kind: 'playlist',
  collection: 'playlists',
  noun: 'playlist',
  schema: playlistSchema,
  fields: {
    name: text('name'),
    order: plain('order'),
    archived: yesNo('archived'),
    waits: yesNo('waits for a key'),
    music: {
      label: 'music',
      say: ({ playlist, volume }: { readonly playlist: string; readonly volume: number }, names) =>
        `“${names('playlist', playlist)}” at ${percent(volume)}`,
    },
    items: { label: 'items', say: (items) => `${items.length}` },
  },
  nameScope: () => 'network',
  entries: {
    items: {
      name: (entry, names) => {
        const what = namedIn(entry);
        return what ? names(what.kind, what.id) : `all ${String(entry.collect)}`;
      },
      fields: {
        ...Object.fromEntries(
          CONTENT_KINDS.map((kind) => [
            kind,
            { label: CONTENTS[kind].called, say: (id: string, names: Names) => `“${names(kind, id)}”` },
          ]),
        ),
        collect: selector('rule'),
        order: plain('order'),
        limit: plain('limit'),
        durationMs: duration(),
        clip: {
          label: 'clip',
          say: ([begin, end]: readonly [number, number]) => `${durationWords(begin)} to ${durationWords(end)}`,
        },
        transition: { label: 'transition', say: transitionWords },
        fit: plain('fit'),
        volume: { label: 'volume', say: percent },
        where: selector('where'),
        when: when('when'),
      },
    },
  },
  older: {
    // Until format 1, items had no ids: their places are what tells them apart.
    1: (document) => ({ ...document, items: withEntryIds((document.items ?? []) as OldDocument[]) }),
  },
});
