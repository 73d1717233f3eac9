import { nameSchema, selectorSchema, tagsSchema } from './fields';
import { bookingSchema } from './kinds/booking';
import { calendarSchema } from './kinds/calendar';
import { playlistSchema } from './kinds/playlist';
import { whenSchema } from '../when/schema';
import type * as z from 'zod';

const FAMILY = '👨‍👩‍👧‍👦';
const said = (schema: z.ZodType, value: unknown) =>
  schema.safeParse(value).error?.issues.map(({ message }) => message) ?? [];

test.each([
  ['nothing', '', ['Write a name.']],
  ['spaces of no width', '\u200b\u2060 \u00a0', ['Write a name.']],
  ['fillers that look like nothing', '\u3164\u2800', ['Write a name.']],
  ['NUL', 'Hall\u0000', ['A name contains a character that can’t be stored. Please type it again.']],
  ['half a character', 'Hall \ud83d', ['A name contains a character that can’t be stored. Please type it again.']],
  ['two lines', 'Hall\nDeck', ['A name must be one line. Remove line breaks and control characters.']],
  [
    'a colour for a terminal',
    '\u001b[31mHall',
    ['A name must be one line. Remove line breaks and control characters.'],
  ],
  ['121 letters', 'x'.repeat(121), ['A name has at most 120 characters.']],
  [
    'one letter with a thousand marks',
    `e${'\u0301'.repeat(1300)}`,
    ['A name is too long. Remove accents and composed characters.'],
  ],
])('a name of %s is refused', (_, name, sentences) => {
  expect(said(nameSchema, name)).toEqual(sentences);
});

test.each([
  ['as people write it', ' Łódź, quay 2 \u200b', 'Łódź, quay 2'],
  ['in a script from right to left', 'מזח', 'מזח'],
  ['of 100 families', FAMILY.repeat(100), FAMILY.repeat(100)],
  ['of 120 letters', 'x'.repeat(120), 'x'.repeat(120)],
])('a name %s is taken, trimmed', (_, name, kept) => {
  expect(nameSchema.parse(name)).toBe(kept);
});

test('limits: selectors, tags, lists, rules and spans end somewhere, with a sentence', () => {
  const many = <T>(count: number, one: T) => Array.from({ length: count }, () => one);
  expect(said(selectorSchema, many(250, 'hall').join(' or '))).toEqual([]);
  expect(said(selectorSchema, many(400, 'hall').join(' or '))).toEqual([
    expect.stringContaining('at most 2000 characters'),
  ]);
  expect(said(selectorSchema, 'x'.repeat(2000))).toEqual([]);
  expect(said(tagsSchema, many(101, 'a'))).toEqual(['You can set at most 100 tags.']);
  expect(said(whenSchema, { from: '2026-01-01', repeat: `FREQ=DAILY;BYMONTH=${many(300, '1').join()}` })).toEqual([
    'A rule has at most 500 characters.',
  ]);
  expect(said(whenSchema, { also: many(4001, '2026-01-01') })).toEqual([expect.stringContaining('at most 4000 dates')]);
  expect(said(whenSchema, { windows: many(101, ['06:00', '07:00']) })).toEqual([
    'There are at most 100 windows in a day.',
  ]);
  expect(said(whenSchema, { from: '0001-01-01' })).toEqual(['A date lies between 1900 and 2999.']);
  expect(said(whenSchema, { from: '1900-01-01', to: '2999-12-31' })).toEqual([]);
  const calendar = (dates: unknown) => said(calendarSchema, { id: 'c', name: 'C', dates });
  expect(calendar([['1950-01-01', '2049-12-31']])).toEqual([]);
  expect(calendar([['1900-01-01', '2999-12-31']])).toEqual([expect.stringContaining('at most 36525 days')]);
  expect(calendar(many(4001, '2026-01-01'))).toEqual(['A calendar has at most 4000 dates and spans.']);
  const items = (list: unknown) => said(playlistSchema, { id: 'p', name: 'P', items: list });
  expect(items(many(5000, { media: 'flag' }))).toEqual([]);
  expect(items(many(5001, { media: 'flag' }))).toEqual([expect.stringContaining('at most 5000 items')]);
  expect(items([{ collect: 'a', limit: 1e12 }])).toEqual(['The limit is at most 50 000.']);
});

test('a booking with half a character anywhere is none', () => {
  const booking = { id: 'b', name: 'B', content: { media: 'flag' }, where: 'all', created: '2026-01-01T00:00:00Z' };
  expect(bookingSchema.safeParse(booking).success).toBe(true);
  for (const wrong of [
    { where: 'hall\u0000' },
    { where: '\ud800' },
    { content: { media: 'fl\u0000ag' } },
    { created: '2026-01-01T00:00:00Z\u0000' },
    { id: 'b\u0000' },
  ])
    expect([wrong, bookingSchema.safeParse({ ...booking, ...wrong }).success]).toEqual([wrong, false]);
});
