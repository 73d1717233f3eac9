import { orThrow } from '../../refusal';
import { SAID, SAID_CONTEXT as context } from '../../tests/said-phrases';
import { describeWhen, readWhen, readingsOf } from '..';

test.each(SAID)('%s', (text, when) => {
  expect(orThrow(readWhen(text, context))).toEqual(when);
});

test.each<[string, string[]]>([
  ['until 20:00', ['11:50–20:00, 26 Nov 2026', 'daily 00:00–20:00, from 26 Nov 2026']],
  ['daily until 20:00', ['daily 00:00–20:00, from 26 Nov 2026']],
  ['next Friday', ['4 Dec 2026', '27 Nov 2026']],
  ['in December', ['1 Dec 2026 to 31 Dec 2026', 'daily in Dec, from 26 Nov 2026']],
  ['daily in December', ['daily in Dec, from 26 Nov 2026']],
  ['every second Thursday', ['every 2 weeks Thu, from 26 Nov 2026', 'the second Thu of the month, from 26 Nov 2026']],
  ['5/6/2027', ['5 Jun 2027', '6 May 2027']],
  ['9 to 5', ['daily 09:00–17:00, from 26 Nov 2026', 'daily 09:00–05:00, from 26 Nov 2026']],
  ['14:00 for 20 minutes', ['14:00–14:20, 26 Nov 2026', 'daily 14:00–14:20, from 26 Nov 2026']],
  ['08:00 for 20 minutes', ['08:00–08:20, 27 Nov 2026', 'daily 08:00–08:20, from 26 Nov 2026']],
  [
    'every other week',
    ['every 2 weeks Thu, from 26 Nov 2026', 'every 2 weeks Mon Tue Wed Thu Fri Sat Sun, from 26 Nov 2026'],
  ],
  ['from June to August', ['1 Jun 2027 to 31 Aug 2027', 'daily in Jun, Jul, Aug, from 26 Nov 2026']],
  ['on the 15th', ['15 Dec 2026', 'the 15th of the month, from 26 Nov 2026']],
  ['for 90 minutes from 10:00', ['10:00–11:30, 27 Nov 2026', 'daily 10:00–11:30, from 26 Nov 2026']],
  ['weekdays from 9', ['weekdays 09:00–24:00, from 26 Nov 2026', 'weekdays 21:00–24:00, from 26 Nov 2026']],
  ['Friday 22:00 to Saturday 02:00', ['Fri 22:00–02:00, from 26 Nov 2026', '22:00–02:00, 27 Nov 2026']],
  ['until 5', ['11:50–17:00, 26 Nov 2026', '11:50–05:00, 26 Nov 2026', 'daily 00:00–17:00, from 26 Nov 2026']],
  ['half eight to ten', ['daily 08:30–10:00, from 26 Nov 2026', 'daily 07:30–10:00, from 26 Nov 2026']],
  ['half past eight to ten', ['daily 08:30–10:00, from 26 Nov 2026']],
  ['half 1 to 3', ['daily 01:30–03:00, from 26 Nov 2026', 'daily 12:30–15:00, from 26 Nov 2026']],
  ['9:30 to 5', ['daily 09:30–17:00, from 26 Nov 2026', 'daily 09:30–05:00, from 26 Nov 2026']],
  ['a week from today', ['3 Dec 2026', '26 Nov 2026 to 2 Dec 2026']],
  ['until December', ['26 Nov 2026 to 30 Nov 2026', '26 Nov 2026 to 31 Dec 2026']],
  ['next December', ['1 Dec 2026 to 31 Dec 2026', '1 Dec 2027 to 31 Dec 2027']],
  ['next January', ['1 Jan 2027 to 31 Jan 2027']],
  ['first week of December', ['1 Dec 2026 to 7 Dec 2026', '7 Dec 2026 to 13 Dec 2026']],
  ['last week of December', ['25 Dec 2026 to 31 Dec 2026', '21 Dec 2026 to 27 Dec 2026']],
  [
    'quarterly',
    [
      'the 1st of the month in Jan, Apr, Jul, Oct, from 26 Nov 2026',
      'the 26th of the month in Feb, May, Aug, Nov, from 26 Nov 2026',
    ],
  ],
  ['weekdays 9–17', ['weekdays 09:00–17:00, from 26 Nov 2026']],
  // Days of a month are no hours, whatever stands before them.
  ['weekends 10–16 from 1 to 20 December', ['weekends 10:00–16:00, 1 Dec 2026 to 20 Dec 2026']],
  ['from 1 to 20 December', ['1 Dec 2026 to 20 Dec 2026']],
  ['daily 8–20 from 5 until 12 December', ['daily 08:00–20:00, 5 Dec 2026 to 12 Dec 2026']],
  ['between 1 and 20 December 10-12', ['daily 10:00–12:00, 1 Dec 2026 to 20 Dec 2026']],
  [
    'from 9 to 5 in December',
    [
      'daily 09:00–17:00, 1 Dec 2026 to 31 Dec 2026',
      'daily 09:00–05:00, 1 Dec 2026 to 31 Dec 2026',
      'daily in Dec 09:00–17:00, from 26 Nov 2026',
    ],
  ],
  // The end of a day is that day, as a whole.
  ['until 31 Dec 24:00', ['26 Nov 2026 to 31 Dec 2026']],
  ["until New Year's Eve midnight", ['26 Nov 2026 to 31 Dec 2026']],
  ['from 1 to 31 Dec 24:00', ['1 Dec 2026 to 31 Dec 2026']],
  ['daily 10-12 until 31 Dec midnight', ['daily 10:00–12:00, 26 Nov 2026 to 31 Dec 2026']],
  ['1 Dec to 5 Dec midnight to 6:00', ['daily 00:00–06:00, 1 Dec 2026 to 5 Dec 2026']],
  ['20 Dec 2026 to 1 Dec 2027', ['20 Dec 2026 to 1 Dec 2027']],
  ['1 Sep to 30 Jun', ['1 Sep 2027 to 30 Jun 2028']],
])('"%s" can be meant as %j', (text, readings) => {
  expect(readingsOf(text, context).map((when) => describeWhen(when))).toEqual(readings);
});

