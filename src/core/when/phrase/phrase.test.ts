import fc from 'fast-check';
import { orThrow } from '../../refusal';
import type { When } from '../../plan';
import { describeWhen, parseDate, readWhen, type LocalDate, type PhraseContext } from '..';
import { runs } from '../../tests/runs';

const context: PhraseContext = {
  today: parseDate('2026-11-25') as LocalDate,
  calendars: [
    { id: 'storm-days', name: 'Storm timetable' },
    { id: 'storm', name: 'Storm' },
  ],
  zones: ['Europe/Oslo', 'America/New_York'],
};
const read = (text: string) => readWhen(text, context);
const weekdays = 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR';

test.each<[string, When]>([
  ['', {}],
  ['always', {}],
  [
    'weekdays 05:30–10:00 until 28 Feb, not on storm-days',
    { from: '2026-11-25', to: '2027-02-28', repeat: weekdays, not: ['storm-days'], windows: [['05:30', '10:00']] },
  ],
  [
    'Weekdays 5:30 to 10:00 and 14:00-16:00',
    {
      from: '2026-11-25',
      repeat: weekdays,
      windows: [
        ['05:30', '10:00'],
        ['14:00', '16:00'],
      ],
    },
  ],
  ['mon-fri 9-17', { from: '2026-11-25', repeat: weekdays, windows: [['09:00', '17:00']] }],
  [
    'every Monday and Thursday from 9:30 pm to 2 am',
    { from: '2026-11-25', repeat: 'FREQ=WEEKLY;BYDAY=MO,TH', windows: [['21:30', '02:00']] },
  ],
  ['6 to 10 pm', { from: '2026-11-25', windows: [['18:00', '22:00']] }],
  ['10 to 2 pm', { from: '2026-11-25', windows: [['10:00', '14:00']] }],
  ['fri to mon', { from: '2026-11-25', repeat: 'FREQ=WEEKLY;BYDAY=MO,FR,SA,SU' }],
  [
    'weekends opens–closes-00:30',
    { from: '2026-11-25', repeat: 'FREQ=WEEKLY;BYDAY=SA,SU', windows: [['opens', 'closes-00:30']] },
  ],
  ['from opening until noon', { from: '2026-11-25', windows: [['opens', '12:00']] }],
  ['until 10:00', { from: '2026-11-25', windows: [['00:00', '10:00']] }],
  ['after 22:15:30', { from: '2026-11-25', windows: [['22:15:30', '24:00']] }],
  ['5 Dec', { from: '2026-12-05', to: '2026-12-05' }],
  [
    'on 2026-12-05 and 7 Dec, 10-11',
    { from: '2026-12-05', to: '2026-12-05', also: ['2026-12-07'], windows: [['10:00', '11:00']] },
  ],
  ['tomorrow 12:00 to 13:00', { from: '2026-11-26', to: '2026-11-26', windows: [['12:00', '13:00']] }],
  ['24 to 26 December', { from: '2026-12-24', to: '2026-12-26' }],
  ['Dec 24, 2027 – Jan 6', { from: '2027-12-24', to: '2028-01-06' }],
  ['from 1st of Nov', { from: '2027-11-01' }],
  ['29 Feb', { from: '2028-02-29', to: '2028-02-29' }],
  ['every other week on Tuesday', { from: '2026-12-01', repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU' }],
  ['the first and last Friday of the month', { from: '2026-11-25', repeat: 'FREQ=MONTHLY;BYDAY=1FR,-1FR' }],
  ['on the 1st and 15th of every month', { from: '2026-11-25', repeat: 'FREQ=MONTHLY;BYMONTHDAY=1,15' }],
  ['last day of the month', { from: '2026-11-25', repeat: 'FREQ=MONTHLY;BYMONTHDAY=-1' }],
  ['every 3 days from 1 Dec', { from: '2026-12-01', repeat: 'FREQ=DAILY;INTERVAL=3' }],
  ['daily in Nov, Dec and Jan', { from: '2026-11-25', repeat: 'FREQ=DAILY;BYMONTH=11,12,1' }],
  [
    'only on the Storm timetable 05:00–12:00',
    { from: '2026-11-25', only: ['storm-days'], windows: [['05:00', '12:00']] },
  ],
  ['not on storm', { from: '2026-11-25', not: ['storm'] }],
  ['10-11 only on 5 Dec', { from: '2026-12-05', to: '2026-12-05', windows: [['10:00', '11:00']] }],
  [
    'except 24 Dec and 31 Dec, also 2 Jan',
    { from: '2026-11-25', also: ['2027-01-02'], except: ['2026-12-24', '2026-12-31'] },
  ],
  [
    '04:00–11:30, 5 Dec, Oslo time',
    { clock: 'Europe/Oslo', from: '2026-12-05', to: '2026-12-05', windows: [['04:00', '11:30']] },
  ],
  ['by the rule FREQ=DAILY;;, not on storm', { from: '2026-11-25', repeat: 'FREQ=DAILY', not: ['storm'] }],
  ['New York time 9am to 5pm', { clock: 'America/New_York', from: '2026-11-25', windows: [['09:00', '17:00']] }],
])('"%s"', (text, when) => {
  expect(orThrow(read(text))).toEqual(when);
});

test.each([
  ['weekdays 5:30 to 25:00', '“25:00” isn’t a time of day.', 22],
  ['30 Feb', '30 Feb doesn’t exist.', 6],
  ['weekdays, sometimes', '“sometimes” isn’t understood.', 10],
  ['not on bank holidays', '“bank holidays” isn’t a day, a date or a calendar.', 7],
  ['10 Dec to 5 Dec 2026', 'The last day comes before the first.', 20],
  ['by the rule FREQ=HOURLY', 'FREQ must be DAILY', 0],
  ['by the rule ;;;', '“by the rule ;;;” isn’t understood.', 0],
  ['by the rule ;;;x', '“” isn’t a part of a rule.', 0],
  ['weekdays    Mars time', '“Mars time” isn’t a time zone.', 21],
  ['weekdays Mars time', '“Mars time” isn’t a time zone.', 18],
  [`weekdays${','.repeat(60_000)}`, 'A time has at most 60000 characters.', 0],
])('"%.40s" says what is wrong', (text, error, at) => {
  expect(read(text)).toMatchObject({
    ok: false,
    problems: [{ message: expect.stringContaining(error) as string, at }],
  });
});

test('what is described can be read again, for all that the words can say', () => {
  const date = fc
    .integer({ min: 20_600, max: 21_400 })
    .map((days) => new Date(days * 86_400_000).toISOString().slice(0, 10));
  const edge = fc.constantFrom(
    '00:00',
    '05:30',
    '09:00:30',
    '12:00',
    'opens',
    'closes',
    'closes-00:30',
    'opens+01:15',
    'sunset',
    'sunrise-00:20',
  );
  const end = fc.oneof(edge, fc.constant('24:00'));
  const some = <T>(one: fc.Arbitrary<T>) => fc.uniqueArray(one, { minLength: 1, maxLength: 3 });
  const when = fc
    .record(
      {
        clock: fc.constantFrom('Europe/Oslo', 'America/New_York', 'UTC'),
        from: date,
        to: date,
        repeat: fc.constantFrom(
          weekdays,
          'FREQ=WEEKLY;BYDAY=SA,SU',
          'FREQ=WEEKLY;BYDAY=TU',
          'FREQ=WEEKLY;INTERVAL=3;BYDAY=MO,WE',
          'FREQ=DAILY;BYMONTH=11,12,1',
          'FREQ=DAILY;INTERVAL=4',
          'FREQ=MONTHLY;BYDAY=1MO,-1FR',
          'FREQ=MONTHLY;BYDAY=2TU',
          'FREQ=MONTHLY;BYMONTHDAY=1,15',
          'FREQ=MONTHLY;BYMONTHDAY=-1',
          'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1',
          'FREQ=MONTHLY;BYMONTHDAY=1,15,-1',
          'FREQ=MONTHLY;BYMONTHDAY=-3,-2,-1',
          'FREQ=MONTHLY;BYMONTHDAY=15;BYMONTH=1,4,7,10',
          'FREQ=MONTHLY;BYMONTHDAY=-1;BYMONTH=3,6,9,12',
          'FREQ=MONTHLY;BYDAY=1MO;BYMONTH=1,4,7,10',
          'FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=24,31',
          'FREQ=YEARLY;BYMONTH=5;BYMONTHDAY=17',
          'FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=1,2,3,4',
          'FREQ=YEARLY;BYMONTH=11;BYDAY=4TH',
          'FREQ=WEEKLY;BYDAY=TU;BYMONTH=12',
          'FREQ=WEEKLY;BYDAY=MO,TH;COUNT=5',
          `FREQ=YEARLY;BYWEEKNO=${Array.from({ length: 26 }, (_, i) => 2 * i + 2).join()};BYDAY=MO`,
          'FREQ=YEARLY;BYMONTH=5;BYDAY=SU;BYSETPOS=2',
        ),
        also: some(date),
        except: some(date),
        only: some(fc.constantFrom('storm-days', 'storm')),
        not: some(fc.constantFrom('storm-days', 'storm')),
        windows: some(fc.tuple(edge, end)),
      },
      { requiredKeys: [] },
    )
    .filter((one) => one.from === undefined || one.to === undefined || one.from <= one.to)
    .map((one) =>
      one.repeat !== undefined && one.from === undefined ? { ...one, from: one.to ?? '2026-11-25' } : one,
    );
  fc.assert(
    fc.property(when, (one) => {
      // What says nothing of its beginning begins today.
      const from = one.from ?? (one.to !== undefined && one.to < '2026-11-25' ? one.to : '2026-11-25');
      expect(orThrow(read(describeWhen(one)))).toEqual(Object.keys(one).length === 0 ? one : { ...one, from });
    }),
    runs(500),
  );
});
