import fc from 'fast-check';
import { gripOf } from './grip';

test('the middle third of every bar carries it, and every end can be taken', () => {
  fc.assert(
    fc.property(fc.double({ min: 3, max: 2000, noNaN: true }), (width) => {
      const { inside, outside } = gripOf(width);
      expect(inside).toBeLessThanOrEqual(width / 3);
      expect(inside + outside).toBeGreaterThanOrEqual(4);
    }),
  );
});

test.each([
  [3, { inside: 0, outside: 7 }],
  [11.9, { inside: 0, outside: 7 }],
  [12, { inside: 4, outside: 0 }],
  [300, { inside: 6, outside: 0 }],
])('a bar of %d pixels', (width, grip) => expect(gripOf(width)).toEqual(grip));
