import { readPairings } from './pairings';

const place = (id: string, name: string, site: string, wall: string | null = null) => ({
  ...{ id, screen: id.split('/')[0] ?? id, name, site, wall },
});
const places = [
  place('quay-hall', 'Departure hall', 'Quay'),
  place('quay-cafe', 'Café', 'Quay'),
  place('pier-hall', 'Departure hall', 'Pier'),
  place('pier-wall/1', 'Big wall, row 1, column 1', 'Pier', 'Big wall'),
  place('pier-wall/2', 'Big wall, row 1, column 2', 'Pier', 'Big wall'),
];
const read = (text: string, free = ['quay-hall', 'quay-cafe'], chosen?: ReadonlyMap<string, string>) =>
  readPairings(
    text,
    places.map((one) => ({ ...one, isFree: free.includes(one.id) })),
    chosen,
  ).map(({ code, screen, problem }) => `${code} ${screen ?? '-'}${problem ? ` ${problem}` : ''}`);

test.each([
  ['codes alone get the free screens in order', 'bcdf-ghjk\nLMNP QRST', ['BCDF-GHJK quay-hall', 'LMNP-QRST quay-cafe']],
  [
    'a name beside a code, whatever its accents and case',
    'BCDFGHJK cafe\n\nLMNP-QRST',
    ['BCDF-GHJK quay-cafe', 'LMNP-QRST quay-hall'],
  ],
  [
    'from a spreadsheet, in either order',
    '"Pier Departure hall";bcdf-ghjk\nLMNP-QRST,quay-cafe',
    ['BCDF-GHJK pier-hall', 'LMNP-QRST quay-cafe'],
  ],
  [
    'a name of two',
    'BCDF-GHJK Departure hall',
    ['BCDF-GHJK - 2 screens are called “Departure hall”. Write the site before it, or choose one.'],
  ],
  ['a name of none', 'BCDF-GHJK Gangway', ['BCDF-GHJK - No screen is called “Gangway”. Choose one.']],
  ['no code', 'Departure', ['Departure - A code has eight letters, like BCDF-GHJK.']],
  [
    'a code twice',
    'BCDF-GHJK\nBCDFGHJK',
    ['BCDF-GHJK quay-hall', 'BCDF-GHJK quay-cafe This code is in the list twice.'],
  ],
  [
    'a screen twice',
    'BCDF-GHJK café\nLMNP-QRST quay café',
    ['BCDF-GHJK quay-cafe', 'LMNP-QRST quay-cafe This screen is in the list twice.'],
  ],
] as const)('%s', (_what, text, lines) => {
  expect(read(text)).toEqual(lines);
});

test('more codes than free screens, and screens that a person chose', () => {
  expect(read('BCDF-GHJK\nLMNP-QRST', ['quay-cafe'])).toEqual([
    'BCDF-GHJK quay-cafe',
    'LMNP-QRST - No screen without a player is left. Choose one.',
  ]);
  expect(read('BCDF-GHJK Gangway\nLMNP-QRST', ['quay-cafe'], new Map([['BCDF-GHJK', 'pier-hall']]))).toEqual([
    'BCDF-GHJK pier-hall',
    'LMNP-QRST quay-cafe',
  ]);
});

test('a wall gives its free displays in order, also in the middle of a list; a display is named by its row and column', () => {
  const free = ['pier-wall/1', 'pier-wall/2'];
  expect(read('BCDF-GHJK big wall\nLMNP-QRST Big wall\nVWXZ-BCDF big wall', free)).toEqual([
    'BCDF-GHJK pier-wall/1',
    'LMNP-QRST pier-wall/2',
    'VWXZ-BCDF pier-wall/1 This screen is in the list twice.',
  ]);
  expect(read('BCDF-GHJK; Pier Big wall, row 1, column 2\nLMNP-QRST', free)).toEqual([
    'BCDF-GHJK pier-wall/2',
    'LMNP-QRST pier-wall/1',
  ]);
  expect(read('BCDF-GHJK pier-wall/1')).toEqual(['BCDF-GHJK pier-wall/1']);
});
