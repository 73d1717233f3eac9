import { firstScroll, lanesOut, placed } from './sight';
import { bandHeight } from './sizes';

const layers = placed([1, 0, 2, 8, 3].map((lanes) => ({ lanes, height: bandHeight(lanes) })));

test('layers stand under each other', () => {
  expect(layers.map(({ top }) => top)).toEqual([0, 32, 62, 120, 334]);
});

test.each([
  // All in sight, then the foot of the fullest cut, then scrolled past its head.
  [0, 500, [0, 0, 0, 0, 0]],
  [0, 290, [0, 0, 0, 2, 3]],
  [170, 420, [1, 0, 2, 2, 0]],
  [0, 0, [0, 0, 0, 0, 0]],
])('from %d to %d there are out of sight %j lanes', (from, to, out) => {
  expect(layers.map((layer) => lanesOut(layer, from, to))).toEqual(out);
});

test.each([
  [600, 0],
  // Its foot stands at 334: all of it is in sight.
  [300, 34],
  // It has no room: its head is in sight.
  [150, 120],
])('in %d pixels one begins at %d', (height, at) => {
  expect(firstScroll(layers, height)).toBe(at);
});
test('where there is nothing, one begins at the top', () => {
  expect(firstScroll([], 100)).toBe(0);
});
