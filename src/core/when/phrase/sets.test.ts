import type { When } from '../../plan';
import { describeWhen, parseDate, readWhen, readingsOf, type LocalDate, type PhraseContext } from '..';

/** Several sets of hours, windows over days, and what comes each year: as people write it. */
const context: PhraseContext = {
  // A Monday.
  today: parseDate('2026-11-30') as LocalDate,
  time: 10 * 3_600_000,
  calendars: [
    { id: 'storm-days', name: 'Storm timetable' },
    { id: 'norway', name: 'Public holidays, Norway' },
    { id: 'school', name: 'School holidays' },
  ],
};
const from = '2026-11-30';
const week = (days: string, ...windows: [string, string, number?][]) => ({
  from,
  repeat: `FREQ=WEEKLY;BYDAY=${days}`,
  windows,
});
const on = (date: string, ...windows: [string, string, number?][]) => ({ from: date, to: date, windows });
const WEEKDAYS = 'MO,TU,WE,TH,FR';
const both = [week(WEEKDAYS, ['07:00', '10:00']), week('SA,SU', ['10:00', '16:00'])];
const yearly = (days: string, more = '') => `FREQ=YEARLY;BYYEARDAY=${days}${more}`;

const CASES: [string, When][] = [
  ...[
    'weekdays 7-10 and weekends 10-16',
    'weekdays 7-10, weekends 10-16',
    'weekdays 7-10; weekends 10-16',
    '7-10 weekdays and 10-16 weekends',
  ].map((text): [string, When] => [text, { any: both }]),
  [
    'weekdays 7-10 and weekends 10-16 from 1 to 20 December',
    { any: both.map((set) => ({ ...set, from: '2026-12-01', to: '2026-12-20' })) },
  ],
  [
    'from 1 to 20 December weekdays 7-10, weekends 10-16, not on storm-days',
    { any: both.map((set) => ({ ...set, from: '2026-12-01', to: '2026-12-20', not: ['storm-days'] })) },
  ],
  [
    'weekdays 7-10 until 20 Dec and weekends 10-16 from 24 Dec',
    {
      any: [
        { ...week(WEEKDAYS, ['07:00', '10:00']), to: '2026-12-20' },
        { ...week('SA,SU', ['10:00', '16:00']), from: '2026-12-24' },
      ],
    },
  ],
  [
    'Mon to Thu 8-18, Fri 8-20, Sat and Sun 10-12, 14-16',
    {
      any: [
        week('MO,TU,WE,TH', ['08:00', '18:00']),
        week('FR', ['08:00', '20:00']),
        week('SA,SU', ['10:00', '12:00'], ['14:00', '16:00']),
      ],
    },
  ],
  [
    'Mon-Fri 9-17, Sat 10-14, closed Sundays',
    { any: [week(WEEKDAYS, ['09:00', '17:00']), week('SA', ['10:00', '14:00'])] },
  ],
  [
    '24 Dec 10-14 and 31 Dec 10-12',
    { any: [on('2026-12-24', ['10:00', '14:00']), on('2026-12-31', ['10:00', '12:00'])] },
  ],
  [
    'Sundays and public holidays',
    {
      any: [
        { from, repeat: 'FREQ=WEEKLY;BYDAY=SU' },
        { from, only: ['norway'] },
      ],
    },
  ],
  [
    'Sundays and public holidays 10-16',
    { any: [week('SU', ['10:00', '16:00']), { from, only: ['norway'], windows: [['10:00', '16:00']] }] },
  ],
  // Other hours on some of the days are meant in place of the first.
  [
    'every day 6-22, Sundays 8-20',
    { any: [week('MO,TU,WE,TH,FR,SA', ['06:00', '22:00']), week('SU', ['08:00', '20:00'])] },
  ],
  [
    'weekdays 7-19, 24 Dec 7-14',
    { any: [{ ...week(WEEKDAYS, ['07:00', '19:00']), except: ['2026-12-24'] }, on('2026-12-24', ['07:00', '14:00'])] },
  ],
  [
    'weekends 10-16 and public holidays 12-18',
    {
      any: [
        { ...week('SA,SU', ['10:00', '16:00']), not: ['norway'] },
        { from, only: ['norway'], windows: [['12:00', '18:00']] },
      ],
    },
  ],
  ['daily 8-10 and Fridays 18-20', { any: [{ from, windows: [['08:00', '10:00']] }, week('FR', ['18:00', '20:00'])] }],
  [
    'daily 6am-10pm except Sundays 8am-8pm',
    { any: [week('MO,TU,WE,TH,FR,SA', ['06:00', '22:00']), week('SU', ['08:00', '20:00'])] },
  ],
  [
    'daily 6-22 but Sundays 8-20',
    { any: [week('MO,TU,WE,TH,FR,SA', ['06:00', '22:00']), week('SU', ['08:00', '20:00'])] },
  ],
  [
    'weekdays 8-17 except on public holidays, public holidays 10-14',
    {
      any: [
        { ...week(WEEKDAYS, ['08:00', '17:00']), not: ['norway'] },
        { from, only: ['norway'], windows: [['10:00', '14:00']] },
      ],
    },
  ],
  ['Sat 10-14, Sun closed', week('SA', ['10:00', '14:00'])],
  [
    'mornings on weekdays and evenings at weekends',
    { any: [week(WEEKDAYS, ['06:00', '12:00']), week('SA,SU', ['18:00', '22:00'])] },
  ],
  [
    'Sat 9-13, Sun 10-12 in December',
    {
      any: [
        { ...week('SA', ['09:00', '13:00']), repeat: 'FREQ=WEEKLY;BYDAY=SA;BYMONTH=12' },
        { ...week('SU', ['10:00', '12:00']), repeat: 'FREQ=WEEKLY;BYDAY=SU;BYMONTH=12' },
      ],
    },
  ],
  // Only as long as the second is said, which the first outlasts.
  [
    'daily 6-22 until 31 Jan and Sundays 8-20 until 20 Dec',
    {
      any: [
        { from, to: '2027-01-31', windows: [['06:00', '22:00']] },
        { ...week('SU', ['08:00', '20:00']), to: '2026-12-20' },
      ],
    },
  ],
  // A window over several days.
  ...['from Friday 6pm to Monday 6am', 'Fri 18:00 - Mon 06:00 every week', 'every weekend from Fri 6pm to Mon 6am'].map(
    (text): [string, When] => [text, week('FR', ['18:00', '06:00', 3])],
  ),
  ['Friday 18:00 to Friday 06:00', week('FR', ['18:00', '06:00', 7])],
  ['from 5 Dec 18:00 until 7 Dec 06:00', on('2026-12-05', ['18:00', '06:00', 2])],
  ['until 4 Dec 12:00', on('2026-11-30', ['10:00', '12:00', 4])],
  ['Tue Thu 18:00–20:00 the next day', week('TU,TH', ['18:00', '20:00', 1])],
  ['daily 22:00–04:00 2 days later', { from, windows: [['22:00', '04:00', 2]] }],
  [
    'from 1 Dec 18:00 until 20 Dec 12:00',
    {
      any: [
        on('2026-12-01', ['18:00', '24:00']),
        { from: '2026-12-02', to: '2026-12-19' },
        on('2026-12-20', ['00:00', '12:00']),
      ],
    },
  ],
  // What comes each year.
  ['25 Dec to 2 Jan every year', { from, repeat: yearly('-7,-6,-5,-4,-3,-2,-1,1,2') }],
  ['every year from 29 Feb to 2 Mar', { from, repeat: yearly('60,-306,-305') }],
  ['every year from 26 Feb to 2 Mar', { from, repeat: yearly('57,58,59,60,-306,-305') }],
  ...['Advent Sundays', 'the four Sundays of Advent', 'on Sundays in Advent'].map((text): [string, When] => [
    text,
    { from, repeat: yearly(Array.from({ length: 28 }, (_, i) => i - 35).join(), ';BYDAY=SU') },
  ]),
  ['Saturdays in December 10-18', { from, repeat: 'FREQ=WEEKLY;BYDAY=SA;BYMONTH=12', windows: [['10:00', '18:00']] }],
  ['in December 10-18', { from: '2026-12-10', to: '2026-12-18' }],
  ['school holidays', { from, only: ['school'] }],
  ['in term time weekdays 7-9', { ...week(WEEKDAYS, ['07:00', '09:00']), not: ['school'] }],
];

