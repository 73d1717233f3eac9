import { emptyPlan, type Booking, type Plan } from '@/core/plan';
import type { Firing } from '@/services/editions';
import type { ScreenStatus } from '@/services/screens';
import { isInForce, prepared, reachOf, reachSentences } from './standing';

const NOW = Date.parse('2026-11-27T12:00:00Z');
const booking = (id: string, more: Partial<Booking> = {}): Booking => ({
  ...{ id, name: id, content: { media: 'gale' }, where: 'all', priority: 5, created: '2026-01-01T00:00:00Z', when: {} },
  ...{ takeover: true, onHold: true },
  ...more,
});
const firing = (id: string, more: Partial<Firing> = {}): Firing => ({
  ...{
    id: `f-${id}`,
    booking: id,
    name: id,
    firedAt: '2026-11-27T11:00:00Z',
    firedBy: 'Ida',
    byKey: false,
    drill: false,
  },
  ...{
    until: null,
    screens: 1,
    showing: 0,
    showed: 0,
    edition: 2,
    clearedAt: null,
    clearedBy: null,
    clearedByKey: false,
  },
  ...more,
});
const plan = (...bookings: Booking[]): Plan => ({
  ...emptyPlan('N'),
  sites: ['north', 'south'].map((id) => ({ id, name: id, timeZone: 'UTC' })),
  screens: ['a', 'b', 'c', 'd'].map((id, i) => ({
    ...{ id, name: id, site: i < 3 ? 'north' : 'south', width: 1, height: 1, tags: [] },
  })),
  bookings,
});

test('in force until it is cleared, or over by itself', () => {
  expect(isInForce(firing('x'), NOW)).toBe(true);
  expect(isInForce(firing('x', { until: '2026-11-27T12:00:01Z' }), NOW)).toBe(true);
  expect(isInForce(firing('x', { until: '2026-11-27T12:00:00Z' }), NOW)).toBe(false);
  expect(isInForce(firing('x', { clearedAt: '2026-11-27T11:30:00Z' }), NOW)).toBe(false);
});

test('what can be fired: takeovers on hold, and those that ended by themselves; by name', () => {
  const list = [
    booking('storm'),
    booking('fog', { onHold: undefined }),
    booking('ice', { onHold: undefined }),
    booking('sale', { takeover: undefined }),
    booking('live', { onHold: undefined }),
    booking('drill', { onHold: undefined, drill: true }),
  ];
  const firings = [
    firing('fog', { until: '2026-11-27T11:30:00Z' }),
    firing('ice', { until: '2026-11-27T12:30:00Z' }),
    firing('drill', { until: '2026-11-27T11:30:00Z', drill: true }),
  ];
  expect(prepared(plan(...list), firings, NOW).map(({ id }) => id)).toEqual(['fog', 'storm']);
  // The last firing counts.
  const again = [firing('fog', { until: '2026-11-27T12:30:00Z' }), ...firings];
  expect(prepared(plan(...list), again, NOW).map(({ id }) => id)).toEqual(['storm']);
});

test('what firing does is said in numbers', () => {
  const states = { a: 'lit', b: 'dark', c: 'resting' } as const;
  const statuses = new Map(
    Object.entries(states).map(([id, state]) => [
      id,
      { id, state, lastSeen: null, wasLast: null, troubles: [], download: null, can: null } as ScreenStatus,
    ]),
  );
  const reach = reachOf(plan(), 'all', statuses);
  expect(reach).toEqual({ screens: 4, sites: 2, heard: 2, dark: 1, unpaired: 1 });
  expect(reachSentences(reach, true, 1)).toEqual([
    '4 screens at 2 sites: 2 are online and show it within seconds.',
    '1 offline: it shows it when it is back, if it is still in force.',
    '1 without a player.',
  ]);
  expect(reachSentences(reach, false, 1)[1]).toBe(
    '1 screen in lights-out hours stays dark: it does not wake displays.',
  );
  expect(reachSentences(reachOf(plan(), 'screen:a', statuses), false, 0)).toEqual([
    '1 screen at 1 site: all are online and show it within seconds.',
  ]);
});
