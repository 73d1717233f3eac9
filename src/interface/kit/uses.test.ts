import type { Plan } from '@/core';
import { usesOf } from './uses';

const plan = {
  network: { name: 'N', backdrop: { media: 'flag' } },
  playlists: [
    {
      id: 'house',
      name: 'House',
      items: [{ media: 'gale' }, { media: 'flag' }],
      music: { playlist: 'sea', volume: 1 },
    },
    { id: 'other', name: 'Other', items: [{ media: 'gale' }, { playlist: 'house' }] },
    { id: 'sea', name: 'Sea', items: [] },
  ],
  bookings: [
    { id: 'b1', name: 'Flag day', content: { media: 'flag' } },
    { id: 'b2', name: 'Evening', content: { playlist: 'house' } },
  ],
  sites: [{ id: 'quay', name: 'Quay', backdrop: { media: 'flag' } }],
  screens: [
    { id: 'hall', name: 'Hall', backdrop: { playlist: 'house' } },
    { id: 'deck', name: 'Deck', backdrop: { media: 'flag' } },
    { id: 'pier', name: 'Pier' },
  ],
} as unknown as Plan;
const told = (kind: 'media' | 'playlist', id: string) =>
  usesOf(plan, { kind, id }).map(({ what, path }) => `${what} ${path}`);

test('where a file is used: playlists, bookings, backdrops, each with the way to it', () => {
  expect(told('media', 'flag')).toEqual([
    'playlist House /playlists/house',
    'booking Flag day /plan?booking=b1',
    'backdrop of Quay /screens?site=quay',
    'backdrop of Deck /screens?screen=deck',
    'backdrop of the network /network',
  ]);
  expect(told('media', 'map')).toEqual([]);
});

test('where a playlist is used: in others, as music, in bookings and backdrops', () => {
  expect(told('playlist', 'house')).toEqual([
    'playlist Other /playlists/other',
    'booking Evening /plan?booking=b2',
    'backdrop of Hall /screens?screen=hall',
  ]);
  expect(told('playlist', 'sea')).toEqual(['music of House /playlists/house']);
});