test.each(CASES)('"%s"', (text, when) => {
  const read = readWhen(text, context);
  expect(read).toEqual({ ok: true, value: when });
  // What the form then says is read as the same.
  expect(readWhen(describeWhen(when), context)).toEqual(read);
});

test.each<[string, string[]]>([
  [
    'every day 6-22, Sundays 8-20',
    [
      'Mon Tue Wed Thu Fri Sat 06:00–22:00 and Sun 08:00–20:00, from 30 Nov 2026',
      'daily 06:00–22:00, from 30 Nov 2026; Sun 08:00–20:00, from 30 Nov 2026',
    ],
  ],
  [
    'Friday 18:00 to Monday 06:00',
    ['Fri 18:00 to Mon 06:00, from 30 Nov 2026', '4 Dec 2026 18:00 to 7 Dec 2026 06:00'],
  ],
])('"%s" can be meant in two ways', (text, readings) => {
  expect(readingsOf(text, context).map((when) => describeWhen(when))).toEqual(readings);
});

test.each([
  ['daily 8-18, Fridays until 20', '“Fridays until 20” has no start.'],
  ['weekdays 7-10 and weekends', 'Write the hours for each of these days'],
  ['every year from 20 Feb to 29 Feb', 'Most years have no 29 Feb.'],
  ['24 Dec 12:00 to 24 Dec 10:00', 'The end comes before the beginning'],
  ['18:00–20:00 9 days later', 'A window ends at most 7 days later'],
  ['daily from 1 Dec 18:00 to 20 Dec 12:00, 9-10', 'Make another booking for those'],
  [
    Array.from({ length: 21 }, (_, i) => `${i + 1} Jan ${(i % 9) + 1}:00-12:00`).join('; '),
    'A booking has at most 20 sets of hours',
  ],
])('"%s" is told', (text, sentence) => {
  expect(readWhen(text, context)).toMatchObject({ ok: false, message: expect.stringContaining(sentence) });
});
