import { clockOf, edgeOf, inPart, isBare, laterEdge, withHalf } from './edges';
import { minutesOf, monthNumber, nthNumber, numberOf, weekdayNumber } from './vocabulary';

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

test.each<[string, string | null, string | null]>([
  ['noon', '12:00', '12:00'],
  ['midnight', '00:00', '24:00'],
  ['end of day', null, '24:00'],
  ['the end of the day', null, '24:00'],
  ['the end of the days', null, null],
  ['opening', 'opens', 'opens'],
  ['opening time', 'opens', 'opens'],
  ['close', 'closes', 'closes'],
  ['an hour before closing', 'closes-01:00', 'closes-01:00'],
  ['30 min after the opening', 'opens+00:30', 'opens+00:30'],
  ['closes+1:30', 'closes+01:30', 'closes+01:30'],
  ['closes minus 01:30', 'closes-01:30', 'closes-01:30'],
  ['opens plus 20 min', 'opens+00:20', 'opens+00:20'],
  ['8', '08:00', '08:00'],
  ['8.30', '08:30', '08:30'],
  ['8h', '08:00', '08:00'],
  ['8h30', '08:30', '08:30'],
  ['0830h', '08:30', '08:30'],
  ['0830hrs', '08:30', '08:30'],
  ['8:30:15', '08:30:15', '08:30:15'],
  ['8 p.m.', '20:00', '20:00'],
  ['12am', '00:00', '00:00'],
  ['12pm', '12:00', '12:00'],
  ['0am', null, null],
  ['13pm', null, null],
  ['24:00', null, '24:00'],
  ['25', null, null],
  ['8:60', null, null],
  ["eight o'clock", '08:00', '08:00'],
  ['half past eight', '08:30', '08:30'],
  ['half eight', '08:30', '08:30'],
  ['quarter to one', '12:45', '12:45'],
  ['a quarter past 9 pm', '21:15', '21:15'],
  ['twenty to ten', '09:40', '09:40'],
  ['twenty-five past ten', '10:25', '10:25'],
  ['ten minutes to nine', '08:50', '08:50'],
  ['8 in the morning', '08:00', '08:00'],
  ['8 in the evening', '20:00', '20:00'],
  ['3 in the afternoon', '15:00', '15:00'],
  ['11 at night', '23:00', '23:00'],
  ['eightish', null, null],
])('"%s" begins at %s and ends at %s', (written, begins, ends) => {
  expect([edgeOf(written, false), edgeOf(written, true)]).toEqual([begins, ends]);
});

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

test.each<[part: string, start: string, end: string, bare: string, [string, string]]>([
  ['morning', '08:00', '11:00', 'both', ['08:00', '11:00']],
  ['lunchtime', '12:00', '01:00', 'end', ['12:00', '13:00']],
  ['lunchtime', '01:00', '02:00', 'both', ['13:00', '14:00']],
  ['lunchtime', '11:30', '10:00', 'both', ['11:30', '10:00']],
  ['lunchtime', '01:00', '02:00', 'none', ['01:00', '02:00']],
  ['afternoon', '01:00', '05:00', 'both', ['13:00', '17:00']],
  ['afternoon', '12:00', '03:00', 'end', ['12:00', '15:00']],
  ['afternoon', '03:00', '12:00', 'start', ['15:00', '12:00']],
  ['evening', '06:00', '08:00', 'both', ['18:00', '20:00']],
  ['evening', '18:00', '09:00', 'end', ['18:00', '21:00']],
  ['evening', '06:00', '21:00', 'start', ['18:00', '21:00']],
  ['evening', '06:00', '12:00', 'start', ['18:00', '24:00']],
  ['evening', '08:00', '02:00', 'both', ['20:00', '02:00']],
  ['evening', '08:00', '08:00', 'both', ['20:00', '08:00']],
  ['evening', '05:00', '07:00', 'both', ['17:00', '19:00']],
  ['night', '10:00', '06:00', 'both', ['22:00', '06:00']],
  ['night', '01:00', '05:00', 'both', ['01:00', '05:00']],
  ['night', '05:00', '08:00', 'both', ['05:00', '08:00']],
  ['night', '06:00', '08:00', 'both', ['18:00', '20:00']],
  ['night', '08:00', '12:00', 'start', ['20:00', '24:00']],
  ['night', '22:00', '11:00', 'end', ['22:00', '23:00']],
  ['night', '22:00', '09:00', 'end', ['22:00', '09:00']],
  ['night', '22:00', '06:00', 'none', ['22:00', '06:00']],
])('%s from %s to %s, %s bare', (part, start, end, bare, moved) => {
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
