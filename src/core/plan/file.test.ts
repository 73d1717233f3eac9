import { emptyPlan, planFile, readPlan, type Plan } from '.';

const plan: Plan = {
  ...emptyPlan('Line'),
  sites: [{ id: 'quay', name: 'Quay', timeZone: 'UTC' }],
  playlists: [
    { id: 'bare', name: 'Bare', items: [] },
    {
      id: 'house',
      name: 'House',
      items: [
        { id: 'e1', playlist: 'bare', where: 'quay' },
        { id: 'e2', collect: 'offer', order: 'newest' },
      ],
    },
  ],
};

test('a plan file has no ids of entries, and says all else as it is', () => {
  expect(planFile(plan)).toEqual({
    ...plan,
    playlists: [
      { id: 'bare', name: 'Bare', items: [] },
      {
        id: 'house',
        name: 'House',
        items: [
          { playlist: 'bare', where: 'quay' },
          { collect: 'offer', order: 'newest' },
        ],
      },
    ],
  });
  // What the network holds keeps them.
  expect(plan.playlists[1]?.items[0]?.id).toBe('e1');
});

test('what a plan file says can be read', () => {
  expect(readPlan(planFile(plan))).toMatchObject({ ok: true, value: { playlists: [{ id: 'bare' }, { id: 'house' }] } });
});
