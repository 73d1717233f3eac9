import { orThrow } from '../refusal';
import fc from 'fast-check';
import { selects as readAgain } from '../tests/second-reading';
import { isTag, matches, mediaTerms, namedTerms, parseSelector, screenTerms, selectorOf, type Selector } from '.';
import { runs } from '../tests/runs';

const hall = screenTerms(
  { id: 'sillarvik-hall', site: 'sillarvik', width: 1920, height: 1080, tags: ['Hall', 'lang:no'] },
  ['quay', 'north'],
);
const selects = (text: string) => matches(selectorOf(text), hall);

test.each([
  ['all', true],
  ['quay and (hall or gangway) and not staff', true],
  ['QUAY AND Hall', true],
  ['staff or gangway', false],
  ['not not hall', true],
  ['lang:no', true],
  ['screen:sillarvik-hall and site:sillarvik', true],
  ['is:landscape and not is:portrait', true],
  ['gangway or hall and north', true],
])('%s', (text, expected) => {
  expect(selects(text)).toBe(expected);
});

test('and binds more closely than or, not more closely than both', () => {
  const words = orThrow(parseSelector('not a and b or c')).map((step) => ('term' in step ? step.term : step.kind));
  expect(words).toEqual(['a', 'not', 'b', 'and', 'c', 'or']);
});

test.each([
  ['', 'Choose where it shows, or type “all”.', 0],
  ['quay and', 'Something is missing at the end.', 8],
  ['(quay', 'A bracket isn’t closed.', 5],
  ['quay hall', '“hall” doesn’t fit here.', 5],
  ['or quay', 'There is no tag before “or”.', 0],
  ['quay & hall', '“&” isn’t allowed here.', 5],
  ['is:wide', 'unknown', 0],
])('"%s" is refused with a sentence and a place', (text, sentence, at) => {
  expect(parseSelector(text)).toMatchObject({
    ok: false,
    problems: [{ message: expect.stringContaining(sentence), at }],
  });
});

test('each mistake has its own sentence, at the character where reading stopped', () => {
  const wrong = (text: string) => {
    const read = parseSelector(text);
    return read.ok ? null : [read.message, read.problems[0]?.at];
  };
  expect(wrong('  ')).toEqual(['Choose where it shows, or type “all”.', 2]);
  expect(wrong('quay and ')).toEqual(['Something is missing at the end. Add a tag.', 9]);
  expect(wrong('quay and   %')).toEqual(['“%” isn’t allowed here. Use tags, and, or, not, all and brackets.', 11]);
  expect(wrong('(quay or')).toEqual(['Something is missing at the end. Add a tag.', 8]);
  expect(wrong('(quay hall)')).toEqual(['A bracket isn’t closed. Add ).', 6]);
  expect(wrong('(quay')).toEqual(['A bracket isn’t closed. Add ).', 5]);
  expect(wrong('quay or )')).toEqual(['There is no tag before “)”.', 8]);
  expect(wrong('and quay')).toEqual(['There is no tag before “and”.', 0]);
  expect(wrong('not or')).toEqual(['There is no tag before “or”.', 4]);
  expect(wrong('quay ) hall')).toEqual(['“)” doesn’t fit here. Join tags with “and” or “or”.', 5]);
  expect(wrong('is:Wide')).toEqual(['“is:wide” is unknown. Use is:portrait, is:landscape, is:square.', 0]);
  expect(wrong('all')).toBeNull();
});

test('a text that is no selector throws where it was taken for a checked one, and every time', () => {
  expect(() => selectorOf('quay and')).toThrow(RangeError);
  expect(() => selectorOf('quay and')).toThrow('Something is missing at the end. Add a tag.');
  expect(selectorOf('quay')).toBe(selectorOf('quay'));
});

test('the things that a selector names of one namespace, in order, whatever stands between them', () => {
  const named = (text: string) => namedTerms(selectorOf(text), 'screen:');
  expect(named('screen:a and not (site:b or screen:c) or deck and screen:d')).toEqual(['a', 'c', 'd']);
  expect(named('all')).toEqual([]);
  expect(named('not screenx')).toEqual([]);
  expect(namedTerms(selectorOf('site:b or not screen:a'), 'site:')).toEqual(['b']);
});

