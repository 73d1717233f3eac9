import { completionsOf, parseDate, readWhen, readingsOf, type LocalDate, type PhraseContext } from '..';
import type { When } from '../../plan';

const context: PhraseContext = {
  today: parseDate('2026-11-25') as LocalDate,
  time: 12 * 3_600_000,
  calendars: [
    { id: 'storm-days', name: 'Storm timetable' },
    { id: 'fair', name: 'Fair' },
  ],
  zones: ['Europe/Oslo'],
};
const from = '2026-11-25';
const today = { from, to: from };

describe('what is said seldom, and what is nearly said', () => {
  test.each<[string, When]>([
    ['midday to 2 pm', { from, windows: [['12:00', '14:00']] }],
    ['noon to midnight', { from, windows: [['12:00', '24:00']] }],
    ['midnight to noon', { from, windows: [['00:00', '12:00']] }],
    ['10 a.m. to 2 p.m.', { from, windows: [['10:00', '14:00']] }],
    ['0630-0800', { from, windows: [['06:30', '08:00']] }],
    ['9 to 12', { from, windows: [['09:00', '12:00']] }],
    ['22 to 24', { from, windows: [['22:00', '24:00']] }],
    ['9:30 to 5', { from, windows: [['09:30', '17:00']] }],
    ['10:00–10:00', { from, windows: [['10:00', '10:00']] }],
    ['11:00–10:30', { from, windows: [['11:00', '10:30']] }],
    ['11:00 to 10:30', { from, windows: [['11:00', '22:30']] }],
    ['12:30 to 1:30', { from, windows: [['12:30', '13:30']] }],
    ['08:00 to 5', { from, windows: [['08:00', '05:00']] }],
    ['22 to 6', { from, windows: [['22:00', '06:00']] }],
    ['between 10 and 12', { from, windows: [['10:00', '12:00']] }],
    ['between 1 Dec and 3 Dec', { from: '2026-12-01', to: '2026-12-03' }],
    ['daily 10 to 12 until 1 Dec', { from, to: '2026-12-01', windows: [['10:00', '12:00']] }],
    ['every  day 10:00-12:00', { from, windows: [['10:00', '12:00']] }],
    ['each  day until 20:00', { from, windows: [['00:00', '20:00']] }],
    ['every  day until 20:00', { from, windows: [['00:00', '20:00']] }],
    ['before 20:00', { from, windows: [['00:00', '20:00']] }],
    ['starting at 20:00', { from, windows: [['20:00', '24:00']] }],
    ['now until 20:30', { ...today, windows: [['12:00', '20:30']] }],
    ['until 20:00', { ...today, windows: [['12:00', '20:00']] }],
    ['for 10 minutes', { ...today, windows: [['12:00', '12:10']] }],
    ['from 10:00 for 90 minutes', { from: '2026-11-26', to: '2026-11-26', windows: [['10:00', '11:30']] }],
    ['not on fair and storm-days', { from, not: ['fair', 'storm-days'] }],
    // Of every other one the next is the first: this week's Monday is over.
    ['every second week on Monday', { from: '2026-11-30', repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO' }],
    ['every other Friday', { from: '2026-11-27', repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=FR' }],
    ['every other Wednesday', { from, repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=WE' }],
    ['alternate Mondays and Tuesdays', { from: '2026-11-30', repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,TU' }],
    [
      'biweekly Tuesday 9-10',
      { from: '2026-12-01', repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU', windows: [['09:00', '10:00']] },
    ],
    ['fortnightly on Tuesday from 4 Dec', { from: '2026-12-04', repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU' }],
    [
      'every 2 weeks on Friday until 1 Feb',
      { from: '2026-11-27', to: '2027-02-01', repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=FR' },
    ],
    ['November to February 9-17', { from, repeat: 'FREQ=DAILY;BYMONTH=11,12,1,2', windows: [['09:00', '17:00']] }],
    ['weekdays in March to May', { from, repeat: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR;BYMONTH=3,4,5' }],
    ['in June to August except July', { from, repeat: 'FREQ=DAILY;BYMONTH=6,8' }],
    ['8 in the morning to 5 in the afternoon', { from, windows: [['08:00', '17:00']] }],
    ['8  in  the  morning until 11 at night', { from, windows: [['08:00', '23:00']] }],
    ['12am to 12pm', { from, windows: [['00:00', '12:00']] }],
    ['1am to 1pm', { from, windows: [['01:00', '13:00']] }],
    ['1 Dec 22:00 to 2 Dec 06:00', { from: '2026-12-01', to: '2026-12-01', windows: [['22:00', '06:00']] }],
    ['1 Dec 08:00 to 1 Dec 17:00', { from: '2026-12-01', to: '2026-12-01', windows: [['08:00', '17:00']] }],
    ['an hour after closing until 2am', { from, windows: [['closes+01:00', '02:00']] }],
    ['30 minutes before closing', { from, windows: [['closes-00:30', 'closes']] }],
    ['half an hour before opening until opening', { from, windows: [['opens-00:30', 'opens']] }],
    ['in November except July', { from, to: '2026-11-30', repeat: 'FREQ=DAILY;BYMONTH=1,2,3,4,5,6,8,9,10,11,12' }],
    ['Monday to Sunday', { from }],
    ['every second week on Monday to Sunday', { from, repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,TU,WE,TH,FR,SA,SU' }],
    ['every day except Monday', { from, repeat: 'FREQ=WEEKLY;BYDAY=TU,WE,TH,FR,SA,SU' }],
    ['on the 15th of each month', { from, repeat: 'FREQ=MONTHLY;BYMONTHDAY=15' }],
    ['monthly on the 1st and 15th', { from, repeat: 'FREQ=MONTHLY;BYMONTHDAY=1,15' }],
    ['every first Monday', { from, repeat: 'FREQ=MONTHLY;BYDAY=1MO' }],
    ['12/13/2026', { from: '2026-12-13', to: '2026-12-13' }],
    ['13/12/2026', { from: '2026-12-13', to: '2026-12-13' }],
    ['through December', { from, to: '2026-12-31' }],
    ['this week', { from, to: '2026-11-29' }],
  ])('%s', (text, when) => {
    const read = readWhen(text, context);
    expect(read).toEqual({ ok: true, value: when });
  });

  test.each([
    ['at 13pm', '“13pm” isn’t a time of day.'],
    ['0am to 5am', '“0am” isn’t a time of day.'],
    ['in July except July', 'No month is left. Remove one of the exceptions.'],
    ['in June to July except June and July', 'No month is left. Remove one of the exceptions.'],
    ['Mon-Fri except Mon-Fri', 'No weekday is left'],
    ['1 Dec 08:00 to 1 Dec 07:00', 'The end comes before the beginning'],
    ['1 Dec 08:00 to 1 Dec 08:00', 'The end comes before the beginning'],
    ['every 3rd day except Sundays', 'Here you can only leave out dates.'],
    ['every 0 days', '“every 0 days” isn’t understood.'],
    ['13.13.2026', '13.13.2026 doesn’t exist.'],
    ['0.5.2026', '0.5.2026 doesn’t exist.'],
    ['5.0.2026', '5.0.2026 doesn’t exist.'],
    ['31.11.2026', '31.11.2026 doesn’t exist.'],
    ['9 to 25', '“9 to 25” isn’t understood.'],
    ['also on storm-days', '"also" takes dates'],
    ['on the first', '“on the first” isn’t understood.'],
    ['1 Dec 24:00', '“24:00” isn’t a time of day.'],
    ['not on Saturn', '“Saturn” isn’t a day, a date or a calendar.'],
  ])('%s is told', (text, sentence) => {
    const read = readWhen(text, context);
    expect(read.ok ? '' : read.message).toContain(sentence);
  });
});

describe('readings', () => {
  test.each<[string, When[]]>([
    [
      '9 to 5',
      [
        { from, windows: [['09:00', '17:00']] },
        { from, windows: [['09:00', '05:00']] },
      ],
    ],
    [
      'until 20:00',
      [
        { ...today, windows: [['12:00', '20:00']] },
        { from, windows: [['00:00', '20:00']] },
      ],
    ],
    [
      '3/4/2026',
      [
        { from: '2026-04-03', to: '2026-04-03' },
        { from: '2026-03-04', to: '2026-03-04' },
      ],
    ],
    ['4/4/2026', [{ from: '2026-04-04', to: '2026-04-04' }]],
    ['9 to 17', [{ from, windows: [['09:00', '17:00']] }]],
    ['nothing of this', []],
  ])('of %s', (text, readings) => {
    expect(readingsOf(text, context)).toEqual(readings);
  });
  test('are each told once', () => {
    const found = readingsOf('3/4/2026 to 5/6/2026, 9 to 5 and 8 to 4', context);
    expect(found.length).toBe(3);
    expect(new Set(found.map((one) => JSON.stringify(one))).size).toBe(3);
  });
});

test('calendars are offered by their names', () => {
  expect(completionsOf('only', context)).toEqual(['only on Storm timetable', 'only on Fair']);
});
