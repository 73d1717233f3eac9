import { puttingOn } from '../booking';
import { emptyPlan, type Booking, type Plan } from '../plan';
import { firedWhen, withByHand, type Fired } from './by-hand';

/** By hand: what is on the glass, whatever edition it is laid over. */
const NOW = Date.UTC(2026, 10, 29, 12);
const booking = (id: string, more: Partial<Booking>): Booking => ({
  ...{ id, name: id, content: { media: 'gale' }, where: 'all', priority: 5, created: '2026-11-01T00:00:00Z', when: {} },
  ...more,
});
const media = (id: string) => ({
  ...{ id, name: id, kind: 'image' as const, added: '2026-11-01T00:00:00Z', width: 10, height: 10, bytes: 9 },
});
const plan = (...bookings: Booking[]): Plan => ({
  ...emptyPlan('Line'),
  media: [media('gale')],
  bookings,
});
const fired = (booking_: string, firedAt: number, until: number | null, drill = false): Fired => ({
  ...{ booking: booking_, during: firedWhen(firedAt, until), before: { windows: [['08:00', '09:00']] }, drill },
});
const prepared = booking('gale', { takeover: true, onHold: true, when: { windows: [['08:00', '09:00']] } });
const inForce = (one: Fired): Booking => booking('gale', { takeover: true, when: one.during });
const ids = ({ bookings }: Plan) => bookings.map(({ id }) => id);

const OPEN = fired('gale', NOW - 60_000, null);
const TIMED = fired('gale', NOW - 60_000, NOW + 600_000);

test.each([
  ['open', OPEN],
  ['timed', TIMED],
])('what is in force stays, whatever an older edition says of it (%s)', (_, force) => {
  const glass = plan(inForce(force));
  const by = { inForce: [force], cleared: [], glass };
  expect(withByHand(plan(prepared), by, NOW).bookings).toEqual([inForce(force)]);
  expect(withByHand(plan(), by, NOW).bookings).toEqual([inForce(force)]);
  expect(withByHand({ ...plan(), media: [] }, by, NOW)).toMatchObject({ media: [media('gale')] });
  // Where nothing differs, it is the same plan.
  expect(withByHand(glass, by, NOW)).toBe(glass);
});

test('what was cleared comes back by no edition that was made while it was in force; a drill is gone', () => {
  for (const force of [OPEN, TIMED]) {
    const by = { inForce: [], cleared: [force], glass: plan(prepared) };
    expect(withByHand(plan(inForce(force)), by, NOW).bookings).toEqual([prepared]);
    const drill = { ...by, cleared: [{ ...force, drill: true }] };
    expect(withByHand(plan(inForce(force)), drill, NOW).bookings).toEqual([]);
  }
});

test('of two firings of one takeover the one that is in force counts, and a planned takeover is left alone', () => {
  const before = fired('gale', NOW - 9_000_000, NOW - 8_000_000);
  const by = { inForce: [TIMED], cleared: [before], glass: plan(inForce(TIMED)) };
  expect(withByHand(plan(inForce(before)), by, NOW).bookings).toEqual([inForce(TIMED)]);
  const scheduled = booking('drills', { takeover: true, when: { windows: [['10:00', '10:05']] } });
  expect(withByHand(plan(scheduled), { ...by, inForce: [], cleared: [], glass: plan() }, NOW).bookings).toEqual([
    scheduled,
  ]);
});

test('what was put on stays until its end; what was ended, or never was on this glass, does not come back', () => {
  const on = booking('note', { ...puttingOn(NOW - 60_000, NOW + 600_000, 'UTC') });
  const over = booking('past', { ...puttingOn(NOW - 600_000, NOW - 60_000, 'UTC') });
  const ended = booking('note', { ...puttingOn(NOW - 60_000, NOW - 1000, 'UTC') });
  const none = { inForce: [], cleared: [] };
  expect(ids(withByHand(plan(), { ...none, glass: plan(on, over) }, NOW))).toEqual(['note']);
  expect(ids(withByHand(plan(on, over), { ...none, glass: plan() }, NOW))).toEqual(['past']);
  expect(withByHand(plan(on), { ...none, glass: plan(ended) }, NOW).bookings).toEqual([]);
});
