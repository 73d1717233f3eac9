import { arrivalWords, spanWords, stepsOf } from './arrival';

const OUT = Date.parse('2026-11-27T12:00:00Z');
const arrival = (ms: number | null, i: number) => ({
  screen: `s${i}`,
  at: ms === null ? null : new Date(OUT + ms).toISOString(),
});
const said = (...times: (number | null)[]) => arrivalWords(stepsOf(times.map(arrival), OUT), times.length);

test.each<[string, (number | null)[]]>([
  ['It changed nothing on any screen.', []],
  ['The screen that it changes hasn’t updated yet.', [null]],
  ['None of the 3 screens that it changes has updated yet.', [null, null, null]],
  ['The screen that it changed was updated after 1.2 s.', [1200]],
  [
    'All 4 screens that it changed were updated: half of them within 2.0 s, the last after 40 s.',
    [900, 2000, 3000, 40_000],
  ],
  ['All 2 screens that it changed were updated: the last after 1.0 s.', [1000, 1000]],
  ['Of the 4 screens that it changes, 2 were updated so far: the last after 7.0 s.', [1000, 7000, null, null]],
  [
    'Of the 5 screens that it changes, 4 were updated so far: half of them within 3.0 s, the last after 5 h.',
    [1, 2000, 3000, 18_000_000, null],
  ],
])('%s', (words, times) => {
  expect(said(...times)).toBe(words);
});

test('steps go in order of time, and never before it went out', () => {
  expect(stepsOf([3000, null, -50, 1000].map(arrival), OUT)).toEqual([
    { at: 0, count: 1 },
    { at: 1000, count: 2 },
    { at: 3000, count: 3 },
  ]);
});

test.each([
  [0, '0.0 s'],
  [9_940, '9.9 s'],
  [10_000, '10 s'],
  [119_000, '119 s'],
  [120_000, '2 min'],
  [7_200_000, '2 h'],
  [172_800_000, '2 days'],
])('%d ms are %s', (ms, words) => {
  expect(spanWords(ms)).toBe(words);
});
