import { parseInstant } from '../instant';
import { orThrow } from '../refusal';
import { readPlan } from '../plan';
import { contestsOf, hidersOf } from '.';

const [from, to] = [parseInstant('2026-12-01T00:00:00Z') as number, parseInstant('2026-12-02T00:00:00Z') as number];
const HOUR = 3_600_000;

/** Screens a, b and c, dark from 22:00; c is dark from 20:00. Bookings show the flag, made one after the other. */
function contests(bookings: object[]) {
  const read = readPlan({
    format: 'lanternpost/plan',
    version: 1,
    network: { name: 'N', backdrop: { media: 'flag' } },
    sites: [{ id: 'quay', name: 'Quay', timeZone: 'UTC' }],
    screens: ['a', 'b', 'c'].map((id) => ({
      ...{ id, name: id, site: 'quay', width: 2, height: 1, tags: [id] },
      lightsOut: [{ windows: [[id === 'c' ? '20:00' : '22:00', '23:00']] }],
    })),
    media: ['flag', 'gone'].map((id) => ({
      ...{ id, name: id, kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' },
      ...(id === 'gone' ? { when: { to: '2026-01-01' } } : {}),
    })),
    playlists: [{ id: 'for-c', name: 'For c', items: [{ media: 'flag', where: 'c' }] }],
    bookings: bookings.map((one, i) => ({
      ...{ name: `B${i}`, where: 'all', content: { media: 'flag' }, created: `2026-01-01T00:0${i}:00Z` },
      ...one,
    })),
  });
  return contestsOf(orThrow(read), from, to);
}

const states = (bookings: object[], id: string) =>
  Object.fromEntries(
    contests(bookings).flatMap((one) => one.group.screens.map((screen) => [screen, one.stateOf(id)] as const)),
  );
const on = (begin: string, end: string) => ({ windows: [[begin, end]] });

test('what becomes of a booking is told for each screen', () => {
  expect(states([{ id: 'own', when: on('06:00', '07:00') }], 'own')).toEqual({ a: 'shows', b: 'shows', c: 'shows' });
  expect(states([{ id: 'own', where: 'b' }], 'own')).toEqual({ a: 'not here', b: 'shows', c: 'not here' });
  expect(states([{ id: 'own', content: { playlist: 'for-c' } }], 'own')).toMatchObject({ b: 'not here', c: 'shows' });
  expect(states([{ id: 'own', when: { from: '2026-12-02' } }], 'own')).toMatchObject({ a: 'no time' });
  expect(states([{ id: 'own', content: { media: 'gone' } }], 'own')).toMatchObject({ a: 'nothing to show' });
  const over = { id: 'over', priority: 5, where: 'b', when: on('05:00', '21:00') };
  expect(states([over, { id: 'own', when: on('20:00', '20:30') }], 'own')).toEqual({
    a: 'shows',
    b: 'hidden',
    c: 'off',
  });
});

test('displays are off for a booking only if all of its time is dark, and it does not wake them', () => {
  const late = { id: 'own', when: on('22:15', '22:45') };
  expect(states([late], 'own')).toMatchObject({ a: 'off' });
  const half = { id: 'own', when: on('19:30', '20:30') };
  const over = { id: 'over', priority: 5, when: on('19:00', '20:00') };
  expect(states([half, over], 'own')).toMatchObject({ a: 'shows', c: 'hidden' });
  const waking = { ...late, takeover: true, wake: true };
  expect(states([waking], 'own')).toMatchObject({ a: 'shows' });
  const first = { id: 'first', takeover: true, wake: true, priority: 5 };
  expect(states([first, waking], 'own')).toMatchObject({ a: 'hidden', c: 'hidden' });
});

test('who is ahead longest comes first, each screen counted; who shows at another time is not ahead', () => {
  const own = { id: 'own', where: 'a or b', priority: 1, when: on('06:00', '10:00') };
  const one = { id: 'one', where: 'a', priority: 2, when: on('05:00', '09:00') };
  const two = { id: 'two', where: 'a or b', priority: 3, when: on('08:00', '12:00') };
  const other = { id: 'other', where: 'b', priority: 2, when: on('04:00', '08:00') };
  const elsewhere = { id: 'elsewhere', priority: 5, when: on('12:00', '20:00') };
  // On a: one 06 to 08, two 08 to 10. On b: other 06 to 08, two 08 to 10.
  expect(hidersOf('own', contests([own, one, two, other, elsewhere]))).toEqual(['two', 'one', 'other']);
  const dark = { id: 'own', where: 'c', when: on('19:59', '21:00') };
  const minute = { id: 'minute', where: 'c', priority: 4, when: on('19:00', '20:00') };
  expect(hidersOf('own', contests([dark, minute]))).toEqual(['lights-out', 'minute']);
  expect(hidersOf('own', contests([own]))).toEqual([]);
});

test('what is asked of one booking is of its own occurrences, and clipped to the range', () => {
  const own = { id: 'own', priority: 1, when: on('23:30', '01:00') };
  const over = { id: 'over', priority: 5 };
  const [first] = contests([own, over]);
  expect(first?.waiting('own').map((one) => one.counts)).toEqual([[[from, from + HOUR]], [[to - HOUR / 2, to]]]);
  expect(first?.waiting('over')).toEqual([]);
  expect(first?.shown('own')).toEqual([]);
  expect(first?.shown('over').every((one) => one.id === 'over')).toBe(true);
  expect(first?.candidates().filter((one) => one.source === 'booking')).toHaveLength(3);
});
