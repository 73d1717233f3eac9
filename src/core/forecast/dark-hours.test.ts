import { smallPlan } from '../tests/small-plan';
import { darkHours } from './dark-hours';

const HOUR = 3_600_000;
const DAY = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
const plan = smallPlan({
  sites: [
    {
      id: 'quay',
      timeZone: 'Europe/Oslo',
      hours: { weekly: Object.fromEntries(DAY.map((day) => [day, [['08:00', '20:00']]])) },
    },
    { id: 'pier', timeZone: 'Europe/London' },
  ],
  screens: [
    { id: 'hall', site: 'quay' },
    { id: 'cafe', site: 'quay' },
    { id: 'deck', site: 'pier' },
  ],
});
/** Monday to Monday, at midnight in Oslo. */
const WEEK = [Date.UTC(2026, 10, 29, 23), Date.UTC(2026, 11, 6, 23)] as const;

test.each([
  ['at night', ['20:00', '08:00'], ['pier 84 0 of 0', 'quay 84 0 of 84']],
  ['swapped', ['08:00', '20:00'], ['quay 84 84 of 84', 'pier 84 0 of 0']],
  ['an hour of the opening hours', ['19:00', '08:00'], ['quay 91 7 of 84', 'pier 91 0 of 0']],
] as const)('lights out %s: how long, and how long of it while the site is open', (_what, window, told) => {
  const found = darkHours(plan, ['hall', 'cafe', 'deck'], [{ windows: [[...window]] }], ...WEEK);
  const hours = (ms: number) => Math.round(ms / HOUR);
  expect(
    found.map(
      ({ site, darkMs, openMs, darkWhileOpenMs }) =>
        `${site} ${hours(darkMs)} ${hours(darkWhileOpenMs)} of ${hours(openMs)}`,
    ),
  ).toEqual(told);
});

test('the first time that it is off is cut at the beginning; never is never', () => {
  const [hall] = darkHours(plan, ['hall'], [{ windows: [['20:00', '08:00']] }], ...WEEK);
  expect(hall?.first).toEqual([WEEK[0], WEEK[0] + 8 * HOUR]);
  expect(darkHours(plan, ['hall'], [], ...WEEK)).toEqual([
    { site: 'quay', darkMs: 0, openMs: 84 * HOUR, darkWhileOpenMs: 0, first: null },
  ]);
});
