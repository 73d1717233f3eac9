import { currentDocument, readMediaSearch, type Media, type MediaKind, type TagCount } from '@/core/plan';
import { rows } from '@/database';
import type { Actor } from '../people';
import { Binds, NEWEST_FIRST, endingSql, ranksSql, searchSql, unusedSql, type Filters } from './search';

/** A part of the files that match, in order. */
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

/** The network's files that match: by kind and size first, then by name, the newest first. */
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
  const ranks = ranksSql(read, binds);
  const [limit, offset] = [binds.add(from + count), binds.add(from)];
  // Each rank by itself, in the order of an index: of a word that all files have, the first are found without the others.
  const ranked = ranks.map(
    (rank, i) =>
      `(SELECT m.media_id, m.added, m.slug, ${i} AS rank FROM media_index m WHERE ${condition} AND ${rank} ORDER BY ${NEWEST_FIRST} LIMIT ${limit})`,
  );
  const found = await rows<{ document: object; format: number }>(
    `SELECT o.document, o.format FROM (SELECT * FROM (${ranked.join(' UNION ALL ')}) AS r ORDER BY rank, added DESC, slug LIMIT ${binds.add(count)} OFFSET ${offset}) AS m
     JOIN plan_objects o ON o.id = m.media_id ORDER BY m.rank, ${NEWEST_FIRST}`,
    binds.values,
  );
  const total = Number((await counted)[0]?.total ?? 0);
  const files = found.map(({ document, format }) => currentDocument('media', document, format) as Media);
  return { files, total, next: from + count < total ? from + count : null };
}

/** How many of the matching files are of each kind, and what else the list can be narrowed to. */
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
  const read = readMediaSearch(search);
  // People may switch between kinds, so the count of each kind ignores which one is chosen now.
  const among = (binds: Binds, narrowed: Partial<Filters> = {}) =>
    searchSql(networkId, read, { ...filters, kind: null, ...narrowed }, rules, today(), binds);
  const own = (binds: Binds) => (filters.kind ? `m.kind = ${binds.add(filters.kind)}` : 'true');
  // Files of the same tags are counted together: the index is read once, and thousands of files are some hundred lines.
  const [[counts], [shelved]] = await Promise.all([
    asked<Record<Counted, string> & { tags: TagCount[] | null }>((binds) => {
      const mine = own(binds);
      return `WITH alike AS MATERIALIZED (
         SELECT m.tags, count(*) FILTER (WHERE ${mine}) AS own, count(*) FILTER (WHERE m.kind = 'image') AS image,
           count(*) FILTER (WHERE m.kind = 'video') AS video, count(*) FILTER (WHERE m.kind = 'sound') AS sound,
           count(*) FILTER (WHERE ${mine} AND m.audible) AS audible,
           count(*) FILTER (WHERE ${mine} AND ${unusedSql(networkId, rules, binds)}) AS unused,
           count(*) FILTER (WHERE ${mine} AND ${endingSql(today(), binds)}) AS ending,
           count(*) FILTER (WHERE ${mine} AND m.slug = ANY(${binds.add(small)}::text[])) AS small
         FROM media_index m WHERE ${among(binds)} GROUP BY m.tags)
       SELECT sum(image) AS image, sum(video) AS video, sum(sound) AS sound, sum(audible) AS audible, sum(unused) AS unused,
         sum(ending) AS ending, sum(small) AS small,
         (SELECT jsonb_agg(jsonb_build_object('tag', tag, 'count', n)) FROM (
            SELECT tag, sum(own) AS n FROM alike, unnest(alike.tags) AS tag WHERE own > 0
            GROUP BY tag ORDER BY n DESC, tag LIMIT ${TAGS_TOLD}) AS top) AS tags
       FROM alike`;
    }),
    asked<{ archived: string }>(
      (binds) =>
        `SELECT count(*) AS archived FROM media_index m WHERE ${among(binds, { unused: false, archived: true })} AND ${own(binds)}`,
    ),
  ]);
  const of = (name: Counted) => Number({ ...counts, ...shelved }[name] ?? 0);
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

/** The rows of a statement, whose values are numbered as it is written. */
function asked<Row extends object>(sql: (binds: Binds) => string): Promise<Row[]> {
  const binds = new Binds();
  const text = sql(binds);
  return rows<Row>(text, binds.values);
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
