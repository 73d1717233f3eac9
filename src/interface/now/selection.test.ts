import { NOTHING, boxBetween, meets, pressed, tileBeyond, type Chosen } from './selection';

const order = ['a', 'b', 'c', 'd', 'e'];
const ids = (chosen: Chosen) => [...chosen.ids].join('');
/** Presses tiles in turn: `b` alone, `+b` with the key that adds more, `-b` with the key that stretches, `+-b` with both. */
const press = (steps: string) =>
  steps.split(' ').reduce<Chosen>((chosen, step) => {
    const how = { more: step.includes('+'), stretch: step.includes('-') };
    return pressed(chosen, step.slice(-1), order, how);
  }, NOTHING);

describe('tiles that are chosen', () => {
  it.each([
    ['one takes the place of another', 'a b', 'b'],
    ['the same again is given up', 'a a', ''],
    ['more are added', 'a +c +e', 'ace'],
    ['and taken away', 'a +c +a', 'c'],
    ['a stretch, forwards', 'b -d', 'bcd'],
    ['a stretch, backwards', 'd -b', 'bcd'],
    ['a stretch is drawn anew from where it began', 'b -e -c', 'bc'],
    ['a stretch besides what is chosen', 'a +c +-d', 'acd'],
    ['a stretch from nowhere is the one', '-c', 'c'],
    ['one of several alone', 'a +b b', 'b'],
  ])('%s', (_, steps, chosen) => {
    expect(ids(press(steps))).toBe(chosen);
  });

  it('a stretch whose beginning is out of sight begins anew', () => {
    expect(pressed({ ids: new Set(['z']), anchor: 'z' }, 'b', order, { more: false, stretch: true })).toEqual({
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
