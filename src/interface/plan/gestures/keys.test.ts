import { DAY, HOUR, MINUTE } from '@/core/instant';
import { bookingSchema } from '@/core/plan';
import type { Fix } from '@/core/preflight';
import { parseDate, startOfDate, type LocalDate, type LocalTime } from '@/core/when';
import { stretched, type Held } from './held';
import { barKey, heldKey, neighbour } from './keys';
import { layout, type Bar } from '../strata/layout';
import { timeScale } from '../strata/scale';
import type { Gesture } from './use-gesture';

const first = parseDate('2026-11-23') as LocalDate;
const wall = (hours: number) => (startOfDate(first) + hours * HOUR) as LocalTime;
const scale = timeScale(first, 7, 700);

/** Layers with bars of one booking each, `[id, priority, start, end]` in hours of the first day. */
function layersOf(...bars: [id: string, priority: number, start: number, end: number][]) {
  const bookings = bars.map(([id, priority]) =>
    bookingSchema.parse({
      ...{ id, name: id, content: { media: 'm' }, where: 'all', created: '2026-01-01T00:00:00Z', when: {} },
      priority,
    }),
  );
  const seen = bars.map(([id, , start, end]) => ({
    ...{ booking: id, date: first, set: 0, window: 0 },
    ...{ start: wall(start), end: wall(end) },
  }));
  const layers = layout(bookings, seen);
  const bar = (id: string) => layers.flatMap((layer) => layer.bars).find(({ booking }) => booking.id === id) as Bar;
  return { layers, bar };
}

/** A hand that remembers what was done with it. */
function hand(held: Held | null = null) {
  const done: string[] = [];
  const gesture = {
    held,
    hold: (next: Held) => void (gesture.held = next),
    putDown: () => void done.push('put down'),
    letGo: () => void done.push('let go'),
    remove: (bar: Bar) => void done.push(`remove ${bar.booking.id}`),
  };
  return { gesture: gesture as typeof gesture & Gesture, done };
}

const press = (key: string, modifiers: object = {}) =>
  ({ key, shiftKey: false, ctrlKey: false, metaKey: false, altKey: false, ...modifiers }) as KeyboardEvent;

const inHand = (start = 8, end = 10): Held => {
  const { bar } = layersOf(['a', 3, 8, 10]);
  return { bar: bar('a'), start: wall(start), end: wall(end), layer: 3, copy: false };
};

describe('a bar in hand, by keys', () => {
  const shift = { shiftKey: true };
  const control = { ctrlKey: true };
  test.each<[string, string, object, Partial<Held>]>([
    ['an arrow carries it by a quarter of an hour', 'ArrowRight', {}, { start: wall(8.25), end: wall(10.25) }],
    ['back too', 'ArrowLeft', {}, { start: wall(7.75), end: wall(9.75) }],
    ['Shift takes its end', 'ArrowRight', shift, { start: wall(8), end: wall(10.25) }],
    ['Ctrl takes its start', 'ArrowLeft', control, { start: wall(7.75), end: wall(10) }],
    ['Page keys go by days', 'PageDown', {}, { start: wall(32), end: wall(34) }],
    ['whatever else is pressed', 'PageUp', shift, { start: wall(-16), end: wall(-14) }],
    ['up is a higher layer', 'ArrowUp', {}, { layer: 4 }],
    ['down a lower one', 'ArrowDown', {}, { layer: 2 }],
    ['c makes it a copy', 'c', {}, { copy: true }],
  ])('%s', (_what, key, modifiers, after) => {
    const { gesture } = hand(inHand());
    expect(heldKey(press(key, modifiers), gesture, scale)).toBe(true);
    expect(gesture.held).toMatchObject(after);
  });

  test('the highest layer is the takeover, and there is none below the first', () => {
    const { gesture } = hand({ ...inHand(), layer: 5 });
    for (const key of ['ArrowUp', 'ArrowUp']) heldKey(press(key), gesture, scale);
    expect(gesture.held?.layer).toBe('takeover');
    const low = hand({ ...inHand(), layer: 1 });
    heldKey(press('ArrowDown'), low.gesture, scale);
    expect(low.gesture.held?.layer).toBe(1);
  });

  test('Enter and Space put it down, Escape lets go, other keys are not for it', () => {
    const { gesture, done } = hand(inHand());
    for (const key of ['Enter', ' ', 'Escape']) expect(heldKey(press(key), gesture, scale)).toBe(true);
    expect(done).toEqual(['put down', 'put down', 'let go']);
    expect(heldKey(press('x'), gesture, scale)).toBe(false);
    expect(heldKey(press('Enter'), hand().gesture, scale)).toBe(false);
  });
});

