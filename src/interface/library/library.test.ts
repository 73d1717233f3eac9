import type { Screen } from '@/core/plan';
import { standingWords, standings, type OnSize } from './fit';

const screen = (id: string, width: number, height: number): Screen => ({ id, name: id, site: 'quay', width, height });
const screens = [screen('a', 1920, 1080), screen('b', 1920, 1080), screen('c', 1080, 1920), screen('d', 384, 192)];

const words = (media: { width: number; height: number }, fit?: OnSize['fit']) =>
  standings(media, screens, fit).map((one) => [one.width, one.screens, standingWords(one)]);

/** Common practice, no source: pixel for pixel looks best; another aspect gets bars where nothing else is said. */
test('how a file stands on our screens, the commonest first', () => {
  expect(words({ width: 1920, height: 1080 })).toEqual([
    [1920, 2, 'native'],
    [1080, 1, '68 % bars, reduced to 56 %'],
    [384, 1, '11 % bars, reduced to 18 %'],
  ]);
  const rare = [screen('x', 10, 10), ...screens];
  expect(standings({ width: 1, height: 1 }, rare).map((one) => one.screens)).toEqual([2, 1, 1, 1]);
  const still = { fit: 'whole' as const, bars: 0, cut: 0, stretched: 1 };
  expect(standingWords({ ...still, scale: 1.02 })).toBe('native');
  expect(standingWords({ ...still, scale: 0.98 })).toBe('native');
  expect(standings({ width: 1000, height: 996 }, [screen('x', 1000, 1000)])[0]?.bars).toBe(0);
  expect(standings({ width: 1000, height: 995 }, [screen('x', 1000, 1000)])[0]?.bars).toBeCloseTo(0.005, 6);
  expect(words({ width: 960, height: 540 })[0]?.[2]).toBe('enlarged 2.0 times');
});

test('what fills a screen is cut, what is stretched loses its shape, what is exact keeps its pixels', () => {
  // 1080 × 1920 shows 1080 / 1920 of 1920 / 1080 of the width: 68.4 % of it is out of sight, enlarged 1920 / 1080.
  expect(words({ width: 1920, height: 1080 }, 'fill')).toEqual([
    [1920, 2, 'native'],
    [1080, 1, '68 % cut off, enlarged 1.8 times'],
    [384, 1, '11 % cut off, reduced to 20 %'],
  ]);
  // 1920 / 1080 on one side, 1080 / 1920 on the other: 3.16 times as much.
  expect(words({ width: 1920, height: 1080 }, 'stretch')[1]).toEqual([
    1080,
    1,
    'stretched 3.2 times, enlarged 1.8 times',
  ]);
  expect(words({ width: 384, height: 192 }, 'exact')).toEqual([
    [1920, 2, '96 % bars'],
    [1080, 1, '96 % bars'],
    [384, 1, 'native'],
  ]);
  expect(words({ width: 1920, height: 1080 }, 'exact')[2]).toEqual([384, 1, '96 % cut off']);
});
