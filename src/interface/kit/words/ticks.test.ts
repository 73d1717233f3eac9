import { tickHours } from './ticks';

test.each([
  [1060, 24, 44, 1],
  [700, 24, 44, 2],
  [300, 24, 44, 4],
  [200, 24, 44, 6],
  [40, 24, 44, 24],
  [700, 18, undefined, 2],
  [230, 18, undefined, 6],
])('%d pixels for %d hours, %s each: every %d hours', (width, hours, room, step) => {
  expect(tickHours(width, hours, room)).toBe(step);
});