test.each<[string, string]>([
  ['wekdays 9-17', '“wekdays” isn’t understood. Did you mean “weekdays”?'],
  ['daily exept Monday', '“exept” isn’t understood. Did you mean “except”?'],
  ['20 Dec to 1 Dec', '20 Dec to 1 Dec is nearly a year. Write both years if you mean that, or swap the two dates.'],
  ['9am', 'Add an end time, e.g. “09:00 to 10:00”, or a duration, e.g. “09:00 for 20 minutes”.'],
  ['Fri 3 Dec', '2026-12-03 is a Thursday. Write only the weekday or only the date.'],
  ['every Easter Monday', 'Its date changes each year. Write the date, or use a calendar that has it.'],
  ['week 54', '2026 has weeks 1 to 53. Write one of them.'],
  ['closing', 'Add an end time, e.g. “closing to 24:00”, or a duration, e.g. “closing for 20 minutes”.'],
  ['at opening', 'Add an end time, e.g. “opening to closing”, or a duration, e.g. “opening for 20 minutes”.'],
  ['daily at 8 and 12', '08:00 and 12:00 need an end. Add a duration, e.g. “for 20 minutes”.'],
  ['odd Mondays', 'Which of them? Write "Monday in odd weeks", or "first and third Monday of the month".'],
  ['even Fri 9-10', 'Which of them? Write "Fri in even weeks", or "second and fourth Fri of the month".'],
  [
    'first weekend of the month',
    'Whose weekend is it where a month begins or ends within one? Write "first Saturday and Sunday of the month".',
  ],
  [
    'last weekend of every month',
    'Whose weekend is it where a month begins or ends within one? Write "last Saturday and Sunday of the month".',
  ],
  ...['except the first Monday of the month', 'daily, not every other Friday'].map((text): [string, string] => [
    text,
    'A repeating day can’t be left out in words. Write its dates, or put them into a calendar and write “not on” with its name.',
  ]),
  ['Mon 1 Dec to 24 Dec', '2026-12-01 is a Tuesday. Write only the weekday or only the date.'],
  ['1 Dec to Sunday 7 Dec', '2026-12-07 is a Monday. Write only the weekday or only the date.'],
  ['5 Dec in January', 'Write one range of dates here. Make another booking for the others.'],
  ...['last Monday', 'Christmas holidays'].map((text): [string, string] => [
    text,
    `“${text}” isn’t understood. Write it like “weekdays 05:30–10:00, 1 Dec to 28 Feb, not on storm-days”.`,
  ]),
  ['first 0 days of the month', 'Write 1 to 28 days, or one to four weeks.'],
  ['first 5 weeks of January', 'Write 1 to 28 days, or one to four weeks.'],
  [
    'every year on 24 Dec and 6 Jan',
    'Dates of each year must be in one month. Make another booking for the others, or write the year.',
  ],
  [
    '1 to 5 and 10 to 15 December',
    '“1 to 5 and 10 to 15 December” isn’t understood. Write it like “weekdays 05:30–10:00, 1 Dec to 28 Feb, not on storm-days”.',
  ],
  ['every hour', 'A booking can’t repeat every few minutes. Give it a share of the loop, or add it to a playlist.'],
  ['weekdays except weekdays', 'No weekday is left. Remove one of the exceptions.'],
  ['for 0 days', 'Write at least 1 day or week.'],
  [
    'weekdays 9-17, blue moon',
    '“blue moon” isn’t understood. Write it like “weekdays 05:30–10:00, 1 Dec to 28 Feb, not on storm-days”.',
  ],
])('"%s" is refused: %s', (text, message) => {
  expect(readWhen(text, context)).toMatchObject({ ok: false, message });
  expect(readingsOf(text, context)).toEqual([]);
});

