import type { Plan } from '@/core/plan';
import { usesOf, type Used } from './uses';

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
  layouts: [{ id: 'board', name: 'Board', zones: [{ id: 'main', content: { playlist: 'house' } }] }],
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
  usesOf(plan, { kind, object: { id, name: id, kind: 'image', tags: [], items: [] } } as unknown as Used).map(
    ({ what, path }) => `${what} ${path}`,
  );

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
    'layout Board /layouts/board',
    'booking Evening /plan?booking=b2',
    'backdrop of Hall /screens?screen=hall',
  ]);
  expect(told('playlist', 'sea')).toEqual(['music of House /playlists/house']);
});

test('a file is used where a rule collects files like it, until it is archived', () => {
  const collecting = (...items: object[]) =>
    ({ ...plan, playlists: [{ id: 'all', name: 'All', items }] }) as unknown as Plan;
  const of = (whole: Plan, file: object) =>
    usesOf(whole, { kind: 'media', object: { id: 'new', kind: 'image', tags: ['brand'], ...file } as never }).map(
      ({ what }) => what,
    );
  const brand = collecting({ collect: 'brand and not kind:video', limit: 4 }, { collect: 'brand' });
  expect(of(brand, {})).toEqual(['playlist All, by its rule “brand and not kind:video”, which takes the first 4']);
  expect(of(brand, { archived: true })).toEqual([]);
  expect(of(collecting({ collect: 'menu' }), {})).toEqual([]);
});
