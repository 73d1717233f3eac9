import { smallPlan } from '../tests/small-plan';
import { broughtTo } from './brought';

const plan = smallPlan({
  sites: [{ id: 'quay', tags: ['north'] }],
  screens: [
    { id: 'hall', tags: ['Hall', 'large'] },
    { id: 'deck', tags: ['deck'] },
  ],
  media: ['flag'],
  playlists: [
    { id: 'decks', items: [{ media: 'flag', where: 'deck' }] },
    { id: 'all', items: ['flag'] },
  ],
  bookings: [
    { id: 'a', where: 'hall' },
    { id: 'b', where: 'hall and north', content: { playlist: 'decks' } },
    { id: 'c', where: 'all' },
    { id: 'd', where: 'hall or north' },
    { id: 'e', where: 'not deck' },
    { id: 'f', where: 'hall', onHold: true, takeover: true },
    { id: 'g', where: 'deck' },
  ],
});

test('a tag brings the bookings that would not reach the screen without it; some have nothing for it', () => {
  const found = broughtTo(plan, 'hall').map(({ tag, isOfSite, bookings }) => [
    `${tag}${isOfSite ? ' (site)' : ''}`,
    bookings.map(({ booking, hasNothing }) => `${booking}${hasNothing ? ' nothing' : ''}`).join(' '),
  ]);
  expect(found).toEqual([
    ['hall', 'a b nothing'],
    ['large', ''],
    ['north (site)', 'b nothing'],
  ]);
  expect(() => broughtTo(plan, 'none')).toThrow(RangeError);
});
