import fc from 'fast-check';
import { runs } from '../tests/runs';
import { ALWAYS, intersect, intervalAt, subtract, union, type Interval, type Intervals } from './intervals';

/** Any pairs between 0 and 20: out of order, overlapping, touching, empty, turned round. */
const pairs = fc.array(fc.tuple(fc.nat(20), fc.nat(20)), { maxLength: 6 });
const sets = pairs.map(union);
const held = (intervals: readonly Interval[], at: number) => intervals.some(([from, to]) => from <= at && at < to);
const POINTS = Array.from({ length: 43 }, (_, i) => i / 2 - 0.5);

/** Disjoint, ascending, never touching, none empty. */
const isWritten = (set: Intervals) =>
  set.every(([from, to], i) => from < to && (i === 0 || (set[i - 1] as Interval)[1] < from));

test('a union holds what any of its intervals does, in its one written form', () => {
  fc.assert(
    fc.property(pairs, (list) => {
      const set = union(list);
      expect(isWritten(set)).toBe(true);
      for (const at of POINTS) expect(held(set, at)).toBe(held(list, at));
    }),
    runs(300),
  );
});

test('what two hold, what one holds without the other, and which interval holds an instant', () => {
  fc.assert(
    fc.property(sets, sets, (a, b) => {
      const [both, less] = [intersect(a, b), subtract(a, b)];
      expect([isWritten(both), isWritten(less)]).toEqual([true, true]);
      for (const at of POINTS) {
        expect(held(both, at)).toBe(held(a, at) && held(b, at));
        expect(held(less, at)).toBe(held(a, at) && !held(b, at));
        expect(intervalAt(a, at)).toEqual(a.find((one) => held([one], at)));
      }
    }),
    runs(300),
  );
});

test('always holds everything, and costs nothing', () => {
  const some: Intervals = [[1, 2]];
  expect([intersect(ALWAYS, some), intersect(some, ALWAYS), subtract(some, [])]).toEqual([some, some, some]);
  expect(intersect(ALWAYS, some)).toBe(some);
  expect(intersect(some, ALWAYS)).toBe(some);
  expect(subtract(some, ALWAYS)).toEqual([]);
  expect(subtract(ALWAYS, some)).toEqual([
    [-Infinity, 1],
    [2, Infinity],
  ]);
});

test('by hand: touching ones join, empty and turned ones are nothing', () => {
  expect(
    union([
      [5, 7],
      [1, 3],
      [3, 4],
      [9, 9],
      [8, 6],
    ]),
  ).toEqual([
    [1, 4],
    [5, 7],
  ]);
  expect(union([])).toEqual([]);
});