test('holidays are those of the only calendar that is called so', () => {
  const calendars = [
    { id: 'school', name: 'School holidays' },
    { id: 'norway', name: 'Public holidays, Norway' },
    { id: 'finland', name: 'Public holidays, Finland' },
  ];
  const of = (...known: number[]) => ({
    ...context,
    calendars: known.map((i) => calendars[i] ?? { id: '', name: '' }),
  });
  expect(readWhen('on holidays', of(0))).toMatchObject({ value: { only: ['school'] } });
  expect(readWhen('school holidays', of(0, 1))).toMatchObject({ value: { only: ['school'] } });
  expect(readWhen('term time', of(0, 1))).toMatchObject({ value: { not: ['school'] } });
  expect(readWhen('term time', of(1))).toMatchObject({
    message: expect.stringContaining('There isn’t a calendar of school holidays or of terms yet.'),
  });
  expect(readWhen('on bank holidays', of(0, 1))).toMatchObject({ value: { only: ['norway'] } });
  expect(readWhen('on bank holidays', of(0))).toMatchObject({
    message: expect.stringContaining('There isn’t a calendar of bank holidays yet.'),
  });
  expect(readWhen('on bank holidays', of(1, 2))).toMatchObject({
    message: 'Which calendar is meant? Name one of Public holidays, Norway; Public holidays, Finland.',
  });
});

test('no code stands in what is said of hours and rules', () => {
  for (const text of [
    'an hour before closing until 30 min after closing',
    'last working day of the month',
    'every 17 May',
    'every 4th Thursday in November',
    'Tuesdays in December',
    'every year from 1 to 24 December',
    'every Tuesday, 5 times',
    'Mondays in even weeks',
  ]) {
    const said = describeWhen(orThrow(readWhen(text, context)));
    expect(said).not.toMatch(/closes|opens|FREQ/);
    expect(orThrow(readWhen(said, context))).toEqual(orThrow(readWhen(text, context)));
  }
});
