import Holidays from 'date-holidays';
import { formatDate, parseDate } from '..';
import { easter, feastIn } from './feasts';

/** Easter Sundays by the Gregorian rule, early and late ones among them: the tables of the Book of Common Prayer, from memory. */
const SUNDAYS = [
  '1961-04-02',
  '1981-04-19',
  '2000-04-23',
  '2008-03-23',
  '2011-04-24',
  '2024-03-31',
  '2025-04-20',
  '2026-04-05',
  '2027-03-28',
  '2038-04-25',
  '2049-04-18',
  '2076-04-19',
];

test.each(SUNDAYS)('Easter Sunday is %s', (date) => {
  expect(formatDate(easter(Number(date.slice(0, 4))))).toBe(date);
});

test('Easter is that of another program, over a century and a half', () => {
  const germany = new Holidays('DE');
  for (let year = 1970; year <= 2120; year++) {
    const theirs = germany.getHolidays(year).find(({ rule }) => rule === 'easter');
    expect(formatDate(easter(year))).toBe(theirs?.date.slice(0, 10));
  }
});

test('feasts that hang on Easter, and those that do not', () => {
  // Easter 2027 is 28 March.
  expect(feastIn('Good Friday', 2027)).toBe(parseDate('2027-03-26'));
  expect(feastIn('easter monday', 2027)).toBe(parseDate('2027-03-29'));
  expect(feastIn('Christmas Day', 2027)).toBe(parseDate('2027-12-25'));
});
