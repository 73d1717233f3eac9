import { currentDocument, readMediaSearch, type Media, type MediaKind, type TagCount } from '@/core';
import { rows } from '@/database';
import type { Actor } from '../people';
import { Binds, endingSql, orderSql, searchSql, unusedSql, type Filters } from './search';

/** A part of the files that one means, in order. */
export interface MediaPage {
  readonly files: readonly Media[];
  /** How many there are in all. */
  readonly total: number;
  /** Where the next page begins; null at the end. */
  readonly next: number | null;
}

/** What is asked of the library: files by what is typed, `count` of them from place `from` on, perhaps only some. */
export interface MediaSearch extends Filters {
  readonly search: string;
  readonly from: number;
  readonly count: number;
}

const today = () => new Date().toISOString().slice(0, 10);

/** The rules by which a network's playlists collect files. */
async function rulesIn(networkId: string): Promise<string[]> {
  const found = await rows<{ rule: string }>(
    `SELECT DISTINCT item->>'collect' AS rule FROM plan_objects o, jsonb_array_elements(o.document->'items') AS item
     WHERE o.network_id = $1 AND o.kind = 'playlist' AND item->>'collect' IS NOT NULL`,
    [networkId],
  );
  return found.map(({ rule }) => rule);
}

/** The network's files that are meant: those of the size that is asked for, then what is called so, the newest first. */
export async function findInLibrary(
  { networkId }: Actor,
  { search, from, count, ...filters }: MediaSearch,
): Promise<MediaPage> {
  const read = readMediaSearch(search);
  const rules = filters.unused ? await rulesIn(networkId) : [];
  const binds = new Binds();
  const condition = searchSql(networkId, read, filters, rules, today(), binds);
  const counted = rows<{ total: string }>(`SELECT count(*) AS total FROM media_index m WHERE ${condition}`, [
    ...binds.values,
  ]);
  const order = orderSql(read, binds);
  const [limit, offset] = [binds.add(count), binds.add(from)];
  const found = await rows<{ document: object; format: number }>(
    `SELECT o.document, o.format FROM (
       SELECT m.* FROM media_index m WHERE ${condition} ORDER BY ${order.join()} LIMIT ${limit} OFFSET ${offset}
     ) AS m JOIN plan_objects o ON o.id = m.media_id ORDER BY ${order.join()}`,
    binds.values,
  );
  const total = Number((await counted)[0]?.total ?? 0);
  const files = found.map(({ document, format }) => currentDocument('media', document, format) as Media);
  return { files, total, next: from + count < total ? from + count : null };
}

/** How many of the files that are meant are of each kind, and what else they may be narrowed to. */
export interface Facets extends Readonly<Record<MediaKind, number>> {
  readonly audible: number;
  readonly unused: number;
  readonly ending: number;
  /** That screens show too large for them. */
  readonly small: number;
  readonly archived: number;
  /** The tags that most of them have. */
  readonly tags: readonly TagCount[];
}

type Counted = Exclude<keyof Facets, 'tags'>;

const TAGS_TOLD = 10;

export async function libraryFacets(
  { networkId }: Actor,
  { search, small, ...filters }: Omit<MediaSearch, 'from' | 'count'> & { readonly small: readonly string[] },
): Promise<Facets> {
  const rules = await rulesIn(networkId);
  const binds = new Binds();
  // One kind in place of the other is to be chosen: how many each has is told whichever it is now.
  const condition = searchSql(networkId, readMediaSearch(search), { ...filters, kind: null }, rules, today(), binds);
  const shelved = searchSql(
    networkId,
    readMediaSearch(search),
    { ...filters, kind: null, unused: false, archived: true },
    [],
    today(),
    binds,
  );
  const own = filters.kind ? `m.kind = ${binds.add(filters.kind)}` : 'true';
  const [counts] = await rows<Record<Counted, string> & { tags: TagCount[] | null }>(
    `WITH hit AS MATERIALIZED (SELECT slug, kind, tags, terms, last_day, audible FROM media_index m WHERE ${condition})
     SELECT count(*) FILTER (WHERE m.kind = 'image') AS image, count(*) FILTER (WHERE m.kind = 'video') AS video,
       count(*) FILTER (WHERE m.kind = 'sound') AS sound, count(*) FILTER (WHERE ${own} AND m.audible) AS audible,
       count(*) FILTER (WHERE ${own} AND ${unusedSql(networkId, rules, binds)}) AS unused,
       count(*) FILTER (WHERE ${own} AND ${endingSql(today(), binds)}) AS ending,
       count(*) FILTER (WHERE ${own} AND m.slug = ANY(${binds.add(small)}::text[])) AS small,
       (SELECT count(*) FROM media_index m WHERE ${shelved} AND ${own}) AS archived,
       (SELECT jsonb_agg(jsonb_build_object('tag', tag, 'count', n)) FROM (
          SELECT tag, count(*) AS n FROM hit AS m, unnest(m.tags) AS tag WHERE ${own}
          GROUP BY tag ORDER BY n DESC, tag LIMIT ${TAGS_TOLD}) AS top) AS tags
     FROM hit AS m`,
    binds.values,
  );
  const of = (name: Counted) => Number(counts?.[name] ?? 0);
  return {
    image: of('image'),
    video: of('video'),
    sound: of('sound'),
    audible: of('audible'),
    unused: of('unused'),
    ending: of('ending'),
    small: of('small'),
    archived: of('archived'),
    tags: counts?.tags ?? [],
  };
}

/** The tags of the network's files, the most used first. */
export async function libraryTags({ networkId }: Actor): Promise<TagCount[]> {
  const found = await rows<{ tag: string; count: string }>(
    `SELECT tag, count(*) AS count FROM plan_objects o, jsonb_array_elements_text(o.document->'tags') AS tag
     WHERE o.network_id = $1 AND o.kind = 'media' GROUP BY tag ORDER BY count DESC, tag`,
    [networkId],
  );
  return found.map(({ tag, count }) => ({ tag, count: Number(count) }));
}
