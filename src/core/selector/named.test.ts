import { readSelectorNames, selectorWithNames } from './named';
import { parseSelector } from './selector';

const places = {
  sites: [
    { id: 'skerrow', name: 'Skerrow Pier' },
    { id: 'kaldavik', name: 'Kaldavík Harbour' },
    { id: 'odd', name: 'The "Old" Quay' },
    { id: 'and', name: 'and' },
  ],
  screens: [
    { id: 's-gangway', name: 'Gangway', site: 'skerrow' },
    { id: 'k-gangway', name: 'Gangway', site: 'kaldavik' },
    { id: 'k-cafe', name: 'Harbour café', site: 'kaldavik' },
    { id: 'named-as-site', name: 'Skerrow Pier', site: 'kaldavik' },
  ],
};

describe('a selector with names', () => {
  it.each([
    ['"Skerrow Pier"', 'site:skerrow'],
    ['"skerrow  pier" and hall', 'site:skerrow and hall'],
    ['“Kaldavík Harbour” and not "Kaldavík Harbour · Harbour café"', 'site:kaldavik and not screen:k-cafe'],
    ['"Kaldavík Harbour, Gangway"', 'screen:k-gangway'],
    ['"Harbour café"', 'screen:k-cafe'],
    ['not "Gangway"', 'not (screen:s-gangway or screen:k-gangway)'],
    ['"The Old Quay" or "and"', 'site:odd or site:and'],
    ['quay and hall', 'quay and hall'],
    ['', ''],
  ])('%s is %s', (text, selector) => {
    expect(readSelectorNames(text, places)).toEqual({ ok: true, value: selector });
  });

  it.each([
    ['hall and "Nowhere"', 'No site and no screen is called “Nowhere”.', 9],
    ['hall and "Skerrow', 'A name starts with " but has no closing ". Add one.', 9],
    ['""', 'No site and no screen is called “”.', 0],
  ])('%s is told', (text, message, at) => {
    expect(readSelectorNames(text, places)).toMatchObject({ ok: false, message, problems: [{ at }] });
  });

  it.each([
    ['site:skerrow and not Screen:K-Cafe', '"Skerrow Pier" and not "Kaldavík Harbour · Harbour café"'],
    ['(site:odd or hall)', '("The Old Quay" or hall)'],
    ['site:gone or brand:site', 'site:gone or brand:site'],
    ['screen:named-as-site', '"Kaldavík Harbour · Skerrow Pier"'],
  ])('%s is shown as %s, and read back', (selector, text) => {
    expect(selectorWithNames(selector, places)).toBe(text);
    const back = readSelectorNames(text, places);
    expect(back.ok && parseSelector(back.value)).toEqual(parseSelector(selector));
  });

  it('shows the id where two would have one name', () => {
    const twice = { ...places, sites: [...places.sites, { id: 'skerrow-2', name: 'Skerrow, pier' }] };
    expect(selectorWithNames('site:skerrow', twice)).toBe('site:skerrow');
  });
});
