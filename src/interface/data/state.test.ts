import { emptyPlan, type Plan } from '@/core/plan';
import { begun, followed, withEdition, type NetworkView } from './state';

const at = (change: number) =>
  begun({
    ...{ person: 'ida', draft: emptyPlan('Line'), change, published: null, docket: { change, entries: 0, screens: 0 } },
    ...{ statuses: [], serverNow: 0 },
  } as unknown as NetworkView);
/** The one change of a number, behind another. */
const one = (after: number, number: number) => ({
  ...{ after, number, media: [] },
  changes: [
    { number, patch: { kind: 'network' as const, set: { name: `Line ${number}` } }, by: null, origin: 'other' },
  ],
});

test('a single change that is missing is noticed, and asked for', () => {
  expect(followed(at(100), one(101, 102) as never)).toEqual({ missed: true });
  expect(followed(at(100), one(100, 101) as never)).toMatchObject({
    state: { change: 101, base: { network: { name: 'Line 101' } } },
  });
});

test('an edition that is told twice, or late, changes nothing: whoever drew it draws nothing again', () => {
  const plan = (name: string): Plan => emptyPlan(name);
  const second = withEdition(at(100), { number: 2, plan: plan('Second') });
  expect(withEdition(second, { number: 2, plan: plan('Second') })).toBe(second);
  expect(withEdition(second, { number: 1, plan: plan('First') })).toBe(second);
  expect(withEdition(second, { number: 3, plan: plan('Third') }).published).toMatchObject({ number: 3 });
});
