import type { ProgramDocument } from '@/core/edition';
import { programOf } from '@/core/tests/program-of';
import { smallPlan } from '@/core/tests/small-plan';
import { FIRST_DAY, needsOf } from './needs';

const NOW = Date.UTC(2026, 10, 25, 12);
const HOUR = 3_600_000;
const DAY = 24 * HOUR;

/** The program of a screen whose backdrop is a loop of `one` and `two`, 10 s each, with bookings of other files. */
function program(bookings: object[], same: Record<string, string> = {}): ProgramDocument {
  const hours = (media: string) => ({ media, durationMs: HOUR });
  const plan = smallPlan({
    network: { backdrop: { playlist: 'loop' } },
    screens: ['hall'],
    media: ['one', 'two', 'day', 'week', 'spring', 'far', 'long'].map((id, i) => ({
      ...{ id, sha256: (same[id] ?? String(i)).padStart(64, '0'), type: 'image/png' },
    })),
    playlists: [
      { id: 'loop', items: ['one', 'two'] },
      { id: 'pair', items: [hours('day'), hours('long')] },
    ],
    bookings,
  });
  return programOf(plan, 'hall').document;
}

/** What is needed, by the file's name, in hours from now. */
const needs = (document: ProgramDocument, now = NOW) =>
  needsOf(document, now).map(({ asset, by }) => [
    Object.keys(document.assets).find((id) => document.assets[id]?.sha256 === asset.sha256),
    (by - now) / HOUR,
  ]);

test('in the first day a file is needed when its play begins: what is on by now at once, the next after it', () => {
  expect(needs(program([]), NOW + 4_000)).toEqual([
    ['one', 0],
    ['two', 6_000 / HOUR],
  ]);
});

test('what a booking shows is needed when it begins, each item when its turn comes', () => {
  const when = { windows: [['14:00', '17:00']] };
  expect(needs(program([{ content: { playlist: 'pair' }, when }])).slice(2)).toEqual([
    ['day', 2],
    ['long', 3],
  ]);
});

test('an item that no window of the first day reaches is needed from the beginning all the same', () => {
  const when = { from: '2026-11-25', to: '2026-11-25', windows: [['14:00', '14:30']] };
  expect(needs(program([{ content: { playlist: 'pair' }, when }])).slice(2)).toEqual([
    ['day', 2],
    ['long', 2],
  ]);
});

test('behind the first day a whole loop is needed when its segment begins', () => {
  const begins = (NOW + FIRST_DAY - Date.UTC(2026, 10, 26)) / HOUR;
  expect(begins).toBe(12);
  const when = { from: '2026-11-26', to: '2026-11-26', windows: [['12:00', '15:00']] };
  expect(needs(program([{ content: { playlist: 'pair' }, when }])).slice(2)).toEqual([
    ['day', 24],
    ['long', 24],
  ]);
});

test('what is due first stands first; what is not within sight has no time, and stands last', () => {
  const on = (day: string) => ({ from: day, to: day });
  const all = program([
    { content: { media: 'far' }, when: on('2027-03-01') },
    { content: { media: 'spring' }, when: on('2026-12-25') },
    { content: { media: 'week' }, when: on('2026-12-01') },
  ]);
  expect(needs(all).slice(2)).toEqual([
    ['week', (5 * DAY + 12 * HOUR) / HOUR],
    ['spring', (29 * DAY + 12 * HOUR) / HOUR],
    ['far', Infinity],
  ]);
});

test('the same bytes under two names are one need, by the earlier of their times', () => {
  const when = { windows: [['14:00', '15:00']] };
  const shared = program(
    [
      { content: { media: 'week' }, when: { from: '2026-12-01' } },
      { content: { media: 'day' }, when },
    ],
    {
      week: '77',
      day: '77',
    },
  );
  expect(needsOf(shared, NOW)).toHaveLength(3);
  expect(needs(shared)[2]?.[1]).toBe(2);
});
