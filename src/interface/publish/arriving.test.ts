import type { ScreenState, ScreenStatus } from '@/services/screens';
import { wordOf } from './arriving';

const SINCE = Date.parse('2026-11-27T12:00:00Z');
const FOLLOWED = { number: 7, since: SINCE };
const MINUTES = 60_000;

/** What is told so many minutes after it went out, of screens that have arrived or not, in some state. */
function word(minutes: number, ...screens: [arrived: boolean, state: ScreenState][]) {
  const ids = screens.map((_, i) => `s${i}`);
  const arrivals = screens.map(([arrived], i) => ({
    screen: ids[i] ?? '',
    at: arrived ? '2026-11-27T12:00:01Z' : null,
  }));
  const statuses = new Map(
    screens.map(([, state], i): [string, ScreenStatus] => [
      ids[i] ?? '',
      { id: ids[i] ?? '', state, lastSeen: null, wasLast: null, troubles: [], download: null, can: null },
    ]),
  );
  return wordOf(FOLLOWED, arrivals, statuses, (id) => `Quay · ${id}`, SINCE + minutes * MINUTES);
}

test('it is told as soon as all that have a player play it', () => {
  expect(word(0, [true, 'lit'], [false, 'behind'])).toBeNull();
  expect(word(0, [true, 'lit'], [true, 'resting'], [false, 'unpaired'])).toEqual({
    text: 'Edition 7 is on all 2 screens that it changes.',
    bad: false,
  });
  expect(word(0, [true, 'lit'])).toEqual({ text: 'Edition 7 is on the screen that it changes.', bad: false });
});

test('after five minutes it is told what is missing', () => {
  expect(word(4.9, [true, 'lit'], [false, 'dark'])).toBeNull();
  expect(word(5, [true, 'lit'], [false, 'dark'])).toEqual({
    text: 'Edition 7 isn’t everywhere after 5 minutes: Quay · s1 has not been updated. See Publish for the reasons.',
    bad: true,
  });
  expect(word(9, [false, 'behind'], [true, 'lit'], [false, 'dark'])).toMatchObject({
    text: 'Edition 7 isn’t everywhere after 5 minutes: Quay · s0 and 1 more have not been updated. See Publish for the reasons.',
  });
});

test('of one that changes no screen with a player nothing is told', () => {
  expect(word(0)).toBe('over');
  expect(word(0, [false, 'unpaired'])).toBe('over');
});
