import { emptyPlan, type Booking, type Plan } from '../plan';
import { guardedIn, newlyGuarded } from './guarded';

/** The alarm shows the playlist `alarm`; a copy of it shows the picture alone. */
const booking = (id: string, more: Partial<Booking>): Booking => ({
  ...{ id, name: id, where: 'all', priority: 5, created: '2026-11-01T00:00:00Z', when: {}, takeover: true },
  ...{ content: { media: 'gale' } },
  ...more,
});
const planWith = (items: readonly string[], ...bookings: Booking[]): Plan => ({
  ...emptyPlan('Line'),
  media: ['gale', 'more'].map((id) => ({
    ...{ id, name: id, kind: 'image' as const, added: '2026-11-01T00:00:00Z', width: 1, height: 1, bytes: 1 },
  })),
  playlists: [{ id: 'alarm', name: 'Alarm', items: items.map((media) => ({ id: media, media })) }],
  bookings: [booking('alarm', { content: { playlist: 'alarm' }, onHold: true }), ...bookings],
});
const copy = booking('copy', {});

test.each([[['gale', 'more']], [[]]])('a playlist that is made %j first is no way around', (items) => {
  const [glass, draft] = [planWith(['gale']), planWith(items, copy)];
  expect(guardedIn(draft, copy, ['alarm'])).toEqual([]);
  expect(guardedIn(draft, copy, ['alarm'], [glass])).toEqual(['alarm']);
  expect(newlyGuarded(glass, draft, ['alarm']).map(({ booking: { id } }) => id)).toEqual(['copy']);
});

test('what was on the screens as it is, and what is no takeover, is not new', () => {
  expect(newlyGuarded(planWith(['gale'], copy), planWith(['gale'], copy), ['alarm'])).toEqual([]);
  const plain = booking('plain', { takeover: false });
  expect(newlyGuarded(planWith(['gale']), planWith(['gale'], plain), ['alarm'])).toEqual([]);
});
