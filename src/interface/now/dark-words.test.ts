import type { Screen } from '@/core/plan';
import type { ScreenStatus } from '@/services/screens';
import { darkWords } from './dark-words';

const screens = ['hall', 'deck', 'cafe', 'far'].map(
  (id) => ({ id, name: id, site: id === 'far' ? 'isle' : 'quay', width: 1, height: 1 }) as Screen,
);
const words = (states: Record<string, Partial<ScreenStatus>>, since: string | null = 'Mon 30 Nov, 10:00') =>
  darkWords(
    screens[0] as Screen,
    'Skerrow Pier',
    screens,
    new Map(
      Object.entries(states).map(([id, one]) => [
        id,
        { id, lastSeen: null, wasLast: null, troubles: [], download: null, state: 'lit', ...one } as ScreenStatus,
      ]),
    ),
    since,
  );
const dark = { state: 'dark' } as const;
const STAYS = 'If it still has power, it goes on showing what it has stored. It updates when it reconnects.';

test('a dark screen says when it was heard, how it was then, and how the others at its site are', () => {
  expect(words({ hall: { ...dark, wasLast: 'lit' }, deck: {}, cafe: {}, far: dark })).toEqual([
    'Its player is offline. It was last seen on Mon 30 Nov, 10:00. Then everything was up to date.',
    'All 2 other screens at Skerrow Pier are online: look at this player, its power and its cable.',
    STAYS,
  ]);
  expect(words({ hall: { ...dark, wasLast: 'behind' }, deck: dark, cafe: dark, far: {} })[1]).toBe(
    'All 2 other screens at Skerrow Pier are dark too: the site may have no power or no connection.',
  );
  expect(words({ hall: dark, deck: dark, cafe: { state: 'resting' } })[1]).toBe(
    'Of 2 other screens at Skerrow Pier, 1 is online and 1 dark too.',
  );
  expect(words({ hall: dark, deck: dark })[1]).toBe(
    'The only other screen at Skerrow Pier is dark too: the site may have no power or no connection.',
  );
  expect(words({ hall: dark })).toEqual(['Its player is offline. It was last seen on Mon 30 Nov, 10:00.', STAYS]);
});

test('one that was never heard, and one that is not dark', () => {
  expect(words({ hall: dark, deck: {} }, null)).toEqual([
    'Its player was paired, but never connected. Check that it is switched on and online.',
  ]);
  expect(words({ hall: {} })).toEqual([]);
});