test('a screen answers to its tags and those of its site, to its ids and its shape, and to nothing else', () => {
  const screen = { id: 'one', site: 'quay', width: 3, height: 2 };
  expect([...screenTerms(screen)]).toEqual(['screen:one', 'site:quay', 'is:landscape']);
  expect([...screenTerms({ ...screen, width: 2, tags: ['A'] }, ['B'])]).toEqual([
    ...['a', 'b', 'screen:one', 'site:quay', 'is:square'],
  ]);
  expect(screenTerms({ ...screen, width: 1 }).has('is:portrait')).toBe(true);
  expect([...mediaTerms({ kind: 'image', width: 1, height: 2 })]).toEqual(['kind:image', 'is:portrait']);
});

test('media answer to their tags, their kind and their shape', () => {
  const terms = mediaTerms({ kind: 'video', width: 1080, height: 1080, tags: ['safety'] });
  expect(matches(selectorOf('KIND:video and safety and is:square'), terms)).toBe(true);
});

test('the words of the language are no tags', () => {
  expect(['hall', 'lang:no', 'and', 'NOT', 'all', 'is:portrait', 'a b', '-a', 'a:b:c'].map(isTag)).toEqual([
    true,
    true,
    false,
    false,
    false,
    false,
    false,
    false,
    false,
  ]);
});

/** A selector as one thinks of it. */
type Tree =
  | { readonly kind: 'all' }
  | { readonly kind: 'term'; readonly term: string }
  | { readonly kind: 'not'; readonly of: Tree }
  | { readonly kind: 'and' | 'or'; readonly left: Tree; readonly right: Tree };

const tree = fc.letrec<{ selector: Tree }>((tie) => ({
  selector: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    fc.constantFrom<Tree>(
      { kind: 'all' },
      { kind: 'term', term: 'hall' },
      { kind: 'term', term: 'deck' },
      { kind: 'term', term: 'site:x-1' },
    ),
    tie('selector').map((of): Tree => ({ kind: 'not', of })),
    fc
      .tuple(fc.constantFrom('and' as const, 'or' as const), tie('selector'), tie('selector'))
      .map(([kind, left, right]): Tree => ({ kind, left, right })),
  ),
})).selector;

const write = (selector: Tree): string => {
  switch (selector.kind) {
    case 'all':
      return 'all';
    case 'term':
      return selector.term;
    case 'not':
      return `not (${write(selector.of)})`;
    default:
      return `(${write(selector.left)}) ${selector.kind} (${write(selector.right)})`;
  }
};

/** The steps of a tree, from its leaves up. */
const steps = (selector: Tree): Selector => {
  switch (selector.kind) {
    case 'all':
    case 'term':
      return [selector];
    case 'not':
      return [...steps(selector.of), { kind: 'not' }];
    default:
      return [...steps(selector.left), ...steps(selector.right), { kind: selector.kind }];
  }
};

test('any selector that is written out in full is read back as it was', () => {
  fc.assert(fc.property(tree, (selector) => expect(orThrow(parseSelector(write(selector)))).toEqual(steps(selector))));
});

test('a text of any length and depth is read and matched, in time that grows with it', () => {
  const many = Array.from({ length: 50_000 }, (_, i) => `t${i}`);
  expect(matches(orThrow(parseSelector(many.join(' or '))), new Set(['t49999']))).toBe(true);
  const deep = `${'not ('.repeat(50_000)}hall${')'.repeat(50_000)}`;
  expect(matches(orThrow(parseSelector(deep)), new Set(['hall']))).toBe(true);
  expect(parseSelector('('.repeat(100_000))).toMatchObject({
    ok: false,
    message: expect.stringContaining('Something is missing at the end.'),
  });
});

test('random selectors select what a second reading of the grammar does, whatever their brackets and capitals', () => {
  const terms = fc.subarray(['hall', 'deck', 'site:x-1']).map((list) => new Set(list));
  const bare = (selector: Tree): string => {
    if (selector.kind === 'all') return 'ALL';
    if (selector.kind === 'term') return selector.term;
    if (selector.kind === 'not')
      return `Not ${selector.of.kind === 'term' ? bare(selector.of) : `( ${bare(selector.of)})`}`;
    const side = (one: Tree) => (one.kind === 'or' && selector.kind === 'and' ? `(${bare(one)} )` : bare(one));
    return `${side(selector.left)}  ${selector.kind} ${side(selector.right)}`;
  };
  fc.assert(
    fc.property(tree, terms, (selector, of) => {
      expect(matches(selectorOf(bare(selector)), of)).toBe(readAgain(bare(selector), of));
      expect(matches(selectorOf(bare(selector)), of)).toBe(matches(steps(selector), of));
    }),
    runs(300),
  );
});
