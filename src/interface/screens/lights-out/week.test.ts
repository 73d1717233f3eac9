import fc from 'fast-check';
import { runs } from '@/core/tests/runs';
import { dateOf, whenSchema, type When } from '@/core/when';
import { lightsOutTextSchema } from '../hours-text';
import { EMPTY_WEEK, SLOTS, clockOf, painted, weekOf, whenOf, type Week } from './week';

const off = (...rects: readonly (readonly [day: number, from: number, toDay: number, to: number])[]): Week =>
  rects.reduce((week: Week, [day, from, toDay, to]) => painted(week, [day, from], [toDay, to], true), EMPTY_WEEK);
const NO = { except: [] };
const TODAY = '2026-12-01';
const CONTEXT = { today: dateOf(2026, 12, 1), time: 0, calendars: [], zones: ['Europe/Oslo'] };

test.each([
  ['nothing', EMPTY_WEEK, []],
  ['a night, every day', off([0, 40, 6, 47], [0, 0, 6, 15]), [{ windows: [['20:00', '08:00']] }]],
  ['weekends', off([5, 0, 6, 47]), [{ from: TODAY, repeat: 'FREQ=WEEKLY;BYDAY=SA,SU' }]],
  ['always', off([0, 0, 6, 47]), [{ windows: [['00:00', '24:00']] }]],
  [
    'nights before working days, over the weekend',
    off([0, 40, 3, 47], [1, 0, 4, 11]),
    [{ from: TODAY, repeat: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH', windows: [['20:00', '06:00']] }],
  ],
  [
    'Sunday into Monday',
    off([6, 46, 6, 47], [0, 0, 0, 3]),
    [{ from: TODAY, repeat: 'FREQ=WEEKLY;BYDAY=SU', windows: [['23:00', '02:00']] }],
  ],
  [
    'an hour at noon',
    off([2, 24, 2, 25]),
    [{ from: TODAY, repeat: 'FREQ=WEEKLY;BYDAY=WE', windows: [['12:00', '13:00']] }],
  ],
] as const)('%s is painted and read', (_what, week, list) => {
  const made = whenOf({ week, ...NO }, TODAY);
  expect(made).toEqual(list);
  expect(made.map((one) => whenSchema.safeParse(one).success)).toEqual(made.map(() => true));
  expect(weekOf(list as unknown as When[], TODAY)).toEqual({ week, ...NO });
});

test.each([
  ['opening hours', [{ windows: [['closes', 'opens']] }]],
  ['quarters of an hour', [{ windows: [['23:15', '05:00']] }]],
  ['dates', [{ from: '2026-12-01', to: '2026-12-24' }]],
  ['what begins later', [{ from: '2026-12-02', repeat: 'FREQ=WEEKLY;BYDAY=SA' }]],
  ['every other week', [{ repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=SA' }]],
  [
    'different dates that are left out',
    [{ windows: [['20:00', '22:00']], except: ['2026-12-24'] }, { windows: [['23:00', '24:00']] }],
  ],
] as const)('%s can’t be painted', (_what, list) => {
  expect(weekOf(list as unknown as When[], TODAY)).toBeNull();
});

test('what is said in words is painted: it begins on the day on which it is read', () => {
  const read = lightsOutTextSchema(CONTEXT).parse('Mon 20:00-20:30; weekends');
  expect(weekOf(read ?? [], TODAY)?.week).toEqual(off([0, 40, 0, 40], [5, 0, 6, 47]));
});

test('dates that are left out stay', () => {
  const list = [{ from: TODAY, repeat: 'FREQ=WEEKLY;BYDAY=SA,SU', except: ['2026-12-24'] }] as When[];
  const read = weekOf(list, TODAY);
  expect(read?.except).toEqual(['2026-12-24']);
  expect(read && whenOf(read, TODAY)).toEqual(list);
});

test('any week that is painted is read as it was painted', () => {
  const week = fc.array(fc.array(fc.boolean(), { minLength: SLOTS, maxLength: SLOTS }), { minLength: 7, maxLength: 7 });
  const rough = fc
    .array(fc.tuple(fc.nat(6), fc.nat(SLOTS - 1), fc.nat(6), fc.nat(SLOTS - 1)), { maxLength: 4 })
    .map((rects) => off(...rects));
  fc.assert(
    fc.property(fc.oneof(week, rough), (one) =>
      expect(weekOf(whenOf({ week: one, ...NO }, TODAY), TODAY)?.week).toEqual(one),
    ),
    runs(200),
  );
  expect([clockOf(0), clockOf(17), clockOf(SLOTS)]).toEqual(['00:00', '08:30', '24:00']);
});
