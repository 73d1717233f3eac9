import type { MediaKind } from '../plan/kinds/media';
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
const kinds = (...list: [string, ...MediaKind[]][]) => new Map(list.map(([id, ...plays]) => [id, new Set(plays)]));

test('what a screen is given of kinds that it does not play is told, music and what is booked for later too', () => {
  const film = { content: { media: 'other' }, where: 'at-b', when: { from: '2030-01-01' } };
  const given = plan([{ media: 'flag' }, { media: 'film', where: 'not at-a' }], [film]);
  expect(unplayable(given, kinds(['a', 'image'], ['b', 'image', 'sound'], ['c', 'image', 'video', 'sound']))).toEqual([
    { media: 'film', screens: ['b'] },
    { media: 'gulls', screens: ['a'] },
    { media: 'other', screens: ['b'] },
  ]);
  // Who says nothing plays all; who is not in the plan is nobody.
  expect(unplayable(given, kinds(['gone', 'image']))).toEqual([]);
});

test('what was so before is not new; on more screens it is', () => {
  const before = [{ media: 'film', screens: ['a'] }];
  const after = [
    { media: 'film', screens: ['a', 'b'] },
    { media: 'gulls', screens: ['a'] },
  ];
  expect(newUnplayable(before, after)).toEqual([
    { media: 'film', screens: ['b'] },
    { media: 'gulls', screens: ['a'] },
  ]);
  expect(newUnplayable(after, before)).toEqual([]);
});
