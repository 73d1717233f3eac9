import { parseInstant } from '../instant';
import { findings } from '.';
import { smallPlan } from '../tests/small-plan';

const at = (text: string) => parseInstant(text) as number;
const DAY_OF = [at('2026-12-01T00:00:00Z'), at('2026-12-02T00:00:00Z')] as const;

const told = (...bookings: object[]) =>
  findings(
    smallPlan({
      network: { backdrop: { media: 'flag' } },
      screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 2, height: 1 }],
      media: [
        { id: 'flag', name: 'Flag', kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' },
      ],
      bookings: bookings.map((one) => ({
        content: { media: 'flag' },
        ...one,
      })),
    }),
    ...DAY_OF,
  ).map(({ kind, about, times }) => [kind, about, times]);

test('shares that come to all of the time are no finding, and more than that is one, while they meet', () => {
  const morning = { windows: [['06:00', '12:00']] };
  expect(told({ id: 'a', name: 'A', weave: { share: 0.6 } }, { id: 'b', name: 'B', weave: { share: 0.4 } })).toEqual(
    [],
  );
  expect(
    told({ id: 'a', name: 'A', weave: { share: 0.6 } }, { id: 'b', name: 'B', weave: { share: 0.5 }, when: morning }),
  ).toEqual([['promised too much', ['a', 'b'], [[at('2026-12-01T06:00:00Z'), at('2026-12-01T12:00:00Z')]]]]);
  // Ten seconds once in twenty are half of the time, and two such all of it.
  const often = { weave: { every: 20_000 } };
  expect(told({ id: 'a', name: 'A', ...often }, { id: 'b', name: 'B', ...often })).toEqual([]);
  expect(told({ id: 'a', name: 'A', ...often }, { id: 'b', name: 'B', weave: { share: 0.501 } })).toMatchObject([
    ['promised too much', ['a', 'b'], [DAY_OF]],
  ]);
});

test('what is woven into a takeover alone, or for too short a time, meets no loop', () => {
  const woven = { id: 'a', name: 'A', weave: { every: 600_000 } };
  expect(told(woven)).toEqual([]);
  expect(told(woven, { id: 't', name: 'T', takeover: true })).toEqual([['meets no loop', ['a'], []]]);
  expect(told({ ...woven, when: { windows: [['06:00', '06:09']] } })).toEqual([['meets no loop', ['a'], []]]);
});
