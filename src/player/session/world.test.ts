import { about, backoffMs, realWorld } from './world';

const chance = (random: number) => ({ random: () => random });

test('after each failure it waits twice as long, up to a minute, and never in step with others', () => {
  expect([0, 1, 2, 3, 4, 5, 40].map((failures) => backoffMs(failures, chance(1)))).toEqual([
    ...[2_000, 4_000, 8_000, 16_000, 32_000, 60_000, 60_000],
  ]);
  expect([0, 1, 40].map((failures) => backoffMs(failures, chance(0)))).toEqual([400, 800, 12_000]);
  expect(backoffMs(0, chance(0.5))).toBeCloseTo(1_200);
});

test('what is done again and again drifts by a tenth either way', () => {
  expect([0, 0.5, 1].map((random) => about(1_000, chance(random)))).toEqual([900, 1_000, 1_100]);
});

test('waiting ends with its time, or when it is called off', async () => {
  jest.useFakeTimers();
  const stop = new AbortController();
  const ended: string[] = [];
  void realWorld.wait(1_000, new AbortController().signal).then(() => ended.push('time'));
  void realWorld.wait(60_000, stop.signal).then(() => ended.push('called off'));
  void realWorld.wait(60_000, AbortSignal.abort()).then(() => ended.push('called off before'));
  await jest.advanceTimersByTimeAsync(999);
  expect(ended).toEqual(['called off before']);
  await jest.advanceTimersByTimeAsync(1);
  expect(ended).toEqual(['called off before', 'time']);
  stop.abort();
  await jest.advanceTimersByTimeAsync(0);
  expect(ended).toEqual(['called off before', 'time', 'called off']);
  expect(jest.getTimerCount()).toBe(0);
  jest.useRealTimers();
});
