import { emptyPlan, type Plan } from '@/core/plan';
import { fragmentAt, placesLike, withTerm } from './places';

const plan: Plan = {
  ...emptyPlan('Line'),
  sites: [
    { id: 'skerrow', name: 'Skerrow Pier', timeZone: 'UTC', tags: ['quay', 'west'] },
    { id: 'havn', name: 'Gamle havn', timeZone: 'UTC' },
  ],
  screens: [
    { id: 'a', name: 'Pier hall', site: 'skerrow', width: 1920, height: 1080, tags: ['hall'] },
    { id: 'b', name: 'Gangway', site: 'skerrow', width: 1080, height: 1920, tags: ['pier-end'] },
    { id: 'c', name: 'Gangway', site: 'havn', width: 1080, height: 1920 },
  ],
};
const names = (text: string) =>
  placesLike(plan, text).map(({ name, what, screens }) => `${name} (${what}, ${screens})`);

describe('what may be meant', () => {
  it('is tags, sites and screens that are called so, and a tag that no screen has after all of them', () => {
    expect(names('pier')).toEqual([
      'pier-end (tag, 1)',
      'Skerrow Pier (site, 2)',
      'Skerrow Pier · Gangway (1080 × 1920, 1)',
      'Skerrow Pier · Pier hall (1920 × 1080, 1)',
      'pier (tag, 0)',
    ]);
  });
  it('tells two screens of one name apart by their site', () => {
    expect(names('gangw')).toEqual([
      'Gamle havn · Gangway (1080 × 1920, 1)',
      'Skerrow Pier · Gangway (1080 × 1920, 1)',
      'gangw (tag, 0)',
    ]);
  });
  it('is found in quotes that are not closed yet, and by more words', () => {
    expect(names('"gamle h')).toEqual([
      'Gamle havn (site, 1)',
      'Gamle havn · Gangway (1080 × 1920, 1)',
      'gamle-h (tag, 0)',
    ]);
  });
  it('counts the screens of a tag that is written out', () => {
    expect(names('QUAY')).toEqual(['quay (tag, 2)']);
    expect(names(' ')).toEqual([]);
  });
});

describe('the part that is being written', () => {
  it.each([
    ['quay and skerrow p|', 'skerrow p'],
    ['quay and skerrow p| or hall', 'skerrow p'],
    ['not (ha|', 'ha'],
    ['(ha|) and quay', 'ha'],
    ['|', ''],
    ['quay and |', ''],
    ['nothing or sandy|', 'sandy'],
    ['qu|ay', 'quay'],
  ])('in %s is %j', (marked, text) => {
    const caret = marked.indexOf('|');
    expect(fragmentAt(marked.replace('|', ''), caret).text).toBe(text);
  });
  it('gives way to what is chosen, and nothing else does', () => {
    const text = '(quay and  ska ) or hall';
    const fragment = fragmentAt(text, 14);
    expect(withTerm(text, fragment, '"Skerrow Pier"')).toEqual({
      text: '(quay and  "Skerrow Pier" ) or hall',
      caret: 25,
    });
  });
});
