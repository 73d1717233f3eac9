import { LRUCache } from 'lru-cache';
import { done, misread, type Result } from '../refusal';

/** A selector as a tree. `term` is lower case, with its namespace where it has one (`screen:hall-2`). */
export type Selector =
  | { readonly kind: 'all' }
  | { readonly kind: 'term'; readonly term: string }
  | { readonly kind: 'not'; readonly of: Selector }
  | { readonly kind: 'and' | 'or'; readonly left: Selector; readonly right: Selector };

const NAME = '[\\p{L}\\p{Nd}][\\p{L}\\p{Nd}_-]*';
const TOKEN = new RegExp(`\\s*(?:([()])|(${NAME}(?::${NAME})?))`, 'uy');
const TAG = new RegExp(`^${NAME}(?::${NAME})?$`, 'u');
const WORDS = ['and', 'or', 'not', 'all'];
const SHAPES = ['is:portrait', 'is:landscape', 'is:square'];

/** Whether a text may be a tag: a term that is none of the selector's own words. */
export function isTag(text: string): boolean {
  return TAG.test(text) && !WORDS.includes(text.toLowerCase()) && !text.toLowerCase().startsWith('is:');
}

/** Reads a selector: `quay and (hall or gangway) and not staff`. Words are case-insensitive. */
export function parseSelector(text: string): Result<Selector> {
  const tokens: { text: string; at: number }[] = [];
  TOKEN.lastIndex = 0;
  for (let at = 0; text.slice(at).trim() !== ''; at = TOKEN.lastIndex) {
    TOKEN.lastIndex = at;
    const match = TOKEN.exec(text);
    if (!match) {
      const begin = at + (/^\s*/.exec(text.slice(at))?.[0].length ?? 0);
      return misread(`"${text[begin] ?? ''}" can't stand in a selector: use tags, and, or, not, all, brackets.`, begin);
    }
    const token = (match[1] ?? match[2] ?? '').toLowerCase();
    tokens.push({ text: token, at: TOKEN.lastIndex - token.length });
  }
  let next = 0;
  const peek = () => tokens[next]?.text;
  const fail = (message: string) => misread(message, tokens[next]?.at ?? text.length);

  const chain = (word: 'or' | 'and', part: () => Result<Selector>): Result<Selector> => {
    let left = part();
    while (left.ok && peek() === word) {
      next++;
      const right = part();
      if (!right.ok) return right;
      left = done({ kind: word, left: left.value, right: right.value });
    }
    return left;
  };
  const either = (): Result<Selector> => chain('or', both);
  const both = (): Result<Selector> => chain('and', single);
  const single = (): Result<Selector> => {
    const token = peek();
    if (token === undefined)
      return fail(
        tokens.length === 0
          ? 'A selector is missing: write all for everything.'
          : 'The selector stops too early: a tag must follow.',
      );
    if (token === 'not') {
      next++;
      const of = single();
      return of.ok ? done({ kind: 'not', of: of.value }) : of;
    }
    if (token === '(') {
      next++;
      const inner = either();
      if (!inner.ok) return inner;
      if (peek() !== ')') return fail('A bracket is not closed: add ).');
      next++;
      return inner;
    }
    if (token === ')' || token === 'and' || token === 'or') return fail(`A tag is missing before "${token}".`);
    if (token.startsWith('is:') && !SHAPES.includes(token))
      return fail(`"${token}" is unknown: use ${SHAPES.join(', ')}.`);
    next++;
    return done(token === 'all' ? { kind: 'all' } : { kind: 'term', term: token });
  };

  const tree = either();
  if (tree.ok && next < tokens.length) return fail(`"${peek() ?? ''}" is too much: join tags with and, or.`);
  return tree;
}

/** Selectors that were read last, by their text. */
const parsed = new LRUCache<string, Selector>({ max: 20_000 });

/** A selector that was checked before. Throws RangeError for a text that is none. */
export function selectorOf(text: string): Selector {
  let tree = parsed.get(text);
  if (!tree) {
    const result = parseSelector(text);
    if (!result.ok) throw new RangeError(result.message);
    parsed.set(text, (tree = result.value));
  }
  return tree;
}

/** Whether a thing that bears `terms` (lower case) is selected. */
export function matches(selector: Selector, terms: ReadonlySet<string>): boolean {
  switch (selector.kind) {
    case 'all':
      return true;
    case 'term':
      return terms.has(selector.term);
    case 'not':
      return !matches(selector.of, terms);
    case 'and':
      return matches(selector.left, terms) && matches(selector.right, terms);
    case 'or':
      return matches(selector.left, terms) || matches(selector.right, terms);
  }
}

/** The terms of one namespace that a selector names, without it: `namedTerms(tree, 'screen:')` lists screens. */
export function namedTerms(selector: Selector, namespace: string): string[] {
  switch (selector.kind) {
    case 'all':
      return [];
    case 'term':
      return selector.term.startsWith(namespace) ? [selector.term.slice(namespace.length)] : [];
    case 'not':
      return namedTerms(selector.of, namespace);
    default:
      return [...namedTerms(selector.left, namespace), ...namedTerms(selector.right, namespace)];
  }
}

function shape(width: number, height: number): string {
  return width === height ? 'is:square' : width > height ? 'is:landscape' : 'is:portrait';
}

/** The terms that a screen answers to: its own tags and its site's, its ids, its shape. */
export function screenTerms(
  screen: { id: string; site: string; width: number; height: number; tags?: readonly string[] | undefined },
  siteTags: readonly string[] = [],
): Set<string> {
  return new Set([
    ...[...(screen.tags ?? []), ...siteTags].map((tag) => tag.toLowerCase()),
    `screen:${screen.id}`,
    `site:${screen.site}`,
    shape(screen.width, screen.height),
  ]);
}

/** The terms that a media file answers to: its tags, its kind, its shape. */
export function mediaTerms(file: {
  kind: string;
  width: number;
  height: number;
  tags?: readonly string[] | undefined;
}): Set<string> {
  return new Set([
    ...(file.tags ?? []).map((tag) => tag.toLowerCase()),
    `kind:${file.kind}`,
    shape(file.width, file.height),
  ]);
}
