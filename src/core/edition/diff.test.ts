import { parseInstant } from '../instant';
import { type Plan } from '../plan';
import { diffPlans, joinedGroups } from '.';
import { smallPlan } from '../tests/small-plan';

const at = (text: string) => parseInstant(text) as number;
const day = [at('2026-12-01T00:00:00Z'), at('2026-12-02T00:00:00Z')] as const;

/** Two screens that show the sailings from 06 to 10 in Oslo, and the flag at other times. */
const before = smallPlan({
  network: { backdrop: { media: 'flag' } },
  sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo' }],
  screens: ['hall', 'deck'].map((id) => ({ id, tags: [id] })),
  media: ['flag', 'sailings', 'film'],
  bookings: [
    {
      ...{ id: 'a', name: 'A', content: { media: 'sailings' } },
      when: { windows: [['06:00', '10:00']] },
    },
  ],
});

test('names, and bookings that never win, make no difference', () => {
  const renamed = {
    ...before,
    bookings: [
      ...before.bookings.map((one) => ({ ...one, name: 'Another' })),
      { ...(before.bookings[0] as Plan['bookings'][0]), id: 'under', priority: 1 },
    ],
  };
  expect(diffPlans(before, renamed, ...day)).toEqual([]);
});

test('a moved window differs at its edges, and screens that change alike are one group', () => {
  const moved = {
    ...before,
    bookings: before.bookings.map((one) => ({ ...one, when: { windows: [['06:00', '11:00'] as [string, string]] } })),
  };
  expect(diffPlans(before, moved, ...day)).toEqual([
    {
      screens: ['deck', 'hall'],
      differences: [
        {
          from: at('2026-12-01T09:00:00Z'),
          to: at('2026-12-01T10:00:00Z'),
          before: { source: 'backdrop', id: 'network', media: ['flag'] },
          after: { source: 'booking', id: 'a', media: ['sailings'] },
        },
      ],
    },
  ]);
});

test('the same booking with another loop differs; a screen that is gone differs all the time', () => {
  const other = {
    ...before,
    screens: before.screens.filter((one) => one.id === 'hall'),
    bookings: before.bookings.map((one) => ({ ...one, content: { media: 'film' } })),
  };
  const groups = diffPlans(before, other, ...day);
  expect(groups.map((group) => [group.screens, group.differences.map((one) => one.after?.media ?? null)])).toEqual([
    [['deck'], [null, null, null]],
    [['hall'], [['film']]],
  ]);
});

test('what stays the same between two differences parts them; what differs alike without a break is one', () => {
  const holed = {
    ...before,
    bookings: before.bookings.map((one) => ({
      ...one,
      when: {
        windows: [
          ['06:00', '07:00'],
          ['08:00', '09:00'],
        ] as [string, string][],
      },
    })),
  };
  const [group, ...more] = diffPlans(before, holed, ...day);
  expect(more).toEqual([]);
  expect(group?.differences.map(({ from, to }) => [from, to])).toEqual([
    [at('2026-12-01T06:00:00Z'), at('2026-12-01T07:00:00Z')],
    // The same booking shows, but its loop began at 08, not at 06.
    [at('2026-12-01T07:00:00Z'), at('2026-12-01T08:00:00Z')],
    [at('2026-12-01T08:00:00Z'), at('2026-12-01T09:00:00Z')],
  ]);
  // From 05 on another file shows: the flag gives way to it as well, and each is told apart.
  const earlier = {
    ...before,
    bookings: before.bookings.map((one) => ({
      ...one,
      content: { media: 'film' },
      when: { windows: [['05:00', '10:00'] as [string, string]] },
    })),
  };
  expect(diffPlans(before, earlier, ...day)[0]?.differences.map((one) => one.before?.media)).toEqual([
    ['flag'],
    ['sailings'],
  ]);
});

test('the larger group stands first; the range alone is looked at; nothing differs between equal plans', () => {
  const third = { ...(before.screens[0] as Plan['screens'][0]), id: 'attic', tags: ['deck'] };
  const three = { ...before, screens: [...before.screens, third] };
  const other = {
    ...three,
    bookings: [
      ...three.bookings,
      {
        ...(before.bookings[0] as Plan['bookings'][0]),
        id: 'h',
        where: 'hall',
        priority: 5,
        content: { media: 'film' },
      },
      {
        ...(before.bookings[0] as Plan['bookings'][0]),
        id: 'd',
        where: 'deck',
        priority: 5,
        content: { media: 'film' },
      },
    ],
  };
  expect(diffPlans(three, other, ...day).map((group) => group.screens)).toEqual([['attic', 'deck'], ['hall']]);
  expect(diffPlans(three, other, at('2026-12-01T10:00:00Z'), day[1])).toEqual([]);
  expect(diffPlans(three, three, ...day)).toEqual([]);
});

test('some screens alone are compared, and what was compared apart is joined to the same groups', () => {
  const moved = {
    ...before,
    bookings: before.bookings.map((one) => ({ ...one, when: { windows: [['06:00', '11:00'] as [string, string]] } })),
  };
  const of = (...screens: string[]) => diffPlans(before, moved, ...day, new Set(screens));
  expect(of('deck').map(({ screens }) => screens)).toEqual([['deck']]);
  expect(of('gone')).toEqual([]);
  expect(joinedGroups([...of('deck'), ...of('hall')])).toEqual(diffPlans(before, moved, ...day));
  // The largest stands first; what does not change is none.
  const [group] = of('deck');
  const other = {
    screens: ['x', 'y'],
    differences: (group?.differences ?? []).map((one) => ({ ...one, before: null })),
  };
  expect(
    joinedGroups([...of('deck'), other, { screens: ['same'], differences: [] }]).map((one) => one.screens),
  ).toEqual([['x', 'y'], ['deck']]);
});
