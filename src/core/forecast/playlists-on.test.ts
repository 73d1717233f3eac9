import { parseInstant } from '../instant';
import { playlistsOn } from '.';
import { smallPlan } from '../tests/small-plan';

const at = (text: string) => parseInstant(text) as number;

const plan = smallPlan({
  network: { backdrop: { playlist: 'house' } },
  screens: ['a', 'b', 'c', 'd', 'e'].map((id) => ({
    ...{ id, tags: [id] },
    ...(id === 'e' ? { lightsOut: [{}] } : {}),
    ...(id === 'd' ? { backdrop: { media: 'one' } } : {}),
  })),
  media: ['one', 'two'],
  playlists: [
    { id: 'house', name: 'House', items: [{ playlist: 'inner' }, { media: 'one' }] },
    { id: 'inner', name: 'Inner', items: [{ media: 'two' }] },
    { id: 'news', name: 'News', items: [{ media: 'two' }] },
  ],
  bookings: [
    {
      ...{ id: 'x', name: 'X', content: { playlist: 'news' }, where: 'c' },
      when: { windows: [['06:00', '07:00']] },
    },
  ],
});
const all = ['a', 'b', 'c', 'd', 'e', 'gone'];

test('the playlists of what wins, those on most screens first; a single file, and the dark, have none', () => {
  expect(playlistsOn(plan, all, at('2026-12-01T06:30:00Z'))).toEqual([
    { playlist: 'house', screens: ['a', 'b'] },
    { playlist: 'news', screens: ['c'] },
  ]);
  expect(playlistsOn(plan, all, at('2026-12-01T07:00:00Z'))).toEqual([{ playlist: 'house', screens: ['a', 'b', 'c'] }]);
  expect(playlistsOn(plan, ['d', 'e'], at('2026-12-01T06:30:00Z'))).toEqual([]);
});
