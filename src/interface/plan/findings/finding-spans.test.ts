import { formatInstant, parseInstant } from '@/core/instant';
import { findingSpans } from './finding-spans';

const at = (text: string) => parseInstant(text) as number;
const told = (shown: [string, string], now: string) =>
  findingSpans([at(shown[0]), at(shown[1])], at(now), 'Europe/Oslo').map(
    ({ name, from, to }) => `${name}: ${formatInstant(from)} ${formatInstant(to)}`,
  );

test('spans are named by what they are, over the turn of the year and by the clock of the zone', () => {
  expect(told(['2026-11-29T23:00:00.000Z', '2026-12-06T23:00:00Z'], '2026-11-30T23:30:00Z')).toEqual([
    'Mon 30 Nov – Sun 6 Dec: 2026-11-29T23:00:00.000Z 2026-12-06T23:00:00.000Z',
    'Dec 2026: 2026-11-30T23:00:00.000Z 2026-12-31T23:00:00.000Z',
    'Jan 2027: 2026-12-31T23:00:00.000Z 2027-01-31T23:00:00.000Z',
    'Feb 2027: 2027-01-31T23:00:00.000Z 2027-02-28T23:00:00.000Z',
    'Mar 2027: 2027-02-28T23:00:00.000Z 2027-03-31T22:00:00.000Z',
    'Jan 2027 to Mar 2027: 2026-12-31T23:00:00.000Z 2027-03-31T22:00:00.000Z',
  ]);
});

test('one day is told as that day; what is shown does not move the months', () => {
  const [shown, month] = told(['2027-06-01T22:00:00.000Z', '2027-06-02T22:00:00Z'], '2026-11-26T10:00:00Z');
  expect(shown).toMatch(/^Wed 2 Jun: /);
  expect(month).toMatch(/^Nov 2026: /);
});
