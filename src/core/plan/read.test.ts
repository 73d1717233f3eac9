import { readFileSync } from 'node:fs';
import * as z from 'zod';
import { problemsOf } from '@/core/plan';
import { emptyPlan, planJsonSchema, pointer, readPlan } from '.';

const valid = () => ({
  format: 'lanternpost/plan',
  version: 1,
  network: { name: 'Ternholm Line', defaultDurationMs: 10000, backdrop: { playlist: 'house' } },
  calendars: [{ id: 'storm-days', name: 'Storm timetable', dates: ['2026-12-05', ['2026-12-24', '2026-12-26']] }],
  sites: [
    {
      id: 'sillarvik',
      name: 'Sillarvik Quay',
      timeZone: 'Europe/Oslo',
      tags: ['quay'],
      hours: { weekly: { MO: [['05:30', '22:00']], SU: [] }, dates: { '2026-12-25': [] } },
    },
  ],
  screens: [
    {
      id: 'sillarvik-hall',
      name: 'Hall',
      site: 'sillarvik',
      width: 1920,
      height: 1080,
      lightsOut: [{ windows: [['23:30', '04:45']] }],
    },
  ],
  media: [
    { id: 'flag', name: 'Flag', kind: 'image', width: 3840, height: 2160, bytes: 1, added: '2026-11-01T09:00:00Z' },
  ],
  playlists: [
    {
      id: 'house',
      name: 'House',
      items: [
        { media: 'flag', durationMs: 8000 },
        { collect: 'poster and not winter', order: 'newest', limit: 5 },
      ],
    },
  ],
  bookings: [
    { id: 'morning', name: 'Morning', content: { media: 'flag' }, where: 'quay', created: '2026-11-03T10:00:00Z' },
  ],
});

type Document = ReturnType<typeof valid> & Record<string, unknown>;

function errorsAfter(change: (plan: Document) => void): string[] {
  const plan = valid() as Document;
  change(plan);
  const read = readPlan(plan);
  return !read.ok ? read.problems.map((error) => error.path) : [];
}

test('a plan is read with its defaults: priority 3, always', () => {
  const read = readPlan(valid());
  expect(read.ok && read.value.bookings[0]).toMatchObject({ priority: 3, when: {} });
});

test('RFC 6901 section 5: ~ and / are escaped in pointers', () => {
  expect(pointer(['a/b', 'm~n', 0, ''])).toBe('/a~1b/m~0n/0/');
});

test.each<[string, (plan: Document) => void, string[]]>([
  ['an unknown field', (plan) => Object.assign(plan.screens[0] as object, { colour: 'red' }), ['/screens/0/colour']],
  [
    'a dangling media id',
    (plan) => Object.assign(plan.bookings[0] as object, { content: { media: 'gone' } }),
    ['/bookings/0/content/media'],
  ],
  ['a dangling site', (plan) => Object.assign(plan.screens[0] as object, { site: 'nowhere' }), ['/screens/0/site']],
  [
    'a dangling calendar',
    (plan) => Object.assign(plan.bookings[0] as object, { when: { only: ['x'] } }),
    ['/bookings/0/when/only/0'],
  ],
  [
    'a playlist that contains itself by way of another',
    (plan) =>
      (plan.playlists as unknown[]).push(
        { id: 'a', name: 'A', items: [{ playlist: 'b' }] },
        { id: 'b', name: 'B', items: [{ playlist: 'a' }] },
      ),
    ['/playlists/1/items/0/playlist', '/playlists/2/items/0/playlist'],
  ],
  [
    'a bad rule',
    (plan) => Object.assign(plan.bookings[0] as object, { when: { from: '2026-01-01', repeat: 'FREQ=SOMETIMES' } }),
    ['/bookings/0/when/repeat'],
  ],
  [
    'a repeat without its first date',
    (plan) => Object.assign(plan.bookings[0] as object, { when: { repeat: 'FREQ=DAILY' } }),
    ['/bookings/0/when/from'],
  ],
  [
    'a bad zone',
    (plan) => Object.assign(plan.sites[0] as object, { timeZone: 'Europe/Atlantis' }),
    ['/sites/0/timeZone'],
  ],
  ['a bad selector', (plan) => Object.assign(plan.bookings[0] as object, { where: 'quay and' }), ['/bookings/0/where']],
  [
    'a bad window',
    (plan) => Object.assign(plan.bookings[0] as object, { when: { windows: [['24:00', '25:00']] } }),
    ['/bookings/0/when/windows/0/0', '/bookings/0/when/windows/0/1'],
  ],
  [
    'opens on a named clock',
    (plan) =>
      Object.assign(plan.bookings[0] as object, { when: { clock: 'Europe/Oslo', windows: [['opens', '10:00']] } }),
    ['/bookings/0/when/windows/0/0'],
  ],
  [
    'a duration under 100 ms',
    (plan) => Object.assign(plan.playlists[0]?.items[0] as object, { durationMs: 99 }),
    ['/playlists/0/items/0/durationMs'],
  ],
  [
    'a date that does not exist',
    (plan) => Object.assign(plan.bookings[0] as object, { when: { from: '2026-02-30' } }),
    ['/bookings/0/when/from'],
  ],
  ['an id twice', (plan) => (plan.media as unknown[]).push(plan.media[0]), ['/media/1/id']],
  [
    'two contents',
    (plan) => Object.assign(plan.bookings[0] as object, { content: { media: 'flag', playlist: 'house' } }),
    ['/bookings/0/content'],
  ],
  [
    'an order without a collecting rule',
    (plan) => Object.assign(plan.playlists[0]?.items[0] as object, { order: 'name' }),
    ['/playlists/0/items/0/order'],
  ],
  ['another format', (plan) => Object.assign(plan, { format: 'something/else' }), ['/format']],
])('%s is an error at its place', (_name, change, paths) => {
  expect(errorsAfter(change)).toEqual(paths);
});

