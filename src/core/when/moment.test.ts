import { orThrow } from '../refusal';
import { formatDate, formatLocalTime, dateOfLocalTime, parseDate, readMoment, type LocalDate } from '.';

/** A Wednesday. */
const today = parseDate('2026-11-25') as LocalDate;

test.each([
  ['tomorrow 06:10', '2026-11-26 06:10'],
  ['06:10 tomorrow', '2026-11-26 06:10'],
  ['yesterday at 6pm', '2026-11-24 18:00'],
  ['noon', '2026-11-25 12:00'],
  ['Wed 6:10', '2026-11-25 06:10'],
  ['on Tuesday, midnight', '2026-12-01 00:00'],
  ['5 Dec 14:00:30', '2026-12-05 14:00:30'],
  ['2027-01-02', '2027-01-02 09:30'],
  ['', '2026-11-25 09:30'],
])('"%s"', (text, expected) => {
  const read = orThrow(readMoment(text, today, 9.5 * 3_600_000));
  expect(`${formatDate(dateOfLocalTime(read))} ${formatLocalTime(read)}`).toBe(expected);
});

test.each([
  ['soon', '"soon" is no time'],
  ['25:10', '"25:10" is no time'],
  ['30 Feb 10:00', 'There is no 30 Feb'],
  ['5 Dec 6 Dec', 'is no time'],
  ['06:10 07:10', 'is no time'],
])('"%s" says what to write', (text, error) => {
  expect(readMoment(text, today, 0)).toMatchObject({ ok: false, message: expect.stringContaining(error) as string });
});
