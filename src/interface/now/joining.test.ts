import { emptyPlan, type Plan } from '@/core/plan';
import { withJoining } from './joining';

const screen = (id: string, site: string) => ({ id, name: id, site, width: 1, height: 1 });
const published: Plan = {
  ...emptyPlan('Line'),
  sites: [{ id: 'quay', name: 'Quay', timeZone: 'UTC' }],
  screens: [screen('hall', 'quay')],
};
const draft: Plan = {
  ...published,
  sites: [
    ...published.sites,
    { id: 'ship', name: 'Ship', timeZone: 'UTC' },
    { id: 'bare', name: 'Bare', timeZone: 'UTC' },
  ],
  screens: [screen('hall', 'quay'), screen('door', 'quay'), screen('deck', 'ship')],
};
const ids = (list: readonly { id: string }[]) => list.map(({ id }) => id);

test('what was added since the last edition stands beside what is on the glass, marked', () => {
  const all = withJoining(published, draft, published);
  expect(ids(all.sites)).toEqual(['quay', 'ship']);
  expect(ids(all.screens)).toEqual(['hall', 'door', 'deck']);
  expect([...all.joining]).toEqual(['door', 'deck']);
});

test('who looks at the draft sees each once', () => {
  const all = withJoining(draft, draft, published);
  expect(ids(all.screens)).toEqual(['hall', 'door', 'deck']);
  expect([...all.joining]).toEqual(['door', 'deck']);
});

test('before the first edition, and where nothing was added, nothing joins', () => {
  expect(withJoining(draft, draft, null).joining.size).toBe(0);
  expect(withJoining(published, published, published)).toMatchObject({
    sites: published.sites,
    screens: published.screens,
  });
});
