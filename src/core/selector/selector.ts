import { LRUCache } from 'lru-cache';
import { done, misread, type Result } from '../refusal';

/**
 * A selector in postfix order: each step follows what it is made of, so that `a and not b` is a, b, not, and. However long or
 * deeply nested a text is, it is read and matched step by step. A term is lower case, with its namespace where it has one.
 */
export type Selector = readonly SelectorStep[];
export type SelectorStep =
  { readonly kind: 'all' | 'not' | 'and' | 'or' } | { readonly kind: 'term'; readonly term: string };

const NAME = '[\\p{L}\\p{Nd}][\\p{L}\\p{Nd}_-]*';
const TOKEN = new RegExp(`\\s*(?:([()])|(${NAME}(?::${NAME})?)|$)`, 'uy');
const TAG = new RegExp(`^${NAME}(?::${NAME})?$`, 'u');
const WORDS = ['and', 'or', 'not', 'all'];
const SHAPES = ['is:portrait', 'is:landscape', 'is:square'];

/** Whether a text may be a tag: a term that is none of the selector's own words. */
export function isTag(text: string): boolean {
  return TAG.test(text) && !WORDS.includes(text.toLowerCase()) && !text.toLowerCase().startsWith('is:');
}

interface Token {
  readonly text: string;
  readonly at: number;
}

function tokensOf(text: string): Result<Token[]> {
  const tokens: Token[] = [];
  for (let at = 0; ; at = TOKEN.lastIndex) {
    TOKEN.lastIndex = at;
    const match = TOKEN.exec(text);
    if (!match) {
      const begin = at + (/^\s*/.exec(text.slice(at))?.[0].length ?? 0);
      const what = String.fromCodePoint(text.codePointAt(begin) ?? 0);
      return misread(`“${what}” isn’t allowed here. Use tags, and, or, not, all and brackets.`, begin);
    }
    const token = match[1] ?? match[2];
    if (token === undefined) return done(tokens);
    tokens.push({ text: token.toLowerCase(), at: TOKEN.lastIndex - token.length });
  }
}

/** What waits for its second side, or for its bracket to be closed. */
type Open = 'not' | 'and' | 'or' | '(';

/** Reads a selector: `quay and (hall or gangway) and not staff`. Words are case-insensitive; "and" binds more closely than "or". */
export function parseSelector(text: string): Result<Selector> {
  const tokens = tokensOf(text);
  if (!tokens.ok) return tokens;
  const steps: SelectorStep[] = [];
  const open: Open[] = [];
  /** Takes what waits, as long as it is one of these. */
  const settle = (...kinds: Open[]) => {
    for (let last = open.at(-1); last !== undefined && last !== '(' && kinds.includes(last); last = open.at(-1)) {
      open.pop();
      steps.push({ kind: last });
    }
  };
  let complete = false;
  for (const { text: token, at } of tokens.value) {
    if (complete) {
      if (token === 'and' || token === 'or') {
        settle('and', ...(token === 'or' ? (['or'] as const) : []));
        open.push(token);
        complete = false;
      } else if (token === ')' && open.includes('(')) {
        settle('and', 'or');
        open.pop();
        settle('not');
      } else
        return misread(
          open.includes('(')
            ? 'A bracket isn’t closed. Add ).'
            : `“${token}” doesn’t fit here. Join tags with “and” or “or”.`,
          at,
        );
    } else if (token === 'not' || token === '(') open.push(token);
    else if (token === ')' || token === 'and' || token === 'or')
      return misread(`There is no tag before “${token}”.`, at);
    else if (token.startsWith('is:') && !SHAPES.includes(token))
      return misread(`“${token}” is unknown. Use ${SHAPES.join(', ')}.`, at);
    else {
      steps.push(token === 'all' ? { kind: 'all' } : { kind: 'term', term: token });
      settle('not');
      complete = true;
    }
  }
  if (!complete)
    return misread(
      tokens.value.length === 0
        ? 'Choose where it shows, or type “all”.'
        : 'Something is missing at the end. Add a tag.',
      text.length,
    );
  if (open.includes('(')) return misread('A bracket isn’t closed. Add ).', text.length);
  settle('and', 'or');
  return done(steps);
}

/** Selectors that were read last, by their text. */
const parsed = new LRUCache<string, Selector>({ max: 20_000 });

/** A selector that was checked before. Throws RangeError for a text that is none. */
export function selectorOf(text: string): Selector {
  let selector = parsed.get(text);
  if (!selector) {
    const result = parseSelector(text);
    if (!result.ok) throw new RangeError(result.message);
    parsed.set(text, (selector = result.value));
  }
  return selector;
}

/** What terms and "all" are, and how these are joined. */
export interface Meaning<T> {
  all(): T;
  term(term: string): T;
  not(of: T): T;
  and(left: T, right: T): T;
  or(left: T, right: T): T;
}

/** What a selector comes to, step by step. */
export function evaluate<T>(selector: Selector, meaning: Meaning<T>): T {
  const values: T[] = [];
  for (const step of selector)
    switch (step.kind) {
      case 'all':
        values.push(meaning.all());
        break;
      case 'term':
        values.push(meaning.term(step.term));
        break;
      case 'not':
        values.push(meaning.not(values.pop() as T));
        break;
      default: {
        const right = values.pop() as T;
        const left = values.pop() as T;
        values.push(step.kind === 'and' ? meaning.and(left, right) : meaning.or(left, right));
      }
    }
  return values.pop() as T;
}

/** Whether one thing is selected. A class, because this is asked of every screen for every booking: functions made each time take longer. */
class Truth implements Meaning<boolean> {
  constructor(private readonly terms: ReadonlySet<string>) {}
  all() {
    return true;
  }
  term(term: string) {
    return this.terms.has(term);
  }
  not(of: boolean) {
    return !of;
  }
  and(left: boolean, right: boolean) {
    return left && right;
  }
  or(left: boolean, right: boolean) {
    return left || right;
  }
}

/** Whether a thing that bears `terms` (lower case) is selected. */
export const matches = (selector: Selector, terms: ReadonlySet<string>): boolean =>
  evaluate(selector, new Truth(terms));

/** The terms of one namespace that a selector names, without it: `namedTerms(selector, 'screen:')` lists screens. */
export function namedTerms(selector: Selector, namespace: string): string[] {
  return selector.flatMap((step) =>
    step.kind === 'term' && step.term.startsWith(namespace) ? [step.term.slice(namespace.length)] : [],
  );
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

/** The terms that a media file answers to: its tags, its kind, its shape where it has one. */
export function mediaTerms(file: {
  kind: string;
  width?: number | undefined;
  height?: number | undefined;
  tags?: readonly string[] | undefined;
}): Set<string> {
  return new Set([
    ...(file.tags ?? []).map((tag) => tag.toLowerCase()),
    `kind:${file.kind}`,
    ...(file.width !== undefined && file.height !== undefined ? [shape(file.width, file.height)] : []),
  ]);
}
