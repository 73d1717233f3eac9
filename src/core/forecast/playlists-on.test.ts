import { parseInstant } from '../instant';
import { readPlan } from '../plan';
import { orThrow } from '../refusal';
import { playlistsOn } from '.';

const at = (text: string) => parseInstant(text) as number;

const plan = orThrow(
  readPlan({
    format: 'lanternpost/plan',
    version: 1,
    network: { name: 'N', backdrop: { playlist: 'house' } },
    sites: [{ id: 'quay', name: 'Quay', timeZone: 'UTC' }],
    screens: ['a', 'b', 'c', 'd', 'e'].map((id) => ({
      ...{ id, name: id, site: 'quay', width: 2, height: 1, tags: [id] },
      ...(id === 'e' ? { lightsOut: [{}] } : {}),
      ...(id === 'd' ? { backdrop: { media: 'one' } } : {}),
    })),
    media: ['one', 'two'].map((id) => ({
      ...{ id, name: id, kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' },
    })),
    playlists: [
      { id: 'house', name: 'House', items: [{ playlist: 'inner' }, { media: 'one' }] },
      { id: 'inner', name: 'Inner', items: [{ media: 'two' }] },
      { id: 'news', name: 'News', items: [{ media: 'two' }] },
    ],
    bookings: [
      {
        ...{ id: 'x', name: 'X', content: { playlist: 'news' }, where: 'c', created: '2026-01-01T00:00:00Z' },
        when: { windows: [['06:00', '07:00']] },
      },
    ],
  }),
);
const all = ['a', 'b', 'c', 'd', 'e', 'gone'];

test('the playlists of what wins, those on most screens first; a single file, and the dark, have none', () => {
  expect(playlistsOn(plan, all, at('2026-12-01T06:30:00Z'))).toEqual([
    { playlist: 'house', screens: ['a', 'b'] },
    { playlist: 'news', screens: ['c'] },
  ]);
  expect(playlistsOn(plan, all, at('2026-12-01T07:00:00Z'))).toEqual([{ playlist: 'house', screens: ['a', 'b', 'c'] }]);
  expect(playlistsOn(plan, ['d', 'e'], at('2026-12-01T06:30:00Z'))).toEqual([]);
});
