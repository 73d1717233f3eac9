import type { Turn } from '@/core/forecast';
import { stepFrom, turnAt } from './loop-clock';

const OF = { media: '', durationMs: 1, when: [] };
const turns = [0, 2_000, 5_000].map((startMs, i): Turn => ({
  media: `m${i}`,
  startMs,
  durationMs: [2_000, 3_000, 1_000][i] ?? 0,
  item: i,
  of: OF,
}));

test('a turn goes from its beginning to just before its end; past the pass the last one stands', () => {
  expect([0, 1_999, 2_000, 4_999, 5_000, 9_000].map((ms) => turnAt(turns, ms)?.media)).toEqual([
    ...['m0', 'm0', 'm1', 'm1', 'm2', 'm2'],
  ]);
  expect(turnAt([], 0)).toBeUndefined();
});

test('steps go from turn to turn, round and round, either way', () => {
  expect([0, 1_500, 2_000, 5_500].map((ms) => stepFrom(turns, ms, 1))).toEqual([2_000, 2_000, 5_000, 0]);
  expect([0, 1_500, 2_000, 5_500].map((ms) => stepFrom(turns, ms, -1))).toEqual([5_000, 5_000, 0, 2_000]);
  expect(stepFrom([], 0, 1)).toBe(0);
});
