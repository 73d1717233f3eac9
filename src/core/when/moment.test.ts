import { orThrow } from '../refusal';
import { formatDate, formatLocalTime, dateOfLocalTime, parseDate, readMoment, readShift, type LocalDate } from '.';

/** A Wednesday. */
const today = parseDate('2026-11-25') as LocalDate;

test.each([
  ['tomorrow 06:10', '2026-11-26 06:10'],
  ['06:10 tomorrow', '2026-11-26 06:10'],
  ['yesterday at 6pm', '2026-11-24 18:00'],
  ['noon', '2026-11-25 12:00'],
  ['Wed 6:10', '2026-11-25 06:10'],
  ['on Tuesday, midnight', '2026-12-02 00:00'],
  ['31 Dec 24:00', '2027-01-01 00:00'],
  ["New Year's Eve midnight", '2027-01-01 00:00'],
  ['midnight', '2026-11-25 00:00'],
  ['5 Dec 14:00:30', '2026-12-05 14:00:30'],
  ['2027-01-02', '2027-01-02 09:30'],
  ['24.12. 10:00', '2026-12-24 10:00'],
  ['Christmas Eve 18:00', '2026-12-24 18:00'],
  ['this Friday 10:00', '2026-11-27 10:00'],
  ['', '2026-11-25 09:30'],
])('"%s"', (text, expected) => {
  const read = orThrow(readMoment(text, today, 9.5 * 3_600_000));
  expect(`${formatDate(dateOfLocalTime(read))} ${formatLocalTime(read)}`).toBe(expected);
});

test.each([
  ['soon', '“soon” isn’t a time.'],
  ['25:10', '“25:10” isn’t a time.'],
  ['30 Feb 10:00', '30 Feb doesn’t exist.'],
  ['5 Dec 6 Dec', '“5 Dec 6 Dec” isn’t a time.'],
  ['06:10 07:10', '“06:10 07:10” isn’t a time.'],
])('"%s" says what to write', (text, error) => {
  expect(readMoment(text, today, 0)).toMatchObject({ ok: false, message: expect.stringContaining(error) as string });
});

test.each([
  ['in 2 hours', 120],
  ['+2h', 120],
  ['+ 1 h 30 min', 90],
  ['in half an hour', 30],
  ['30 min ago', -30],
  ['-2h', -120],
  ['an hour from now', 60],
  ['now', 0],
])('"%s" is %i minutes from now', (text, minutes) => expect(readShift(text)).toBe(minutes * 60_000));

test.each(['2 hours', '2h', 'in December', '10:00', 'in 2 days', ''])('"%s" is no time from now', (text) =>
  expect(readShift(text)).toBeNull(),
);