describe('an end that is pulled', () => {
  test.each<[string, 'whole' | 'start' | 'end', number, number, number]>([
    ['the whole keeps its length', 'whole', 12, 12, 14],
    ['its end goes where it is pulled', 'end', 11, 8, 11],
    ['but never before its start: a minute is left', 'end', 7, 8, 8 + 1 / 60],
    ['nor further than a window may: seven days', 'end', 300, 8, 8 + 7 * 24],
    ['its start goes where it is pulled', 'start', 6, 6, 10],
    ['never after its end', 'start', 11, 10 - 1 / 60, 10],
    ['nor further than that before', 'start', -300, 10 - 7 * 24, 10],
  ])('%s', (_what, part, to, start, end) => {
    const { start: a, end: b } = stretched(inHand(), part, wall(to));
    expect([a, b]).toEqual([Math.round(wall(start)), Math.round(wall(end))]);
    expect(b - a).toBeGreaterThanOrEqual(MINUTE);
    expect(b - a).toBeLessThanOrEqual(7 * DAY);
  });
});

describe('walking by arrows', () => {
  const { layers, bar } = layersOf(['early', 3, 6, 8], ['late', 3, 18, 20], ['noon', 5, 11, 13], ['night', 1, 20, 23]);
  test.each([
    ['early', 'ArrowRight', 'late'],
    ['late', 'ArrowLeft', 'early'],
    ['late', 'Home', 'early'],
    ['early', 'End', 'late'],
    ['early', 'ArrowUp', 'noon'],
    ['noon', 'ArrowDown', 'early'],
    ['late', 'ArrowDown', 'night'],
    ['night', 'ArrowUp', 'late'],
  ])('from %s, %s leads to %s', (from, key, to) => {
    expect(neighbour(layers, bar(from), key)?.booking.id).toBe(to);
  });

  test('at the edges, and by other keys, it stays', () => {
    expect(neighbour(layers, bar('early'), 'ArrowLeft')).toBeUndefined();
    expect(neighbour(layers, bar('noon'), 'ArrowUp')).toBeUndefined();
    expect(neighbour(layers, bar('noon'), 'x')).toBeUndefined();
  });
});

describe('the bar in focus, by keys', () => {
  const { bar } = layersOf(['a', 3, 8, 10]);
  const fix = { label: 'Raise it', edits: [] } as Fix;
  const at = (key: string, modifiers: object = {}) => {
    const { gesture, done } = hand();
    const event = press(key, modifiers) as unknown as Parameters<typeof barKey>[0];
    const used = barKey(
      event,
      bar('a'),
      gesture,
      [fix],
      () => done.push('open'),
      ({ label }) => done.push(label),
    );
    return { used, done, held: gesture.held };
  };

  test('Space takes hold of it as it stands, c of a copy', () => {
    expect(at(' ').held).toMatchObject({ start: wall(8), end: wall(10), layer: 3, copy: false });
    expect(at('c').held).toMatchObject({ copy: true });
  });

  test('Enter opens it, Delete takes it off, a digit makes a fix', () => {
    expect([at('Enter'), at('Delete'), at('Backspace'), at('1')].map(({ done }) => done)).toEqual([
      ['open'],
      ['remove a'],
      ['remove a'],
      ['Raise it'],
    ]);
  });

  test('a digit without a fix, and keys with Ctrl or Alt, are for others', () => {
    expect([at('2'), at('c', { ctrlKey: true }), at(' ', { altKey: true })].map(({ used }) => used)).toEqual([
      false,
      false,
      false,
    ]);
  });
});
