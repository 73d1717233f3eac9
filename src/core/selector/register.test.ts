import fc from 'fast-check';
import { matches, screenTerms, screensMatching, selectorOf } from '.';
import { runs } from '../tests/runs';

const tags = fc.uniqueArray(fc.constantFrom('hall', 'Deck', 'quay', 'north'), { maxLength: 3 });
const ground = fc.array(fc.record({ tags }), { minLength: 1, maxLength: 4 }).chain((sites) =>
  fc.record({
    sites: fc.constant(sites.map((site, i) => ({ id: `site-${i}`, ...site }))),
    screens: fc
      .array(
        fc.record({
          tags,
          site: fc.nat(sites.length - 1).map((i) => `site-${i}`),
          width: fc.constantFrom(1080, 1920),
          height: fc.constantFrom(1080, 1920),
        }),
      )
      .map((list) => list.map((screen, i) => ({ id: `s${i}`, ...screen }))),
  }),
);
const term = fc.constantFrom(
  'hall',
  'deck',
  'quay',
  'north',
  'nowhere',
  'is:portrait',
  'screen:s1',
  'site:site-0',
  'all',
);
const text = fc
  .array(fc.tuple(fc.constantFrom('and', 'or', 'and not', 'or not'), term), { maxLength: 4 })
  .chain((rest) => fc.tuple(term, fc.constant(rest)))
  .map(([first, rest]) => [first, ...rest.map((one) => one.join(' '))].join(' '));

test('the register finds the screens that one would find one by one, in their order', () => {
  fc.assert(
    fc.property(ground, fc.array(text, { minLength: 1, maxLength: 3 }), (network, texts) => {
      const siteTags = new Map(network.sites.map((site) => [site.id, site.tags]));
      for (const selector of texts.map(selectorOf))
        expect(screensMatching(network, selector)).toEqual(
          network.screens.filter((screen) => matches(selector, screenTerms(screen, siteTags.get(screen.site)))),
        );
    }),
    runs(300),
  );
});

test('other tags of the sites with the same list of screens are seen', () => {
  const screens = [{ id: 'a', site: 'pier', width: 2, height: 1 }];
  expect(screensMatching({ screens, sites: [{ id: 'pier' }] }, selectorOf('north'))).toEqual([]);
  expect(screensMatching({ screens, sites: [{ id: 'pier', tags: ['North'] }] }, selectorOf('north'))).toEqual(screens);
});
