import { smallPlan } from '../../tests/small-plan';
import { readScreens } from '.';

const plan = smallPlan({
  sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo', tags: ['coast'] }],
  screens: [{ id: 'hall', name: 'Departure hall', site: 'quay', width: 1920, height: 1080, tags: ['hall'] }],
  profiles: [{ id: 'led', name: 'LED wall' }],
});
const read = (text: string) => readScreens(text, plan);
const told = (text: string) =>
  read(text).lines.map(({ line, name, what, problem }) => `${line} ${name}: ${problem ?? what}`);

test('new screens, changed ones and those that are the same, with tags that their site has left out', () => {
  const text = `Id,Screen,Site,Size,Tags,Profile,Notes
hall,Departure hall,Quay,1920 × 1080,"hall, coast",,
,Café,quay,1080x1920,"Sea View; cafe",led wall,Behind the till
,Departure Hall,QUAY,3840x2160,,,
`;
  expect(told(text)).toEqual([
    '2 Departure hall: same',
    '3 Café: new',
    '4 Departure Hall: This screen is in the file twice.',
  ]);
  const { patches } = read(text.split('\n').slice(0, 3).join('\n'));
  expect(patches).toEqual([
    {
      kind: 'screen',
      add: {
        ...{ name: 'Café', site: 'quay', width: 1080, height: 1920, tags: ['sea-view', 'cafe'] },
        ...{ profile: 'led', notes: 'Behind the till' },
      },
    },
  ]);
  expect(read('Site;Name;Width\nQuay;Departure hall;3840').patches).toMatchObject([
    { kind: 'screen', id: 'hall', set: { width: 3840 } },
  ]);
});

test('a new site is made once, before its screens', () => {
  const { patches, newSites } = read('Screen\tSite\tTime zone\nA\tPier\tEurope/Oslo\nB\tPier\t');
  expect(newSites).toEqual(['Pier']);
  expect(patches).toEqual([
    { kind: 'site', id: 'pier', add: { name: 'Pier', timeZone: 'Europe/Oslo' } },
    { kind: 'screen', add: { name: 'A', site: 'pier', width: 1920, height: 1080 } },
    { kind: 'screen', add: { name: 'B', site: 'pier', width: 1920, height: 1080 } },
  ]);
});

test.each([
  ['Screen,Site\n,Quay', 'Write the screen’s name.'],
  ['Screen,Site\nA,', 'Write the site that it is at.'],
  ['Screen,Site\nA,Pier', '“Pier” is a new site. Write its time zone in a column “Time zone”, like Europe/Oslo.'],
  ['Screen,Site,Size\nA,Quay,large', 'Write the size as width × height in pixels, like 1920 × 1080.'],
  ['Screen,Site,Width\nA,Quay,1920', 'Write the size as width × height in pixels, like 1920 × 1080.'],
  ['Screen,Site,Size\nA,Quay,0x4', 'Write the size as width × height in pixels, like 1920 × 1080.'],
  [
    'Screen,Site,Profile\nA,Quay,Toaster',
    'There is no profile “Toaster”. Choose one from Profiles, or leave it empty.',
  ],
  ['Id,Screen\nnone,A', 'There is no screen with the id “none”. Leave the id empty to add one.'],
])('%j: %s', (text, problem) => {
  const { lines, patches } = read(`${text}\n`);
  expect([lines[0]?.problem, patches]).toEqual([problem, []]);
});

test('one wrong line keeps all of it back; a file of something else says what its first line needs', () => {
  expect(read('Screen,Site\nA,Quay\n,Quay').patches).toEqual([]);
  expect(read('Dear colleague, here are the screens\n').problem).toMatch(/^The first line has to name the columns/);
  expect(read('Screen,Site\n').problem).toBe('There is no screen in this.');
});

test('what a spreadsheet would run comes as it was written', () => {
  expect(told("Screen,Site\n'=SUM(A1),Quay")).toEqual(['2 =SUM(A1): new']);
});
