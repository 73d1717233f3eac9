import { bookingSchema } from '@/core/plan';
import type { LocalTime } from '@/core/when';
import type { Bar, Layer } from './layout';
import { nearestBar } from './worked';

const bar = (name: string, layer: Layer, start: number): Bar => ({
  key: `${name} ${start}`,
  booking: bookingSchema.parse({
    ...{ id: 'b', name, content: { media: 'm' }, where: 'all', created: '2026-01-01T00:00:00Z', when: {} },
  }),
  localOccasion: {
    booking: 'b',
    date: 0,
    window: 0,
    start: start as LocalTime,
    end: (start + 1) as LocalTime,
  } as never,
  layer,
  lane: 0,
  next: null,
});
const layers = [
  { layer: 5 as const, lanes: 1, bars: [bar('Gale', 5, 10)] },
  { layer: 3 as const, lanes: 1, bars: [bar('Drill', 3, 10), bar('Drill', 3, 40), bar('Tide', 3, 22)] },
];

test.each<[string, string, Layer, number, string | undefined]>([
  ['where it was put down', 'Drill', 3, 38, 'Drill 40'],
  ['the part that was made of it', 'Dri', 3, 9, 'Drill 10'],
  ['taken off, its neighbour in the layer', 'Flag', 3, 24, 'Tide 22'],
  ['from a layer that is empty now, the nearest of its name', 'Tide', 1, 11, 'Tide 22'],
  ['of what is not here any more, the nearest at all', 'Flag', 1, 11, 'Gale 10'],
])('the focus goes to %s', (_what, name, layer, start, key) =>
  expect(nearestBar(layers, { name, layer, start: start as LocalTime })?.key).toBe(key),
);

test('where there is no bar, to none', () => {
  expect(
    nearestBar([{ layer: 3, lanes: 0, bars: [] }], { name: 'a', layer: 3, start: 0 as LocalTime }),
  ).toBeUndefined();
});
