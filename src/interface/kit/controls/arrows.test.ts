import { arrowTo } from './arrows';

test.each<[string, number, number | null]>([
  ['ArrowLeft', 3, 2],
  ['ArrowUp', 0, 0],
  ['ArrowRight', 3, 4],
  ['ArrowDown', 4, 4],
  ['Home', 3, 0],
  ['End', 1, 4],
  ['Enter', 1, null],
])('%s from %i of five leads to %j', (key, at, to) => expect(arrowTo(key, at, 5)).toBe(to));
