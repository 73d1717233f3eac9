import { formatDate, formatLocalTime, dateOfLocalTime } from '../../when';
import { firstTimes, readCalendar, whenOf } from '.';

const only = (...lines: string[]) => {
  const file = ['BEGIN:VCALENDAR', 'BEGIN:VEVENT', 'UID:1', 'SUMMARY:Drill', ...lines, 'END:VEVENT', 'END:VCALENDAR'];
  const [event] = readCalendar(file.join('\r\n')).events;
  if (!event) throw new Error('no event');
  return event.when;
};
const told = (when: ReturnType<typeof only>, siteClock: boolean) =>
  firstTimes(whenOf(when, siteClock), ['Europe/Oslo', 'America/New_York']).map(
    ({ zone, start, end }) =>
      `${zone} ${formatDate(dateOfLocalTime(start))} ${formatLocalTime(start)} to ${formatLocalTime(end)}`,
  );

// By RFC 5545 section 3.3.5, form 2: a time with a Z is that instant, wherever one is.
test('an event in UTC stays at its instant, unless each site’s own clock is chosen', () => {
  const when = only('DTSTART:20261205T230000Z', 'DTEND:20261206T003000Z');
  expect(told(when, false)).toEqual([
    'Europe/Oslo 2026-12-06 00:00 to 01:30',
    'America/New_York 2026-12-05 18:00 to 19:30',
  ]);
  expect(told(when, true)).toEqual([
    'Europe/Oslo 2026-12-05 23:00 to 00:30',
    'America/New_York 2026-12-05 23:00 to 00:30',
  ]);
});

// Form 1: a time without a zone is read on the clock of whoever looks.
test('a floating event is on each clock either way', () => {
  const when = only('DTSTART:20261205T080000', 'DURATION:PT1H');
  for (const siteClock of [true, false])
    expect(told(when, siteClock)).toEqual([
      'Europe/Oslo 2026-12-05 08:00 to 09:00',
      'America/New_York 2026-12-05 08:00 to 09:00',
    ]);
});

test('the first time is found where the first dates are left out, and of a rule that is rare', () => {
  const yearly = only('DTSTART:20260517T080000', 'DURATION:PT1H', 'RRULE:FREQ=YEARLY', 'EXDATE:20260517T080000');
  expect(told(yearly, true)[0]).toBe('Europe/Oslo 2027-05-17 08:00 to 09:00');
});
