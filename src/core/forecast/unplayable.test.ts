import type { MediaKind } from '../plan/kinds/media';
import type { Abilities } from '../profiles';
import { newUnplayable, unplayable } from './unplayable';
import { smallPlan } from '../tests/small-plan';

const file = (id: string, kind: MediaKind) => ({
  ...{ id, name: id, kind, bytes: 1, added: '2026-01-01T00:00:00Z' },
  ...(kind === 'sound' ? {} : { width: 10, height: 10 }),
  ...(kind === 'image' ? {} : { durationMs: 5000 }),
});
const plan = (items: object[], booked: object[] = []) =>
  smallPlan({
    network: { backdrop: { playlist: 'loop' } },
    sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo' }],
    screens: ['a', 'b', 'c'].map((id) => ({
      ...{ id, name: id, site: 'quay', width: 10, height: 10 },
      tags: [`at-${id}`],
    })),
    media: [file('flag', 'image'), file('film', 'video'), file('gulls', 'sound'), file('other', 'video')],
    playlists: [
      { id: 'loop', name: 'Loop', items, music: { playlist: 'sounds', volume: 1 } },
      { id: 'sounds', name: 'Sounds', items: [{ media: 'gulls' }] },
    ],
    bookings: booked.map((one, i) => ({
      ...{ id: `b${i}`, name: 'B', ...one },
    })),
  });
const able = (...list: [string, Abilities][]) => new Map(list);

test('what a screen is given of kinds that it does not play is told, music and what is booked for later too', () => {
  const film = { content: { media: 'other' }, where: 'at-b', when: { from: '2030-01-01' } };
  const given = plan([{ media: 'flag' }, { media: 'film', where: 'not at-a' }], [film]);
  const abilities = able(
    ['a', { plays: ['image'] }],
    ['b', { plays: ['image', 'sound'] }],
    ['c', { plays: ['image', 'video', 'sound'] }],
  );
  expect(unplayable(given, abilities)).toEqual([
    { media: 'film', reason: 'kind', screens: ['b'] },
    { media: 'gulls', reason: 'kind', screens: ['a'] },
    { media: 'other', reason: 'kind', screens: ['b'] },
  ]);
  // Who says nothing plays all; who is not in the plan is nobody.
  expect(unplayable(given, able(['gone', { plays: ['image'] }]))).toEqual([]);
});

test('one file may be of a codec that a screen does not play, and too large for another', () => {
  const given = plan([{ media: 'film', fit: 'exact' }]);
  const abilities = able(
    ['a', { codecs: ['h264'] }],
    ['b', { most: { width: 8, height: 8 } }],
    ['c', { codecs: ['vp9'], most: { width: 10, height: 10 } }],
  );
  const withCodec = {
    ...given,
    media: given.media.map((one) => (one.kind === 'video' ? { ...one, codec: 'vp9' } : one)),
  };
  expect(unplayable(withCodec, abilities)).toEqual([
    { media: 'film', reason: 'codec', screens: ['a'] },
    { media: 'film', reason: 'size', screens: ['b'] },
  ]);
});

test('what was so before is not new; on more screens it is', () => {
  const before = [{ media: 'film', reason: 'kind' as const, screens: ['a'] }];
  const after = [
    { media: 'film', reason: 'kind' as const, screens: ['a', 'b'] },
    { media: 'gulls', reason: 'kind' as const, screens: ['a'] },
  ];
  expect(newUnplayable(before, after)).toEqual([
    { media: 'film', reason: 'kind', screens: ['b'] },
    { media: 'gulls', reason: 'kind', screens: ['a'] },
  ]);
  expect(newUnplayable(after, before)).toEqual([]);
});
