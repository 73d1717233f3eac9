/** A selector as a tree. `term` is lower case, with its namespace where it has one (`screen:hall-2`). */
export type Selector =
  | { readonly kind: 'all' }
  | { readonly kind: 'term'; readonly term: string }
  | { readonly kind: 'not'; readonly of: Selector }
  | { readonly kind: 'and' | 'or'; readonly left: Selector; readonly right: Selector };

/** A mistake in a selector's text; `at` is the offset of the character where reading stopped. */
export interface SelectorError {
  readonly error: string;
  readonly at: number;
}

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
export function parseSelector(text: string): Selector | SelectorError {
  const tokens: { text: string; at: number }[] = [];
  TOKEN.lastIndex = 0;
  for (let at = 0; text.slice(at).trim() !== ''; at = TOKEN.lastIndex) {
    TOKEN.lastIndex = at;
    const match = TOKEN.exec(text);
    if (!match) {
      const begin = at + (/^\s*/.exec(text.slice(at))?.[0].length ?? 0);
      return {
        error: `"${text[begin] ?? ''}" can't stand in a selector: use tags, and, or, not, all, brackets.`,
        at: begin,
      };
    }
    const token = (match[1] ?? match[2] ?? '').toLowerCase();
    tokens.push({ text: token, at: TOKEN.lastIndex - token.length });
  }
  let next = 0;
  const peek = () => tokens[next]?.text;
  const fail = (error: string): SelectorError => ({ error, at: tokens[next]?.at ?? text.length });
  const isError = (value: Selector | SelectorError): value is SelectorError => 'error' in value;

  const chain = (word: 'or' | 'and', part: () => Selector | SelectorError): Selector | SelectorError => {
    let left = part();
    while (!isError(left) && peek() === word) {
      next++;
      const right = part();
      if (isError(right)) return right;
      left = { kind: word, left, right };
    }
    return left;
  };
  const either = (): Selector | SelectorError => chain('or', both);
  const both = (): Selector | SelectorError => chain('and', single);
  const single = (): Selector | SelectorError => {
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
      return isError(of) ? of : { kind: 'not', of };
    }
    if (token === '(') {
      next++;
      const inner = either();
      if (isError(inner)) return inner;
      if (peek() !== ')') return fail('A bracket is not closed: add ).');
      next++;
      return inner;
    }
    if (token === ')' || token === 'and' || token === 'or') return fail(`A tag is missing before "${token}".`);
    if (token.startsWith('is:') && !SHAPES.includes(token))
      return fail(`"${token}" is unknown: use ${SHAPES.join(', ')}.`);
    next++;
    return token === 'all' ? { kind: 'all' } : { kind: 'term', term: token };
  };

  const tree = either();
  if (!isError(tree) && next < tokens.length) return fail(`"${peek() ?? ''}" is too much: join tags with and, or.`);
  return tree;
}

const parsed = new Map<string, Selector>();

/** A selector that was checked before. Throws RangeError for a text that is none. */
export function selectorOf(text: string): Selector {
  let tree = parsed.get(text);
  if (!tree) {
    const result = parseSelector(text);
    if ('error' in result) throw new RangeError(result.error);
    if (parsed.size > 20_000) parsed.clear();
    parsed.set(text, (tree = result));
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
