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
  expect(fitWords(fits({ width: 960, height: 540 }, screens)[0] as never)).toBe('enlarged 2.0 times');
});

test('where a file is used: playlists, bookings, backdrops', () => {
  const plan = {
    network: { name: 'N', backdrop: { media: 'flag' } },
    playlists: [
      { id: 'house', name: 'House', items: [{ media: 'flag' }] },
      { id: 'other', name: 'Other', items: [{ media: 'gale' }] },
    ],
    bookings: [{ name: 'Flag day', content: { media: 'flag' } }],
    sites: [{ name: 'Quay', backdrop: { media: 'flag' } }],
    screens: [{ name: 'Hall', backdrop: { playlist: 'house' } }],
  } as unknown as Plan;
  expect(usesOf(plan, 'flag').map((use) => use.what)).toEqual([
    'playlist House',
    'booking Flag day',
    'backdrop of Quay',
    'backdrop of the network',
  ]);
  expect(usesOf(plan, 'map')).toEqual([]);
});
