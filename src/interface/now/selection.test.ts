import { NOTHING, boxBetween, meets, pressed, tileBeyond, type Chosen } from './selection';

const order = ['a', 'b', 'c', 'd', 'e'];
const alone = { more: false, stretch: false };
const more = { more: true, stretch: false };
const stretch = { more: false, stretch: true };
const ids = (chosen: Chosen) => [...chosen.ids].join('');
const press = (...steps: [string, typeof alone][]) =>
  steps.reduce<Chosen>((chosen, [id, how]) => pressed(chosen, id, order, how), NOTHING);

describe('tiles that are chosen', () => {
  it.each<[string, [string, typeof alone][], string]>([
    [
      'one takes the place of another',
      [
        ['a', alone],
        ['b', alone],
      ],
      'b',
    ],
    [
      'the same again is given up',
      [
        ['a', alone],
        ['a', alone],
      ],
      '',
    ],
    [
      'more are added',
      [
        ['a', alone],
        ['c', more],
        ['e', more],
      ],
      'ace',
    ],
    [
      'and taken away',
      [
        ['a', alone],
        ['c', more],
        ['a', more],
      ],
      'c',
    ],
    [
      'a stretch, forwards',
      [
        ['b', alone],
        ['d', stretch],
      ],
      'bcd',
    ],
    [
      'a stretch, backwards',
      [
        ['d', alone],
        ['b', stretch],
      ],
      'bcd',
    ],
    [
      'a stretch is drawn anew from where it began',
      [
        ['b', alone],
        ['e', stretch],
        ['c', stretch],
      ],
      'bc',
    ],
    [
      'a stretch besides what is chosen',
      [
        ['a', alone],
        ['c', more],
        ['d', { more: true, stretch: true }],
      ],
      'acd',
    ],
    ['a stretch from nowhere is the one', [['c', stretch]], 'c'],
    [
      'one of several alone',
      [
        ['a', alone],
        ['b', more],
        ['b', alone],
      ],
      'b',
    ],
  ])('%s', (_, steps, chosen) => {
    expect(ids(press(...steps))).toBe(chosen);
  });

  it('a stretch whose beginning is out of sight begins anew', () => {
    expect(pressed({ ids: new Set(['z']), anchor: 'z' }, 'b', order, stretch)).toEqual({
      ids: new Set(['b']),
      anchor: 'b',
    });
  });
});

const box = (left: number, top: number, width = 10, height = 10) => ({
  left,
  top,
  right: left + width,
  bottom: top + height,
});

test('a rectangle meets what it touches, however it is drawn', () => {
  const drawn = boxBetween({ x: 30, y: 30 }, { x: 5, y: 8 });
  expect(drawn).toEqual({ left: 5, top: 8, right: 30, bottom: 30 });
  expect(meets(drawn, box(0, 0))).toBe(true);
  expect(meets(drawn, box(30, 30))).toBe(false);
  expect(meets(drawn, box(10, 10, 2, 2))).toBe(true);
});

test('arrows walk along a line, and to the nearest tile of the next', () => {
  // Two lines of three and two tiles, of unlike heights but on one foot.
  const boxes = [box(0, 0), box(20, 4, 10, 6), box(40, 0), box(4, 30), box(38, 30)];
  const walk = (from: number, key: string) => tileBeyond(boxes, from, key);
  expect([walk(0, 'ArrowRight'), walk(0, 'ArrowLeft'), walk(4, 'ArrowRight')]).toEqual([1, 0, 4]);
  expect([walk(0, 'ArrowDown'), walk(1, 'ArrowDown'), walk(2, 'ArrowDown')]).toEqual([3, 3, 4]);
  expect([walk(4, 'ArrowUp'), walk(3, 'ArrowUp'), walk(0, 'ArrowUp'), walk(3, 'ArrowDown')]).toEqual([2, 0, 0, 3]);
  expect([walk(2, 'Home'), walk(1, 'End')]).toEqual([0, 4]);
  expect(tileBeyond([], 0, 'ArrowDown')).toBe(0);
});
