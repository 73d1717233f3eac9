import fc from 'fast-check';
import { orThrow } from '../../refusal';
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
