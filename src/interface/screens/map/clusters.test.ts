import fc from 'fast-check';
import { clustersOf } from './clusters';

const spot = (id: string, x: number, y: number) => ({ id, x, y });
/** Marks are twice as wide as they are high. */
const ROOM = { width: 20, height: 10 };
const told = (spots: ReturnType<typeof spot>[]) =>
  clustersOf(spots, ROOM).map(({ x, y, spots: own }) => `${own.map(({ id }) => id).join('+')} at ${x}, ${y}`);

test('what lies near each other is one mark, in the middle', () => {
  expect(told([spot('a', 0, 0), spot('b', 4, 0), spot('c', 100, 0)])).toEqual(['a+b at 2, 0', 'c at 100, 0']);
  expect(told([spot('a', 0, 0), spot('b', 0, 0)])).toEqual(['a+b at 0, 0']);
  expect(told([spot('a', 0, 0), spot('b', 16, 8)])).toEqual(['a+b at 8, 4']);
  expect(told([spot('a', 0, 0), spot('b', 0, 10)])).toEqual(['a at 0, 0', 'b at 0, 10']);
  expect(told([spot('a', 0, 0), spot('b', 20, 0)])).toEqual(['a at 0, 0', 'b at 20, 0']);
  expect(told([])).toEqual([]);
});

test('every site is in one mark, and no two marks lie over each other (random)', () => {
  const place = fc.record({ id: fc.uuid(), x: fc.integer({ min: 0, max: 200 }), y: fc.integer({ min: 0, max: 200 }) });
  fc.assert(
    fc.property(fc.uniqueArray(place, { selector: ({ id }) => id, maxLength: 40 }), (spots) => {
      const clusters = clustersOf(spots, ROOM);
      expect(clusters.flatMap((one) => one.spots.map(({ id }) => id)).sort()).toEqual(spots.map(({ id }) => id).sort());
      for (const [i, a] of clusters.entries())
        for (const b of clusters.slice(i + 1))
          expect(Math.abs(a.x - b.x) >= ROOM.width || Math.abs(a.y - b.y) >= ROOM.height).toBe(true);
    }),
  );
});
