import { arrowsAround, cornerAt, cornersInTurn } from './opening';

test.each([
  [0, 0, 'top left'],
  [959, 10, 'top right'],
  [950, 530, 'bottom right'],
  [20, 500, 'bottom left'],
  [480, 10, null],
  [480, 270, null],
  [10, 270, null],
] as const)('a touch at %i, %i of 960 × 540 is at %s', (x, y, corner) => {
  expect(cornerAt(x, y, 960, 540)).toBe(corner);
});

const around = ['top left', 'top right', 'bottom right', 'bottom left'];
/** Takes the steps a second apart; says at which of them the page opens. */
const opens = (steps: readonly (string | null)[], apartMs = 1000, way = cornersInTurn()) =>
  steps.flatMap((step, i) => (way.take(step, i * apartMs) ? [i] : []));

test('four corners in turn open it, each time anew', () => {
  expect(opens([...around, ...around])).toEqual([3, 7]);
  expect(opens(['bottom left', ...around])).toEqual([4]);
});

test.each([
  ['another order', ['top left', 'bottom right', 'top right', 'bottom left']],
  ['something in between', ['top left', 'top right', null, 'bottom right', 'bottom left']],
  ['one left out', around.slice(1)],
])('%s doesn’t', (_what, steps) => expect(opens(steps)).toEqual([]));

test('neither do steps that are far apart', () => expect(opens(around, 4001)).toEqual([]));

test('by keys it is once around with the arrows, twice', () => {
  const once = ['ArrowLeft', 'ArrowUp', 'ArrowRight', 'ArrowDown'];
  expect(opens([...once, ...once], 300, arrowsAround())).toEqual([7]);
  expect(opens(once, 300, arrowsAround())).toEqual([]);
});
