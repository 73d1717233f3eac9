import { DAY, HOUR } from '../instant';
import { PROBLEMS, stateSpans, timeIn, type Facts, type Problem, type Since } from '.';

const CHANGES: Since[] = [
  { at: 100, state: 'lit' },
  { at: 200, state: 'dark' },
  { at: 300, state: 'lit' },
];

test.each([
  ['all of it', 100, 400, ['lit 100-200', 'dark 200-300', 'lit 300-400']],
  ['from before it was known', 50, 150, ['null 50-100', 'lit 100-150']],
  ['in the middle of one', 220, 260, ['dark 220-260']],
  ['an edge alone', 200, 300, ['dark 200-300']],
  ['nothing', 200, 200, []],
] as const)('states over time: %s', (_what, from, to, spans) => {
  expect(stateSpans(CHANGES, from, to).map((one) => `${one.state} ${one.from}-${one.to}`)).toEqual(spans);
});

test('the time in each state leaves out what is not known', () => {
  expect([...timeIn(stateSpans(CHANGES, 0, 400))]).toEqual([
    ['lit', 200],
    ['dark', 100],
  ]);
});

test.each<[Problem, Partial<Facts>, Partial<Facts>]>([
  ['trouble', { troubles: ['Clock 4 min slow.'] }, {}],
  ['dark', { state: 'dark' }, { state: 'behind' }],
  ['dark-yesterday', { wasDarkYesterday: true }, { state: 'dark' }],
  ['behind', { state: 'behind', since: -HOUR - 1 }, { state: 'behind', since: -HOUR }],
  ['clock', { clockMs: -30_001 }, { clockMs: 30_000 }],
  ['storage', { freeStorage: 0.099 }, { freeStorage: 0.1 }],
  ['unseen', { state: 'dark', lastSeen: -7 * DAY - 1 }, { state: 'dark', lastSeen: -7 * DAY }],
])('the problem “%s” has its line', (problem, has, hasNot) => {
  const usual: Facts = {
    ...{ state: 'lit', troubles: [], since: null, lastSeen: 0, wasDarkYesterday: false },
    ...{ clockMs: null, freeStorage: null },
  };
  expect(PROBLEMS[problem].is({ ...usual, ...has }, 0)).toBe(true);
  expect(PROBLEMS[problem].is({ ...usual, ...hasNot }, 0)).toBe(false);
});
