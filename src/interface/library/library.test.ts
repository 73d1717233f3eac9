import type { Plan, Screen } from '@/core';
import { fitWords, fits } from './fit';
import { usesOf } from './uses';

const screen = (id: string, width: number, height: number): Screen => ({ id, name: id, site: 'quay', width, height });
const screens = [screen('a', 1920, 1080), screen('b', 1920, 1080), screen('c', 1080, 1920), screen('d', 384, 192)];

/** Common practice, no source: pixel for pixel looks best; another aspect gets bars, never a stretch. */
test('how a file looks on our screens, the commonest first', () => {
  expect(fits({ width: 1920, height: 1080 }, screens).map((one) => [one.width, one.screens, fitWords(one)])).toEqual([
    [1920, 2, 'native'],
    [1080, 1, '68 % bars, reduced to 56 %'],
    [384, 1, '11 % bars, reduced to 18 %'],
  ]);
  const rare = [screen('x', 10, 10), ...screens];
  expect(fits({ width: 1, height: 1 }, rare).map((one) => one.screens)).toEqual([2, 1, 1, 1]);
  expect(fitWords({ width: 1, height: 1, screens: 1, bars: 0, scale: 1.02 })).toBe('native');
  expect(fitWords({ width: 1, height: 1, screens: 1, bars: 0, scale: 0.98 })).toBe('native');
  expect(fits({ width: 1000, height: 996 }, [screen('x', 1000, 1000)])[0]?.bars).toBe(0);
  expect(fits({ width: 1000, height: 995 }, [screen('x', 1000, 1000)])[0]?.bars).toBeCloseTo(0.005, 6);
  expect(fitWords(fits({ width: 960, height: 540 }, screens)[0] as never)).toBe('enlarged 2.0 times');
});

test('where a file is used: playlists, bookings, backdrops', () => {
  const plan = {
    network: { name: 'N', backdrop: { media: 'flag' } },
    playlists: [
      { id: 'house', name: 'House', items: [{ media: 'gale' }, { media: 'flag' }] },
      { id: 'other', name: 'Other', items: [{ media: 'gale' }] },
    ],
    bookings: [{ name: 'Flag day', content: { media: 'flag' } }],
    sites: [{ name: 'Quay', backdrop: { media: 'flag' } }],
    screens: [
      { name: 'Hall', backdrop: { playlist: 'house' } },
      { name: 'Deck', backdrop: { media: 'flag' } },
      { name: 'Pier' },
    ],
  } as unknown as Plan;
  expect(usesOf(plan, 'flag').map((use) => `${use.what} ${use.path}`)).toEqual([
    'playlist House /playlists/house',
    'booking Flag day /plan',
    'backdrop of Quay /screens',
    'backdrop of Deck /screens',
    'backdrop of the network /plan',
  ]);
  expect(usesOf(plan, 'map')).toEqual([]);
});
