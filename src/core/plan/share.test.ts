import { differingLists, sameButBookings, samePlan, sharing } from './share';
import { emptyPlan, type Plan } from '.';

const site = (id: string, name = id) => ({ id, name, timeZone: 'UTC' });
const plan = (...sites: ReturnType<typeof site>[]): Plan => ({ ...emptyPlan('N'), sites });
const copy = (of: Plan): Plan => JSON.parse(JSON.stringify(of)) as Plan;

test('a plan that says the same shares all of the one before', () => {
  const before = plan(site('a'), site('b'));
  const after = sharing(before, copy(before));
  expect(
    [after.sites, after.network, after.screens].map(
      (one, i) => one === [before.sites, before.network, before.screens][i],
    ),
  ).toEqual([...[true, true, true]]);
  expect(samePlan(before, after)).toBe(true);
  expect(differingLists(before, after)).toEqual({ network: false, lists: [] });
});

test.each<[string, Plan, boolean[]]>([
  ['one that changed is new, the others stay', plan(site('a'), site('b', 'B')), [true, false]],
  ['one more', plan(site('a'), site('b'), site('c')), [true, true, false]],
  ['one less', plan(site('b')), [true]],
  ['in another order', plan(site('b'), site('a')), [true, true]],
])('%s', (_, next, shared) => {
  const before = plan(site('a'), site('b'));
  const after = sharing(before, next);
  expect(after.sites).not.toBe(before.sites);
  expect(after.sites.map((one) => before.sites.includes(one))).toEqual(shared);
  expect(after.sites).toEqual(next.sites);
  expect(after.screens).toBe(before.screens);
  expect(differingLists(before, after)).toEqual({ network: false, lists: ['sites'] });
  expect([sameButBookings(before, after), samePlan(before, after)]).toEqual([false, false]);
});

test('where bookings alone differ, all else is the same', () => {
  const before = plan(site('a'));
  const booking = {
    id: 'x',
    name: 'X',
    content: { media: 'm' },
    where: 'all',
    priority: 3,
    created: '2026-01-01T00:00:00Z',
    when: {},
  };
  const after = sharing(before, { ...copy(before), bookings: [booking] });
  expect([sameButBookings(before, after), samePlan(before, after)]).toEqual([true, false]);
  const renamed = sharing(before, { ...copy(before), network: { name: 'Other' } });
  expect([sameButBookings(before, renamed), differingLists(before, renamed).network]).toEqual([false, true]);
});

test('a list that is the same object is not looked into', () => {
  const before = plan(site('a'));
  expect(sharing(before, before).sites).toBe(before.sites);
});
