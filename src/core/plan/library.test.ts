import fc from 'fast-check';
import { screenProgram } from '../forecast';
import { randomPlan } from '../tests/random-plan';
import { runs } from '../tests/runs';
import {
  collectedBy,
  findMedia,
  mediaOf,
  readMediaSearch,
  rulesOf,
  sizeFit,
  usedMedia,
  withUsedMedia,
  type Media,
} from '.';
import { smallPlan } from '../tests/small-plan';

const file = (id: string, rest: Partial<Media> = {}): Media => ({
  ...{ id, name: id, kind: 'image', width: 2, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' },
  ...rest,
});
const ids = (media: readonly Media[]) => media.map((one) => one.id);

const plan = smallPlan({
  network: { backdrop: { media: 'flag' } },
  sites: [{ id: 'quay', name: 'Quay', timeZone: 'UTC', backdrop: { media: 'map' } }],
  screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 2, height: 1, backdrop: { playlist: 'loop' } }],
  media: [
    ...['flag', 'map', 'item', 'booked', 'spare'].map((id) => file(id)),
    ...['winter', 'summer'].map((id) => file(id, { tags: ['offer', id] })),
  ],
  playlists: [
    {
      id: 'loop',
      name: 'Loop',
      items: [{ media: 'item' }, { collect: 'offer and not winter', order: 'newest', limit: 1 }],
    },
  ],
  bookings: [{ id: 'b', name: 'B', content: { media: 'booked' } }],
});

test('a file is used by a backdrop of any level, an item, a booking, or a rule that collects it', () => {
  expect([...usedMedia(plan)].sort()).toEqual(['booked', 'flag', 'item', 'map', 'summer']);
  expect(ids(withUsedMedia(plan).media)).toEqual(['flag', 'map', 'item', 'booked', 'summer']);
  const used = withUsedMedia(plan);
  expect(withUsedMedia(used)).toBe(used);
  expect(used.playlists).toBe(plan.playlists);
});

test('what a document names and collects; nothing where there is no document', () => {
  expect([...mediaOf('playlist', plan.playlists[0] ?? null)]).toEqual(['item']);
  expect([...rulesOf('playlist', plan.playlists[0] ?? null)]).toEqual(['offer and not winter']);
  expect([...mediaOf('booking', plan.bookings[0] ?? null)]).toEqual(['booked']);
  expect(rulesOf('booking', plan.bookings[0] ?? null).size).toBe(0);
  expect(mediaOf('screen', null).size + rulesOf('playlist', null).size).toBe(0);
  expect(ids(collectedBy(new Set(['winter', 'summer']), plan.media))).toEqual(['winter', 'summer']);
  expect(collectedBy(new Set(), plan.media)).toEqual([]);
});

test('every screen shows the same by the used files alone', () => {
  fc.assert(
    fc.property(randomPlan, ({ plan: whole }) => {
      const used = withUsedMedia(whole);
      for (const { id } of whole.screens) expect(screenProgram(used, id)).toEqual(screenProgram(whole, id));
    }),
    runs(60),
  );
});

describe('files are found', () => {
  const library = [
    file('a', { name: 'Pier at dawn', added: '2026-01-01T00:00:00Z', tags: ['harbour'] }),
    file('b', { name: 'Buoy', kind: 'video', added: '2026-03-01T00:00:00Z' }),
    file('d', { name: 'Dawn chorus', width: 1, height: 2, added: '2026-02-01T00:00:00Z', tags: ['birds', 'night'] }),
    file('e', { name: 'Map of the islands', added: '2026-04-01T00:00:00Z' }),
    file('c', { name: 'Map', added: '2026-02-01T02:00:00+02:00', tags: ['harbour', 'night'] }),
  ];
  test.each([
    ['', 'e b c d a'],
    ['  DAWN ', 'd a'],
    ['map', 'c e'],
    ['m', 'e c'],
    ['harb', 'c a'],
    ['islands map', 'e'],
    ['map night', 'c'],
    ['night and not birds', 'c'],
    ['kind:video', 'b'],
    ['is:portrait', 'd'],
    ['nowhere', ''],
    ['BÛOY', 'b'],
    ['(', ''],
  ])('"%s": what is called so first, then the newest', (search, expected) => {
    expect(ids(findMedia(library, search)).join(' ')).toBe(expected);
  });

  test('and the library itself stays in its order', () => {
    findMedia(library, '');
    expect(ids(library)).toEqual(['a', 'b', 'd', 'e', 'c']);
  });
});

test.each([
  ['192x384', { text: '', size: { width: 192, height: 384 } }],
  ['  Gale 384 × 192 night', { text: 'gale  night', size: { width: 384, height: 192 } }],
  ['1920X1080', { text: '', size: { width: 1920, height: 1080 } }],
  ['0x5', { text: '0x5', size: null }],
  ['123456x5', { text: '123456x5', size: null }],
  ['max 5', { text: 'max 5', size: null }],
  ['a5x7b', { text: 'a5x7b', size: null }],
])('"%s" is read as words and a size', (typed, read) => expect(readMediaSearch(typed)).toEqual(read));

test('a file fits a size exactly either way round, else it is enlarged or reduced', () => {
  const wanted = { width: 384, height: 192 };
  expect(sizeFit({ width: 384, height: 192 }, wanted)).toBe('exact');
  expect(sizeFit({ width: 192, height: 384 }, wanted)).toBe('exact');
  expect(sizeFit({ width: 768, height: 384 }, wanted)).toBe(0.5);
  expect(sizeFit({ width: 96, height: 192 }, wanted)).toBe(2);
});