test('all mistakes are reported at once, those of shape and those between parts', () => {
  const paths = errorsAfter((plan) => {
    Object.assign(plan.network, { defaultDurationMs: 'ten' });
    Object.assign(plan.sites[0] as object, { timeZone: 'Nowhere' });
    Object.assign(plan.screens[0] as object, { site: 'gone', height: 0 });
  });
  expect(paths.sort()).toEqual([
    '/network/defaultDurationMs',
    '/screens/0/height',
    '/screens/0/site',
    '/sites/0/timeZone',
  ]);
});

test.each([null, 42, 'plan', [], { format: 'lanternpost/plan' }])('%j is no plan, and says so', (document) => {
  const read = readPlan(document);
  expect(!read.ok && read.problems.length).toBeGreaterThan(0);
});

test('the JSON Schema in docs is current: the command `schema` writes it', () => {
  expect(JSON.parse(readFileSync('docs/plan.schema.json', 'utf8'))).toEqual(
    JSON.parse(JSON.stringify(planJsonSchema())),
  );
});

test('an empty plan is one, and the network itself may refer to what is not there', () => {
  const empty = emptyPlan('Line');
  expect(readPlan(empty)).toEqual({ ok: true, value: empty });
  expect(empty).toEqual({
    ...{ format: 'lanternpost/plan', version: 1, network: { name: 'Line' } },
    ...{ calendars: [], media: [], playlists: [], sites: [], screens: [], bookings: [] },
  });
  const dangling = readPlan({ ...empty, network: { name: 'Line', backdrop: { media: 'gone' } } });
  expect(dangling).toMatchObject({
    ok: false,
    problems: [
      { path: '/network/backdrop/media', message: 'There is no media file “gone”. Name one that is in the plan.' },
    ],
  });
});

test.each([null, 'text', 7, [], { sites: 'none' }, { sites: [null, 7, { id: 3 }] }])(
  '%j is no plan, and breaks nothing',
  (value) => {
    expect(readPlan(value)).toMatchObject({ ok: false, message: 'This plan file has mistakes, so nothing was read.' });
  },
);

test('what is of a wrong kind, missing or unknown is told in plain words', () => {
  const said = (change: (plan: Document) => void) => {
    const plan = valid() as Document;
    change(plan);
    const read = readPlan(plan);
    return read.ok ? [] : read.problems.map(({ path, message }) => `${path}: ${message}`);
  };
  expect(said((plan) => ((plan.screens[0] as Record<string, unknown>).width = 'wide'))).toEqual([
    '/screens/0/width: A size is a whole number of pixels.',
  ]);
  expect(said((plan) => ((plan.screens[0] as Record<string, unknown>).name = 7))).toEqual([
    '/screens/0/name: This must be a text.',
  ]);
  expect(said((plan) => delete (plan.sites[0] as Record<string, unknown>).name)).toEqual([
    '/sites/0/name: This is missing. Give a text.',
  ]);
  expect(said((plan) => Object.assign(plan.media[0] ?? {}, { mood: 1, 'a/b': 2 }))).toEqual([
    '/media/0/mood: “mood” is unknown here. Remove it.',
    '/media/0/a~1b: “a/b” is unknown here. Remove it.',
  ]);
});

describe('what is not of the right form is told in words', () => {
  const told = (change: (plan: ReturnType<typeof valid>) => void) => {
    const plan = valid();
    change(plan);
    const read = readPlan(plan);
    return read.ok ? [] : read.problems.map(({ path, message }) => `${path}: ${message}`);
  };
  type Loose = Record<string, unknown>;
  test.each<[string, (plan: ReturnType<typeof valid>) => void, string]>([
    [
      'two of one id',
      (plan) => plan.media.push({ ...plan.media[0] } as never),
      '/media/1/id: Another entry already has the id “flag”.',
    ],
  ])('%s', (_, change, sentence) => {
    expect(told(change)).toEqual([expect.stringContaining(sentence)]);
  });

  test('what is no text is no id, and is told once, as what it is', () => {
    expect(told((plan) => void ((plan.media[0] as Loose).id = 7))).toEqual(
      expect.arrayContaining([expect.stringMatching(/^\/media\/0\/id: This must be a text/)]),
    );
  });
});

test('what a schema has no sentence for has one of ours', () => {
  const schema = z.object({
    word: z.enum(['one', 'other']),
    text: z.string().max(3).min(2),
    list: z.array(z.number()).max(2).min(1),
    number: z.number().max(5).min(2),
  });
  const told = (value: object) => {
    const read = schema.safeParse(value, { error: () => undefined });
    return read.success ? [] : problemsOf(read.error).map(({ message }) => message);
  };
  expect(told({ word: 'none', text: 'long', list: [1, 2, 3], number: 9 })).toEqual([
    'This must be "one" or "other".',
    'This has at most 3 characters.',
    'This list has at most 2 entries.',
    'This is at most 5.',
  ]);
  expect(told({ word: 'one', text: 'x', list: [], number: 1 })).toEqual([
    'This has at least 2 characters.',
    'This list has at least 1 entry.',
    'This is at least 2.',
  ]);
  expect(told({ word: 'one', text: 7, list: {}, number: '3' })).toEqual([
    'This must be a text.',
    'This must be a list.',
    'This must be a number.',
  ]);
});
