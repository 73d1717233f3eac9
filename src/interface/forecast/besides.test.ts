import { besidesWords, leastOf } from './besides';

const HOUR = 3_600_000;

test.each([
  [0, 0, 'changes nothing else.'],
  [1, 20_000, 'also changes 1 screen, for up to 1 min.'],
  [3, 45 * 60_000, 'also changes 3 screens, for up to 45 min.'],
  [12, 26 * HOUR, 'also changes 12 screens, for up to 26 h.'],
])('%s screens for %s ms: %s', (screens, longestMs, words) => {
  expect(besidesWords({ screens, longestMs })).toBe(words);
});

test('the least is on the fewest screens, then shortest; none where all are alike', () => {
  const one = (screens: number, longestMs: number) => ({ screens, longestMs });
  expect(leastOf([one(3, HOUR), one(0, 0)])).toBe(1);
  expect(leastOf([one(2, HOUR), one(2, 2 * HOUR)])).toBe(0);
  expect(leastOf([one(2, HOUR), one(2, HOUR)])).toBeNull();
  expect(leastOf([])).toBeNull();
});
