import { searchable } from '../text';
import { matches, mediaTerms, parseSelector, selectorOf } from '../selector';
import { knownItem } from './known';
import { LISTED_KINDS, collectionOf, referencesOf, type Kind } from './registry';
import { linksOf } from './references';
import type { Media, Plan } from './schema';

/** Which media a plan uses, and which a search finds. A page holds the used ones, and asks for the others as they become visible. */

/** The files that a document names. */
export const mediaOf = (kind: Kind, document: object | null): ReadonlySet<string> =>
  new Set(
    document
      ? linksOf(
          document,
          referencesOf(kind).filter((one) => one.kind === 'media'),
        ).map((link) => link.id)
      : [],
  );

/** The rules by which a document collects media. */
export function rulesOf(kind: Kind, document: object | null): ReadonlySet<string> {
  if (kind !== 'playlist' || !document) return new Set();
  const { items } = document as Plan['playlists'][number];
  return new Set(
    items.flatMap((item) => {
      const what = knownItem(item);
      return what.kind === 'collect' ? [what.rule] : [];
    }),
  );
}

/** Which of the files some rules collect, whatever their order and number. */
export function collectedBy(rules: ReadonlySet<string>, media: readonly Media[]): readonly Media[] {
  const selectors = [...rules].map(selectorOf);
  if (selectors.length === 0) return [];
  return media.filter((file) => {
    if (file.archived) return false;
    const terms = mediaTerms(file);
    return selectors.some((selector) => matches(selector, terms));
  });
}

/** The ids of the files that anything in a plan names or collects. */
export function usedMedia(plan: Plan): ReadonlySet<string> {
  const used = new Set(mediaOf('network', plan.network));
  const rules = new Set<string>();
  for (const kind of LISTED_KINDS)
    for (const document of plan[collectionOf(kind)]) {
      for (const id of mediaOf(kind, document)) used.add(id);
      for (const rule of rulesOf(kind, document)) rules.add(rule);
    }
  for (const { id } of collectedBy(rules, plan.media)) used.add(id);
  return used;
}

/** The plan with those files alone that are used in it: forecasts are the same. The same plan where all are. */
export function withUsedMedia(plan: Plan): Plan {
  const used = usedMedia(plan);
  return used.size === plan.media.length ? plan : { ...plan, media: plan.media.filter(({ id }) => used.has(id)) };
}

/**
 * The files that a search finds, archived ones apart, whatever their accents: each word is a part of the name or the beginning of a tag; or by a selector of tags, kinds and shapes. Exact
 * names come first, then names that begin with it; among equals the newest. The server finds the same in its index.
 */
export function findMedia(media: readonly Media[], search: string): Media[] {
  const text = search.trim().toLowerCase();
  const selector = parseSelector(text);
  const sought = searchable(text);
  const words = sought.split(/\s+/);
  const has = ({ name, tags = [] }: Media, word: string) =>
    searchable(name).includes(word) || tags.some((tag) => searchable(tag).startsWith(word));
  const means = (file: Media) =>
    words.every((word) => has(file, word)) || (selector.ok && matches(selector.value, mediaTerms(file)));
  const rank = ({ name }: Media) => {
    const known = searchable(name);
    return known === sought ? 0 : known.startsWith(sought) ? 1 : 2;
  };
  return media
    .filter((file) => !file.archived && (text === '' || means(file)))
    .sort((a, b) => rank(a) - rank(b) || Date.parse(b.added) - Date.parse(a.added) || (a.id < b.id ? -1 : 1));
}

/** A size that is looked for, in pixels; either way round. */
export interface WantedSize {
  readonly width: number;
  readonly height: number;
}

/** What is typed to find files: a size apart from all else, which is in lower case. */
export interface MediaSearchText {
  readonly text: string;
  readonly size: WantedSize | null;
}

const SIZE = /(?:^|\s)(\d{1,5})\s*[x×]\s*(\d{1,5})(?=\s|$)/iu;

/** Reads what is typed to find files: `gale 192x384` are words and a size. */
export function readMediaSearch(typed: string): MediaSearchText {
  const found = SIZE.exec(typed);
  const [width, height] = [Number(found?.[1] ?? 0), Number(found?.[2] ?? 0)];
  const size = width > 0 && height > 0 ? { width, height } : null;
  return { text: (size ? typed.replace(SIZE, ' ') : typed).trim().toLowerCase(), size };
}

/**
 * How a file of the shape of a size fits it, whichever way round: exactly, or by how much its pixels are enlarged (over 1) or reduced.
 */
export function sizeFit(file: WantedSize, wanted: WantedSize): 'exact' | number {
  const longer = ({ width, height }: WantedSize) => Math.max(width, height);
  const shorter = ({ width, height }: WantedSize) => Math.min(width, height);
  const exact = longer(file) === longer(wanted) && shorter(file) === shorter(wanted);
  return exact ? 'exact' : longer(wanted) / longer(file);
}
