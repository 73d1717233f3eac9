import { clockOf, edgeOf, inPart, isBare, laterEdge, withHalf } from './edges';
import { minutesOf, monthNumber, nthNumber, numberOf, weekdayNumber } from './vocabulary';
import { readRows } from '../../tests/rows';

test.each([
  [0, '00:00'],
  [59_999, '00:00:59'],
  [60_000, '00:01'],
  [3_599_000, '00:59:59'],
  [86_399_000, '23:59:59'],
  [86_400_000, '24:00'],
])('%d ms after midnight is %s', (ms, clock) => {
  expect(clockOf(ms)).toBe(clock);
});

test.each<[string, string | null, string | null]>(readRows('when/phrase/edges.jsonl'))(
  '"%s" begins at %s and ends at %s',
  (written, begins, ends) => {
    expect([edgeOf(written, false), edgeOf(written, true)]).toEqual([begins, ends]);
  },
);

test.each([
  ['8', true],
  ['7:30', true],
  ['7.30', true],
  ['half past seven', true],
  ['10', true],
  ['11:15', true],
  ['12', false],
  ['0', false],
  ['08:00', false],
  ['18', false],
  ['8 am', false],
  ['8:5', false],
  ['opening', false],
])('"%s" may be in either half of the day: %s', (written, bare) => {
  expect(isBare(written)).toBe(bare);
});

test.each([
  ['6', '10 pm', '6pm'],
  ['10', '2 pm', '10am'],
  ['10', '2 am', '10pm'],
  ['6:30', '8 p.m.', '6:30pm'],
  ['12', '3 pm', '12pm'],
  ['8', '8 pm', '8am'],
  ['08', '9 pm', '08'],
  ['13', '3 pm', '13'],
  ['6', '22:00', '6'],
  ['6am', '8 pm', '6am'],
])('of %s to %s the beginning is %s', (start, end, begins) => {
  expect(withHalf(start, end)).toBe(begins);
});

test.each<[part: string, start: string, end: string, bare: string, [string, string]]>(
  readRows('when/phrase/parts-of-day.jsonl'),
)('%s from %s to %s, %s bare', (part, start, end, bare, moved) => {
  const edges = [bare === 'both' || bare === 'start', bare === 'both' || bare === 'end'] as const;
  expect(inPart(part, [start, end], edges)).toEqual(moved);
});

test.each([
  ['08:00', 90, '09:30'],
  ['23:30', 60, '00:30'],
  ['23:00', 60, '00:00'],
  ['opens', 30, 'opens+00:30'],
  ['closes', -60, 'closes-01:00'],
  ['opens-01:00', 60, 'opens'],
  ['opens-01:00', 30, 'opens-00:30'],
  ['closes+00:30', 45, 'closes+01:15'],
  ['08:00', 0.5, '08:00:30'],
])('%s and %d minutes is %s', (edge, minutes, later) => {
  expect(laterEdge(edge, minutes)).toBe(later);
});

test.each([
  ['half an hour', 30],
  ['a half-hour', 30],
  ['quarter of an hour', 15],
  ['an hour and a half', 90],
  ['2 and a half hours', 150],
  ['one and a half hours', 90],
  ['1h30', 90],
  ['12 h 05', 725],
  ['1.5 h', 90],
  ['1,25 hours', 75],
  ['an hour', 60],
  ['two hours and 15 minutes', 135],
  ['90 seconds', 1.5],
  ['1 minute 30 secs', 1.5],
  ['20 mins', 20],
  ['nothing', 0],
])('"%s" is %d minutes', (text, minutes) => {
  expect(minutesOf(text)).toBe(minutes);
});

test('words are numbers, months, weekdays and places', () => {
  expect(['a', 'an', 'one', ' Twelve ', '7', '1,5', 'many'].map(numberOf)).toEqual([1, 1, 1, 12, 7, 1.5, NaN]);
  expect(['January', 'sept', 'DEC', 'Foo'].map(monthNumber)).toEqual([1, 9, 12, 0]);
  expect(['Mon', 'tues', 'SUNDAY', 'xy'].map(weekdayNumber)).toEqual([0, 1, 6, -1]);
  expect(['First', '10th', 'last', 'Second-to-last', 'penultimate', 'other'].map(nthNumber)).toEqual([
    1,
    10,
    -1,
    -2,
    -2,
    NaN,
  ]);
});
