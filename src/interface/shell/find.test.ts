import { reach, type Reachable } from './find';

const thing = (name: string, what: string, hint?: string): Reachable => ({
  ...{ key: `${what} ${name}`, name, what, run: () => undefined },
  ...(hint === undefined ? {} : { hint }),
});
const list = [
  thing('Plan', 'place'),
  thing('Publish', 'place'),
  thing('Gangway', 'screen', 'Skerrow Pier'),
  thing('Gangway', 'screen', 'Brennøy Landing'),
  thing('Gangway by day', 'booking'),
  thing('Kaldavík Harbour', 'site'),
  thing('New booking', 'act'),
  thing('Book days on to others', 'act'),
];
const found = (text: string) => reach(list, text).map(({ name, hint }) => (hint ? `${name} (${hint})` : name));

test.each([
  ['pl', ['Plan', 'Publish']],
  ['p', ['Plan', 'Publish', 'Gangway (Skerrow Pier)']],
  ['gangway', ['Gangway (Skerrow Pier)', 'Gangway (Brennøy Landing)', 'Gangway by day']],
  ['gangway skerrow', ['Gangway (Skerrow Pier)']],
  ['brennoy', ['Gangway (Brennøy Landing)']],
  ['kaldavik', ['Kaldavík Harbour']],
  ['book', ['Book days on to others', 'New booking', 'Gangway by day']],
  ['booking gang', ['Gangway by day']],
  ['xyz', []],
])('%j reaches %j', (text, names) => {
  expect(found(text)).toEqual(names);
});

test('nothing written reaches what stands first, and never too many', () => {
  expect(found('')).toHaveLength(list.length);
  expect(
    reach(
      Array.from({ length: 100 }, (_, i) => thing(`Hall ${i}`, 'screen')),
      'hall',
    ),
  ).toHaveLength(24);
});
