import type { Screen, Site } from '@/core/plan';
import { blocksOf, tileWidth, type TileSize } from './blocks';

const size: TileSize = { height: 60, least: 0, caption: 0, gap: 10 };
const site = (id: string): Site => ({ id, name: id, timeZone: 'UTC' });
const screens = (count: number, of: string): Screen[] =>
  Array.from({ length: count }, (_, i) => ({ id: `${of}-${i}`, name: `${i}`, site: of, width: 100, height: 100 }));

test('a street is cut into blocks of whole lines; every screen stands in one, in order', () => {
  const all = [...screens(25, 'quay'), ...screens(2, 'pier')];
  const blocks = blocksOf([site('quay'), site('empty'), site('pier')], all, size, 700);
  // Ten tiles a line, a line a block.
  expect(blocks.map(({ key, first, count, lines }) => [key, first, count, lines.flat().length])).toEqual([
    ['quay 0', true, 25, 10],
    ['quay 1', false, 25, 10],
    ['quay 2', false, 25, 5],
    ['pier 0', true, 2, 2],
  ]);
  expect(blocks.flatMap((one) => one.lines.flat())).toEqual(all);
  expect(blocks.map((one) => one.height)).toEqual([124, 70, 70, 124]);
});

test('tiles have the true aspect of their screens, within reason', () => {
  expect(tileWidth({ width: 1920, height: 1080 }, size)).toBeCloseTo(106.67);
  expect(tileWidth({ width: 1080, height: 1920 }, size)).toBeCloseTo(33.75);
  expect(tileWidth({ width: 3840, height: 192 }, size)).toBe(180);
  expect(tileWidth({ width: 1080, height: 1920 }, { ...size, least: 132 })).toBe(132);
});
