import { speedOf, timeLeft, withMark } from './rate';

const marks = (...list: [at: number, done: number][]) =>
  list.reduce<ReturnType<typeof withMark>>((known, [at, done]) => withMark(known, { at, done }), []);

describe('the speed of what is sent', () => {
  it('is that of the last eight seconds, in units a second', () => {
    expect(speedOf(marks([0, 0], [2000, 4000]))).toBe(2000);
    expect(speedOf(marks([0, 0], [10_000, 1000], [12_000, 5000]))).toBe(2000);
  });

  it('is that of another span where one is said', () => {
    const over = (windowMs: number) =>
      [
        [0, 0],
        [30_000, 3000],
        [40_000, 14_000],
      ].reduce<ReturnType<typeof withMark>>((known, [at = 0, done = 0]) => withMark(known, { at, done }, windowMs), []);
    expect(speedOf(over(90_000))).toBe(350);
    expect(speedOf(over(20_000))).toBe(1100);
  });

  it('is not known before a second is over, and begins anew when less is done than before', () => {
    expect(speedOf([])).toBeNull();
    expect(speedOf(marks([0, 0], [999, 4000]))).toBeNull();
    expect(speedOf(marks([0, 0], [2000, 4000], [2500, 100]))).toBeNull();
    expect(speedOf(marks([0, 100], [2000, 4000], [1000, 5000]))).toBeNull();
  });

  it.each([
    [100, 10, '10 s'],
    [1, 1000, '1 s'],
    [595, 10, '1 min'],
    [1800, 10, '3 min'],
    [48_000, 10, '1 h 20 min'],
    [100, 0, ''],
    [100, null, ''],
  ])('%d units at %d a second take "%s"', (left, speed, words) => expect(timeLeft(left, speed)).toBe(words));
});
