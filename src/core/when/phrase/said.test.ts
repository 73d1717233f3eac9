import { orThrow } from '../../refusal';
import { describeWhen, parseDate, readWhen, readingsOf, type LocalDate, type PhraseContext, type When } from '..';

/** What operators write, and what they mean by it. A Thursday, ten to noon. */
const context: PhraseContext = {
  today: parseDate('2026-11-26') as LocalDate,
  time: (11 * 60 + 50) * 60_000,
  calendars: [
    { id: 'storm-days', name: 'Storm timetable' },
    { id: 'public-holidays-norway', name: 'Public holidays, Norway' },
  ],
  zones: ['Europe/Oslo', 'America/New_York'],
};
const today = { from: '2026-11-26' };
const hours = (...windows: [string, string][]) => ({ windows });
const once = (date: string, ...windows: [string, string][]) => ({
  from: date,
  to: date,
  ...(windows[0] ? { windows } : {}),
});
const weekly = (days: string, ...windows: [string, string][]) => ({
  ...today,
  repeat: `FREQ=WEEKLY;BYDAY=${days}`,
  ...(windows[0] ? { windows } : {}),
});
const WORKDAYS = 'MO,TU,WE,TH,FR';

test.each<[string, When]>([
  // Parts of the day and of the week.
  ['overnight 22:00 to 06:00', { ...today, ...hours(['22:00', '06:00']) }],
  ['Fridays from 18:00', weekly('FR', ['18:00', '24:00'])],
  ['after 22:00', { ...today, ...hours(['22:00', '24:00']) }],
  ['before noon', { ...today, ...hours(['00:00', '12:00']) }],
  ['noon to midnight', { ...today, ...hours(['12:00', '24:00']) }],
  ['weekends', weekly('SA,SU')],
  ['Tue and Thu mornings', weekly('TU,TH', ['06:00', '12:00'])],
  ['Mon/Wed/Fri 8-9', weekly('MO,WE,FR', ['08:00', '09:00'])],
  ['Mo-Fr 8-17', weekly(WORKDAYS, ['08:00', '17:00'])],
  ['from Monday to Friday', weekly(WORKDAYS)],
  ['each weekday from 07:30 to 09:15', weekly(WORKDAYS, ['07:30', '09:15'])],
  ['daily 9 to 5', { ...today, ...hours(['09:00', '17:00']) }],
  ['every day', today],
  // Negations.
  ['daily except Monday', weekly('TU,WE,TH,FR,SA,SU')],
  ['not on Sundays', weekly('MO,TU,WE,TH,FR,SA')],
  ['every day but Sunday', weekly('MO,TU,WE,TH,FR,SA')],
  ['weekdays except Friday', weekly('MO,TU,WE,TH')],
  ['never on weekends', weekly(WORKDAYS)],
  ['daily except on 24 Dec and 31 Dec', { ...today, except: ['2026-12-24', '2026-12-31'] }],
  ['except 24 to 26 Dec', { ...today, except: ['2026-12-24', '2026-12-25', '2026-12-26'] }],
  ['except in July', { ...today, repeat: 'FREQ=DAILY;BYMONTH=1,2,3,4,5,6,8,9,10,11,12' }],
  // Spans.
  ['next week', { from: '2026-11-30', to: '2026-12-06' }],
  ['this week', { from: '2026-11-26', to: '2026-11-29' }],
  ['this weekend', { from: '2026-11-28', to: '2026-11-29' }],
  ['next month', { from: '2026-12-01', to: '2026-12-31' }],
  ['rest of the week', { from: '2026-11-26', to: '2026-11-29' }],
  ['this Friday', once('2026-11-27')],
  ['tomorrow 10-12', once('2026-11-27', ['10:00', '12:00'])],
  ['tomorrow morning', once('2026-11-27', ['06:00', '12:00'])],
  ['tonight', once('2026-11-26', ['18:00', '24:00'])],
  ['tonight 20-22', once('2026-11-26', ['20:00', '22:00'])],
  ['for 10 minutes', once('2026-11-26', ['11:50', '12:00'])],
  ['for an hour', once('2026-11-26', ['11:50', '12:50'])],
  ['now until 20:30', once('2026-11-26', ['11:50', '20:30'])],
  ['tomorrow at 14:00 for 2 hours', once('2026-11-27', ['14:00', '16:00'])],
  ['every Monday at 9am for 30 minutes', weekly('MO', ['09:00', '09:30'])],
  ['for two weeks from 1 Dec', { from: '2026-12-01', to: '2026-12-14' }],
  ['from 5 Dec for 10 days', { from: '2026-12-05', to: '2026-12-14' }],
  ['the next 3 days', { from: '2026-11-26', to: '2026-11-28' }],
  ['until Christmas Day', { from: '2026-11-26', to: '2026-12-25' }],
  ['until Friday', { from: '2026-11-26', to: '2026-11-27' }],
  ['from Monday', { from: '2026-11-30' }],
  ['until the end of the month', { from: '2026-11-26', to: '2026-11-30' }],
  ['all of December', { from: '2026-12-01', to: '2026-12-31' }],
  // Easter Sunday 2027 is 28 March (from memory of the tables of the Gregorian Easter).
  ['Good Friday to Easter Monday', { from: '2027-03-26', to: '2027-03-29' }],
  ['Dec 1 to 24', { from: '2026-12-01', to: '2026-12-24' }],
  ['daily 9-17 until 24 Dec', { from: '2026-11-26', to: '2026-12-24', ...hours(['09:00', '17:00']) }],
  // Rules.
  ['every third day from 1 Dec', { from: '2026-12-01', repeat: 'FREQ=DAILY;INTERVAL=3' }],
  ['second and fourth Thursday', { ...today, repeat: 'FREQ=MONTHLY;BYDAY=2TH,4TH' }],
  ['last working day of the month', { ...today, repeat: `FREQ=MONTHLY;BYDAY=${WORKDAYS};BYSETPOS=-1` }],
  ['every year on 17 May', { ...today, repeat: 'FREQ=YEARLY;BYMONTH=5;BYMONTHDAY=17' }],
  ['every 17 May', { ...today, repeat: 'FREQ=YEARLY;BYMONTH=5;BYMONTHDAY=17' }],
  ['yearly on Christmas Day', { ...today, repeat: 'FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=25' }],
  ['fortnightly on Mondays', { ...today, repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO' }],
  ['every month on the 15th', { ...today, repeat: 'FREQ=MONTHLY;BYMONTHDAY=15' }],
  ['the first Monday in December', once('2026-12-07')],
  // Numbers.
  ['1.12.2026 - 24.12.2026', { from: '2026-12-01', to: '2026-12-24' }],
  ['1.-24.12.', { from: '2026-12-01', to: '2026-12-24' }],
  ['24.12. 10:00-12:00', once('2026-12-24', ['10:00', '12:00'])],
  ['2026-12-01', once('2026-12-01')],
  ['12/24/2026', once('2026-12-24')],
  ['0630-0800', { ...today, ...hours(['06:30', '08:00']) }],
  ['7.30–9', { ...today, ...hours(['07:30', '09:00']) }],
  ['9am to 5pm', { ...today, ...hours(['09:00', '17:00']) }],
  ['18h-20h30', { ...today, ...hours(['18:00', '20:30']) }],
  ['0630 to 8 a.m.', { ...today, ...hours(['06:30', '08:00']) }],
  ['2026-12-01T10:00/2026-12-01T12:00', once('2026-12-01', ['10:00', '12:00'])],
  ['2026-12-01/2026-12-24', { from: '2026-12-01', to: '2026-12-24' }],
  ['week 50', { from: '2026-12-07', to: '2026-12-13' }],
  ['weeks 52 to 1', { from: '2026-12-21', to: '2027-01-10' }],
  ['week 1', { from: '2027-01-04', to: '2027-01-10' }],
  ['Q1 2027', { from: '2027-01-01', to: '2027-03-31' }],
  ['in 2027', { from: '2027-01-01', to: '2027-12-31' }],
  // Before and after, and from one moment to another.
  ['before 5 Dec', { ...today, to: '2026-12-04' }],
  ['after 5 Dec', { from: '2026-12-06' }],
  ['not before 5 Dec', { from: '2026-12-05' }],
  ['no later than 24 Dec', { ...today, to: '2026-12-24' }],
  ['in three days', once('2026-11-29')],
  ['until two weeks before Christmas', { ...today, to: '2026-12-11' }],
  ['the week before Christmas', { from: '2026-12-18', to: '2026-12-24' }],
  ['w/c 7 December', { from: '2026-12-07', to: '2026-12-13' }],
  ['the week of 9 Dec', { from: '2026-12-07', to: '2026-12-13' }],
  ['next 2 weeks', { ...today, to: '2026-12-09' }],
  ['all weekend', { from: '2026-11-28', to: '2026-11-29' }],
  ['over Easter', { from: '2027-03-26', to: '2027-03-29' }],
  ['over Christmas', { from: '2026-12-24', to: '2026-12-26' }],
  ['over the weekend', { from: '2026-11-28', to: '2026-11-29' }],
  ['from the 3rd to the 10th', { from: '2026-12-03', to: '2026-12-10' }],
  ['Thursday the 3rd', once('2026-12-03')],
  ['24 and 25 December 10-12', { ...once('2026-12-24', ['10:00', '12:00']), also: ['2026-12-25'] }],
  ['daily except 24 and 25 December', { ...today, except: ['2026-12-24', '2026-12-25'] }],
  ['24 Dec 16:00 to 25 Dec 02:00', once('2026-12-24', ['16:00', '02:00'])],
  ['now until Friday 09:00', once('2026-11-26', ['11:50', '09:00'])],
  ['June 2027 to August 2027', { from: '2027-06-01', to: '2027-08-31' }],
  ['this winter', { from: '2026-12-01', to: '2027-02-28' }],
  ['weekdays in summer', { ...weekly(WORKDAYS), repeat: `FREQ=WEEKLY;BYDAY=${WORKDAYS};BYMONTH=6,7,8` }],
  ['until further notice', today],
  // How long, and at what time.
  ['Mondays at 9:00 for half an hour', weekly('MO', ['09:00', '09:30'])],
  ['weekdays at noon for ten seconds', weekly(WORKDAYS, ['12:00', '12:00:10'])],
  ['5 Dec, 10am, 90 minutes', once('2026-12-05', ['10:00', '11:30'])],
  ['5 Dec 10:00 (1.5 hours)', once('2026-12-05', ['10:00', '11:30'])],
  ['in half an hour for 10 minutes', once('2026-11-26', ['12:20', '12:30'])],
  ['the next hour', once('2026-11-26', ['11:50', '12:50'])],
  ['rest of today', once('2026-11-26', ['11:50', '24:00'])],
  ['tonight from 8', once('2026-11-26', ['20:00', '24:00'])],
  ['from 8 tonight', once('2026-11-26', ['20:00', '24:00'])],
  ['8 tonight for an hour', once('2026-11-26', ['20:00', '21:00'])],
  ['10 to 2 tonight', once('2026-11-26', ['22:00', '02:00'])],
  ['tomorrow evening 6 to 8', once('2026-11-27', ['18:00', '20:00'])],
  ['evenings 8 to 12', { ...today, ...hours(['20:00', '24:00']) }],
  ['6 to 8 in the evening', { ...today, ...hours(['18:00', '20:00']) }],
  ['at 8 tomorrow morning for 2 hours', once('2026-11-27', ['08:00', '10:00'])],
  ['every night at 10 for an hour', { ...today, ...hours(['22:00', '23:00']) }],
  ['lunchtime on weekdays', weekly(WORKDAYS, ['12:00', '14:00'])],
  ['half past seven to quarter to nine', { ...today, ...hours(['07:30', '08:45']) }],
  // Rules.
  ['M-F 9-17', weekly(WORKDAYS, ['09:00', '17:00'])],
  ['on the 1st and 15th', { ...today, repeat: 'FREQ=MONTHLY;BYMONTHDAY=1,15' }],
  ['first of the month', { ...today, repeat: 'FREQ=MONTHLY;BYMONTHDAY=1' }],
  ['every May', { ...today, repeat: 'FREQ=DAILY;BYMONTH=5' }],
  ['every year from 1 to 3 December', { ...today, repeat: 'FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=1,2,3' }],
  ['every 4th Thursday in November', { ...today, repeat: 'FREQ=YEARLY;BYMONTH=11;BYDAY=4TH' }],
  ['17 May each year', { ...today, repeat: 'FREQ=YEARLY;BYMONTH=5;BYMONTHDAY=17' }],
  ['every Tuesday, 5 times', { ...today, repeat: 'FREQ=WEEKLY;BYDAY=TU;COUNT=5' }],
  ['for 5 Mondays from 7 Dec', { from: '2026-12-07', repeat: 'FREQ=WEEKLY;BYDAY=MO;COUNT=5' }],
  ['alternate Tuesdays', { ...today, repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU' }],
  ['Mondays every other week', { ...today, repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO' }],
  [
    'Mondays in odd weeks',
    { ...today, repeat: `FREQ=YEARLY;BYWEEKNO=${Array.from({ length: 27 }, (_, i) => 2 * i + 1).join()};BYDAY=MO` },
  ],
  // Opening.
  ['an hour before opening', { ...today, ...hours(['opens-01:00', 'opens']) }],
  ['15 minutes after opening for an hour', { ...today, ...hours(['opens+00:15', 'opens+01:15']) }],
  ['the last two hours', { ...today, ...hours(['closes-02:00', 'closes']) }],
  ['working hours', { ...today, ...hours(['opens', 'closes']) }],
  ['opening hours', { ...today, ...hours(['opens', 'closes']) }],
  ['outside opening hours', { ...today, ...hours(['00:00', 'opens'], ['closes', '24:00']) }],
  ['an hour before closing until closing', { ...today, ...hours(['closes-01:00', 'closes']) }],
  ['from opening until noon', { ...today, ...hours(['opens', '12:00']) }],
  ['half an hour before opening to closing', { ...today, ...hours(['opens-00:30', 'closes']) }],
  // Calendars by name.
  ['on public holidays', { ...today, only: ['public-holidays-norway'] }],
  ['weekdays outside storm days', { ...weekly(WORKDAYS), not: ['storm-days'] }],
  ['on storm days only, 6-22', { ...today, only: ['storm-days'], ...hours(['06:00', '22:00']) }],
  ['not on bank holidays', { ...today, not: ['public-holidays-norway'] }],
  ['weekdays, not on storm days', { ...weekly(WORKDAYS), not: ['storm-days'] }],
  ['during the Storm timetable', { ...today, only: ['storm-days'] }],
])('%s', (text, when) => {
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
  ['weekdays 9–17', ['weekdays 09:00–17:00, from 26 Nov 2026']],
])('"%s" can be meant as %j', (text, readings) => {
  expect(readingsOf(text, context).map((when) => describeWhen(when))).toEqual(readings);
});

test.each<[string, string]>([
  ['wekdays 9-17', '"wekdays" is not understood: did you mean "weekdays"?'],
  ['daily exept Monday', '"exept" is not understood: did you mean "except"?'],
  ['9am', '09:00 begins something: say until when, as "09:00 to 10:00", or for how long, as "09:00 for 20 minutes".'],
  ['Saturdays 8-12, Sundays 10-12', 'Other hours on other days are a booking of their own: say one of them here.'],
  ['1 Dec 9-12 and 2 Dec 14-16', 'Other hours on other days are a booking of their own: say one of them here.'],
  ['Fri 3 Dec', '2026-12-03 is a Thursday: write the weekday or the date that is meant.'],
  ['every Easter Monday', 'It is on another date each year: say the date, or name a calendar that has it.'],
  ['week 54', '2026 has weeks 1 to 53: write one of them.'],
  [
    'every year from 20 Nov to 6 Jan',
    'Each year, dates lie in one month, or are whole months: book the parts apart, or say the year.',
  ],
  ...['Friday 18:00 to Sunday 20:00', 'until Saturday 17:00', 'from 9am on 1 Dec until 5pm on 3 Dec'].map(
    (text): [string, string] => [
      text,
      'A booking has the same hours on each of its days, and less than a day of them: write "1 to 5 Dec 10:00–18:00" for hours of each day, or book the first day, those between and the last one apart.',
    ],
  ),
  ['every hour', 'A booking is on air in one piece: what comes again every few minutes is an item of a playlist.'],
  ['weekdays except weekdays', 'No weekday is left: take one of the exceptions out.'],
  ['for 0 days', 'Write for how many days or weeks: at least 1.'],
  [
    'weekdays 9-17, blue moon',
    '"blue moon" is not understood: write it as "weekdays 05:30–10:00, 1 Dec to 28 Feb, not on storm-days".',
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
  expect(readWhen('on bank holidays', of(0, 1))).toMatchObject({ value: { only: ['norway'] } });
  expect(readWhen('on bank holidays', of(0))).toMatchObject({
    message: 'No calendar of holidays is known: add one to the calendars, or name one of them.',
  });
  expect(readWhen('on bank holidays', of(1, 2))).toMatchObject({
    message: 'There are several calendars of holidays: name one of Public holidays, Norway; Public holidays, Finland.',
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
