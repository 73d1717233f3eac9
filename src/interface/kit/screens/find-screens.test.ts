import { emptyPlan, type Plan } from '@/core/plan';
import { findScreens } from './find-screens';

const plan: Plan = {
  ...emptyPlan('Line'),
  sites: [
    { id: 'skerrow', name: 'Skerrow Pier', timeZone: 'UTC', tags: ['quay'] },
    { id: 'ship', name: 'MS Tærnen', timeZone: 'UTC' },
  ],
  screens: [
    { id: 'a', name: 'Pier hall', site: 'skerrow', width: 1, height: 1 },
    { id: 'b', name: 'Gangway', site: 'skerrow', width: 1, height: 1 },
    { id: 'c', name: 'Quay bar', site: 'ship', width: 1, height: 1, tags: ['bar'] },
  ],
};

test.each([
  ['', 'abc'],
  ['pier', 'ab'],
  ['  GANG', 'b'],
  ['taernen', 'c'],
  ['Tærnen', 'c'],
  ['quay', 'abc'],
  ['quay and not bar', 'ab'],
  ['site:ship', 'c'],
  ['quay and (', ''],
  ['nothing', ''],
])('%j finds %j', (search, ids) => {
  expect(
    findScreens(plan, search)
      .map(({ id }) => id)
      .join(''),
  ).toBe(ids);
});
