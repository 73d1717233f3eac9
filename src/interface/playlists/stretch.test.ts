import type { Turn } from '@/core/forecast';
import type { Plan } from '@/core/plan';
import { hasSeconds, stretched, turnsWith } from './stretch';

test.each([
  [10_000, 2_300, false, 12_500],
  [10_000, 2_300, true, 12_300],
  [10_000, -2_749, false, 7_500],
  [10_000, 0, false, 10_000],
  [10_000, -60_000, false, 1_000],
  [10_000, -60_000, true, 1_000],
  [10_000, 5e9, false, 3_600_000],
  // What was typed more exactly snaps as it is pulled.
  [10_130, 40, true, 10_200],
])('%d ms, pulled by %d ms (fine: %s), last %d ms', (durationMs, byMs, fine, ms) => {
  expect(stretched(durationMs, byMs, fine)).toBe(ms);
});

test('the turns after one that is stretched move along, whatever item they are of', () => {
  const turn = (item: number, startMs: number, durationMs: number) =>
    ({ media: `f${item}`, item, startMs, durationMs, of: {} }) as unknown as Turn;
  const turns = [turn(0, 0, 5_000), turn(1, 5_000, 2_000), turn(0, 7_000, 5_000), turn(2, 12_000, 1_000)];
  const times = (all: readonly Turn[]) => all.map(({ startMs, durationMs }) => [startMs, durationMs]);
  expect(times(turnsWith(turns, 0, 6_000))).toEqual([
    [0, 6_000],
    [6_000, 2_000],
    [8_000, 6_000],
    [14_000, 1_000],
  ]);
  expect(turnsWith(turns, 7, 6_000)).toEqual(turns);
  expect(times(turns)[1]).toEqual([5_000, 2_000]);
});

test('pictures and what a rule collects last as long as one says; films, sounds and playlists as long as they are', () => {
  const plan = {
    media: [
      { id: 'still', kind: 'image', width: 4, height: 3 },
      { id: 'film', kind: 'video', width: 4, height: 3, durationMs: 5_000 },
      { id: 'tone', kind: 'sound', durationMs: 5_000 },
    ],
    playlists: [],
  } as unknown as Plan;
  const items = [{ media: 'still' }, { collect: 'winter' }, { media: 'film' }, { media: 'tone' }, { playlist: 'loop' }];
  expect(items.map((item) => hasSeconds(plan, item))).toEqual([true, true, false, false, false]);
});
