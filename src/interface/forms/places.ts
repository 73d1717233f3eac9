import { countTags, type Plan, type Screen, tagOf } from '@/core/plan';
import { quoted, screensMatching } from '@/core/selector';
import { searchable } from '@/core/text';

/** Suggestions for a field that says where: tags, sites, and single screens, by their names. */
export interface PlaceChoice {
  /** What it puts into the text. */
  readonly term: string;
  readonly name: string;
  /** What it is: "tag", "site", "1920 × 1080 screen". */
  readonly what: string;
  readonly screens: number;
}

/** The part of a selector's text in which the caret stands, between operators and brackets. */
export interface Fragment {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

const OPERATORS = /(?:^|\s)(?:and|or|not)(?=\s)|[()]/giu;

/** What is being written at offset `caret`. */
export function fragmentAt(text: string, caret: number): Fragment {
  let from = 0;
  let to = text.length;
  for (const { 0: found, index } of text.matchAll(OPERATORS)) {
    if (index + found.length <= caret) from = index + found.length;
    else if (index >= caret) to = Math.min(to, index);
  }
  const part = text.slice(from, to);
  const lead = part.length - part.trimStart().length;
  return { from: from + lead, to: from + Math.max(lead, part.trimEnd().length), text: part.trim() };
}

/** The text with a term in place of a fragment, and where the caret stands then. */
export function withTerm(text: string, { from, to }: Fragment, term: string): { text: string; caret: number } {
  return { text: text.slice(0, from) + term + text.slice(to), caret: from + term.length };
}

/** So many of each kind are offered at once. */
const OFFERED = 6;

const plain = (text: string) => searchable(text.replace(/["“”„]/g, ''));

/** Those that begin so first; then those of which a word begins so; then all that hold it. */
function rank(name: string, text: string): number {
  const at = plain(name).indexOf(text);
  if (at < 0) return -1;
  return at === 0 ? 2 : /[\s·-]/.test(plain(name)[at - 1] ?? '') ? 1 : 0;
}

function best<T>(list: readonly T[], nameOf: (one: T) => string, text: string): T[] {
  return list
    .map((one) => ({ one, rank: rank(nameOf(one), text) }))
    .filter((found) => found.rank >= 0)
    .sort((a, b) => b.rank - a.rank || nameOf(a.one).localeCompare(nameOf(b.one)))
    .slice(0, OFFERED)
    .map(({ one }) => one);
}

/**
 * Suggestions for what is typed so far: existing names come before a tag that no screen has. A tag that is typed in full comes first. No suggestions
 * while nothing is typed.
 */
export function placesLike(plan: Plan, written: string): PlaceChoice[] {
  const text = plain(written);
  if (text === '') return [];
  const siteNames = new Map(plan.sites.map(({ id, name }) => [id, name]));
  const fullName = ({ name, site }: Screen) => `${siteNames.get(site) ?? ''} · ${name}`;
  const here = (term: string) => screensMatching(plan, [{ kind: 'term', term }]).length;
  const typed = tagOf(written.replace(/["“”„]/g, ''));
  const tags = countTags([...plan.sites, ...plan.screens]).filter(({ tag }) => tag !== typed);
  const own: PlaceChoice = { term: written, name: typed, what: 'tag', screens: here(typed) };
  return [
    ...(own.screens > 0 ? [own] : []),
    ...best(tags, ({ tag }) => tag, typed).map(({ tag }) => ({
      term: tag,
      name: tag,
      what: 'tag',
      screens: here(tag),
    })),
    ...best(plan.sites, ({ name }) => name, text).map(({ id, name }) => ({
      ...{ term: quoted(name), name, what: 'site', screens: here(`site:${id}`) },
    })),
    ...best(plan.screens, fullName, text).map((screen) => ({
      term: quoted(fullName(screen)),
      name: fullName(screen),
      what: `${screen.width} × ${screen.height}`,
      screens: 1,
    })),
    ...(own.screens > 0 ? [] : [own]),
  ];
}
