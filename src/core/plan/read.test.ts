import { readFileSync } from 'node:fs';
import * as z from 'zod';
import { problemsOf } from '@/core/plan';
import { emptyPlan, planJsonSchema, pointer, readPlan } from '.';
import { readRows } from '../tests/rows';

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

test('a plan is read with its defaults: priority 3, always', () => {
  const read = readPlan(valid());
  expect(read.ok && read.value.bookings[0]).toMatchObject({ priority: 3, when: {} });
});

test('RFC 6901 section 5: ~ and / are escaped in pointers', () => {
  expect(pointer(['a/b', 'm~n', 0, ''])).toBe('/a~1b/m~0n/0/');
});

interface Mistake {
  readonly what: string;
  /** Where something is set, as a JSON Pointer (RFC 6901), and what; null takes it away. */
  readonly in: string;
  readonly set: Readonly<Record<string, unknown>>;
  /** The places of the mistakes with what is said of them, in any order. */
  readonly said: readonly string[];
}

test.each(readRows<Mistake>('plan/mistakes.jsonl'))('$what is told at its place', ({ in: where, set, said }) => {
  const plan = JSON.parse(JSON.stringify(valid())) as Record<string, unknown>;
  const object = where
    .split('/')
    .slice(1)
    .reduce((at, key) => at[key] as Record<string, unknown>, plan);
  for (const [key, value] of Object.entries(set))
    if (value === null) Reflect.deleteProperty(object, key);
    else object[key] = value;
  const read = readPlan(plan);
  expect((read.ok ? [] : read.problems.map(({ path, message }) => `${path}: ${message}`)).sort()).toEqual(
    [...said].sort(),
  );
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
    ...{ calendars: [], media: [], playlists: [], profiles: [], sites: [], screens: [], bookings: [] },
    ...{ bulletins: [], cues: [], layouts: [], boards: [] },
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
