import type { Turn } from '@/core/forecast';
import { itemAt } from './use-carry';

test('the item at a time of a pass is that whose turn it is; beyond its end the last one', () => {
  const turn = (item: number, startMs: number, durationMs: number) =>
    ({ media: `f${item}`, item, startMs, durationMs, of: {} }) as unknown as Turn;
  const turns = [turn(0, 0, 5_000), turn(2, 5_000, 2_000), turn(1, 7_000, 5_000)];
  expect([-1, 0, 4_999, 5_000, 6_999, 7_000, 11_999, 12_000, 99_000].map((ms) => itemAt(turns, ms))).toEqual([
    0, 0, 0, 2, 2, 1, 1, 1, 1,
  ]);
  expect(itemAt([], 0)).toBeUndefined();
});
