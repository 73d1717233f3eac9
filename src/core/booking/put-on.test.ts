import { bookingSchema, type Booking } from '../plan';
import { putOnOf, putOnsIn, puttingOn } from '.';
import { smallPlan } from '../tests/small-plan';

const NOW = Date.parse('2026-11-27T10:30:00Z');
const HOUR = 3_600_000;
const written = (id: string, more: object) => ({
  ...{ id, name: id, content: { media: 'drill' }, where: 'all', created: '2026-11-27T10:30:00Z' },
  ...more,
});
const booking = (more: object): Booking => bookingSchema.parse(written('b', more));

test('what was put on is known by its form: a takeover of the lowest priority, of one span', () => {
  const made = booking(puttingOn(NOW, NOW + HOUR, 'Europe/Oslo'));
  expect(putOnOf(made)).toEqual({ booking: made, from: NOW, to: NOW + HOUR });
  for (const other of [{ takeover: false }, { priority: 2 }, { onHold: true }, { when: {} }])
    expect(putOnOf({ ...made, ...other })).toBeNull();
});

test('what was put on in a plan, and on which screens: what ends first first', () => {
  const plan = smallPlan({
    screens: ['hall', 'deck'].map((id) => ({ id, tags: [id] })),
    media: [{ id: 'drill', name: 'D', kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' }],
    bookings: [
      written('long', { ...puttingOn(NOW, NOW + 2 * HOUR, 'UTC') }),
      written('booked', { when: {} }),
      written('short', { ...puttingOn(NOW, NOW + HOUR, 'UTC'), where: 'screen:deck' }),
    ],
  });
  expect(putOnsIn(plan).map(({ booking: { id }, screens }) => [id, screens])).toEqual([
    ['short', ['deck']],
    ['long', ['hall', 'deck']],
  ]);
});
