import fc from 'fast-check';
import { readPlan, withPatches, type Booking, type Plan, type Patch } from '../plan';
import { orThrow } from '../refusal';
import { addDays, datesOf, formatDate, parseDate, setsOf, type LocalDate } from '../when';
import { copyDays, reschedule, type Occasion, type Rescheduling, type Scope } from '.';
import { runs } from '../tests/runs';
import { smallPlan } from '../tests/small-plan';

const date = (text: string) => parseDate(text) as LocalDate;
const CREATED = '2026-11-25T10:00:00Z';
const [first, last] = [date('2026-11-30'), date('2027-01-31')];

function plan(...bookings: object[]): Plan {
  return smallPlan({
    calendars: [{ id: 'storm', name: 'Storm', dates: ['2026-12-08'] }],
    media: [{ id: 'm', name: 'M', kind: 'image', width: 1, height: 1, bytes: 1, added: CREATED }],
    bookings: bookings.map((one, i) => ({
      id: `b${i}`,
      name: `B${i}`,
      content: { media: 'm' },
      where: 'all',
      ...one,
    })),
  });
}

/** Every window of a plan's bookings on every date: `2026-12-01 06:00-10:00 p3`, in order. */
function diary(of: Plan, from = first, to = last): string[] {
  const calendar = () => new Set([date('2026-12-08')]);
  return of.bookings
    .flatMap(({ when, priority, takeover }) =>
      setsOf(when).flatMap((set) =>
        datesOf(set, { calendar }, from, to).flatMap((day) =>
          (set.windows ?? [['00:00', '24:00']]).map(
            ([a, b]) => `${formatDate(day)} ${a}-${b} ${takeover ? 'takeover' : `p${priority}`}`,
          ),
        ),
      ),
    )
    .sort();
}

function changed(of: Plan, occasion: Occasion, change: Rescheduling, scope: Scope): Plan {
  const edits = reschedule(of, of.bookings[0] as Booking, occasion, change, scope, CREATED);
  return applied(of, orThrow(edits));
}

/** The edits made, and the plan proved to hold together. */
function applied(of: Plan, edits: readonly Patch[]): Plan {
  const read = readPlan(withPatches(of, edits));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

const RULES = [
  undefined,
  'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR',
  'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,FR',
  'FREQ=DAILY;INTERVAL=3',
  'FREQ=DAILY;COUNT=12',
  'FREQ=WEEKLY;BYDAY=TU;UNTIL=20270110',
  'FREQ=MONTHLY;BYDAY=1MO,-1FR',
  'FREQ=MONTHLY;BYMONTHDAY=1,15',
];
const booking = fc
  .record({
    from: fc.constantFrom('2026-11-30', '2026-12-02', '2026-12-15'),
    to: fc.constantFrom(undefined, '2027-01-20'),
    repeat: fc.constantFrom(...RULES),
    also: fc.constantFrom(undefined, ['2026-12-06', '2027-01-02']),
    except: fc.constantFrom(undefined, ['2026-12-16']),
    windows: fc.constantFrom(
      [['06:00', '10:00']],
      [
        ['06:00', '10:00'],
        ['14:00', '16:00'],
      ],
    ),
  })
  .map((when) => ({ when: Object.fromEntries(Object.entries(when).filter(([, value]) => value !== undefined)) }));

test('whatever repeats: a change reaches the days of its scope, and no other', () => {
  fc.assert(
    fc.property(
      booking,
      fc.nat(),
      fc.constantFrom<Scope>('this day', 'from this day', 'all'),
      (values, pick, scope) => {
        const before = plan(values);
        const dates = [...new Set(diary(before).map((line) => line.slice(0, 10)))];
        const day = dates[pick % dates.length] ?? '';
        const after = changed(
          before,
          { date: date(day), set: 0, window: 0 },
          { window: ['07:15', '09:45'], priority: 5 },
          scope,
        );
        const within = (line: string) =>
          scope === 'all' || (scope === 'this day' ? line.startsWith(day) : line.slice(0, 10) >= day);
        const expected = diary(before).map((line) =>
          within(line) ? line.replace('06:00-10:00', '07:15-09:45').replace('p3', 'p5') : line,
        );
        expect(diary(after)).toEqual(expected.sort());
      },
    ),
    runs(300),
  );
});

test('whatever repeats: taking one window away leaves the others of its day', () => {
  fc.assert(
    fc.property(
      booking,
      fc.nat(),
      fc.constantFrom<Scope>('this day', 'from this day', 'all'),
      (values, pick, scope) => {
        const before = plan(values);
        const dates = [...new Set(diary(before).map((line) => line.slice(0, 10)))];
        const day = dates[pick % dates.length] ?? '';
        const gone = (line: string) =>
          line.includes('06:00-10:00') &&
          (scope === 'all' || (scope === 'this day' ? line.startsWith(day) : line.slice(0, 10) >= day));
        const after = changed(before, { date: date(day), set: 0, window: 0 }, { remove: true }, scope);
        expect(diary(after)).toEqual(diary(before).filter((line) => !gone(line)));
      },
    ),
    runs(200),
  );
});

test('carried to another day: each of its days moves alike', () => {
  const daily = fc.constantFrom(...RULES.filter((rule) => !rule?.includes('MONTHLY')));
  fc.assert(
    fc.property(daily, fc.integer({ min: -10, max: 10 }), (repeat, days) => {
      const before = plan({ when: { from: '2026-12-01', to: '2027-01-10', ...(repeat ? { repeat } : {}) } });
      const [day = ''] = diary(before).map((line) => line.slice(0, 10));
      const after = changed(before, { date: date(day), set: 0, window: 0 }, { date: addDays(date(day), days) }, 'all');
      const wide = [addDays(first, -30), addDays(last, 30)] as const;
      expect(diary(after, ...wide)).toEqual(
        diary(before, ...wide).map((line) => `${formatDate(addDays(date(line.slice(0, 10)), days))}${line.slice(10)}`),
      );
    }),
    runs(100),
  );
});

test('one day alone is carried to another day and layer, under a name that says so', () => {
  const before = plan({
    name: 'Morning',
    when: { repeat: 'FREQ=WEEKLY;BYDAY=WE', from: '2026-12-02', not: ['storm'] },
  });
  const after = changed(
    before,
    { date: date('2026-12-09'), set: 0, window: 0 },
    { date: date('2026-12-10'), window: ['08:00', '09:00'], takeover: true },
    'this day',
  );
  expect(after.bookings.map(({ name, when, takeover }) => ({ name, when, takeover }))).toEqual([
    { name: 'Morning', when: { ...before.bookings[0]?.when, except: ['2026-12-09'] }, takeover: undefined },
    {
      name: 'Morning, 10 Dec',
      when: { from: '2026-12-10', to: '2026-12-10', windows: [['08:00', '09:00']] },
      takeover: true,
    },
  ]);
});

test('a booking of one day is changed itself, whatever the scope; the last window gone, it is removed', () => {
  const before = plan({ when: { from: '2026-12-05', to: '2026-12-05', windows: [['04:00', '11:30']] } });
  const occasion = { date: date('2026-12-05'), set: 0, window: 0 };
  for (const scope of ['this day', 'from this day', 'all'] as const) {
    expect(diary(changed(before, occasion, { date: date('2026-12-06') }, scope))).toEqual([
      '2026-12-06 04:00-11:30 p3',
    ]);
    expect(changed(before, occasion, { remove: true }, scope).bookings).toEqual([]);
  }
});

test.each([
  [{}, 'It shows every day'],
  [
    { from: '2026-12-01', repeat: 'FREQ=MONTHLY;BYMONTHDAY=1' },
    'A repeat like this can’t be moved to other days as a whole.',
  ],
])('%j can not be carried as a whole', (when, sentence) => {
  const before = plan({ when });
  const edits = reschedule(
    before,
    before.bookings[0] as Booking,
    { date: date('2026-12-01'), set: 0, window: 0 },
    { date: date('2026-12-02') },
    'all',
    CREATED,
  );
  expect(edits).toMatchObject({ ok: false, message: expect.stringContaining(sentence) as string });
});

describe('copying days', () => {
  const before = plan(
    { when: { from: '2026-12-01', repeat: 'FREQ=WEEKLY;BYDAY=TU', windows: [['06:00', '10:00']] } },
    { when: { from: '2026-12-02', to: '2026-12-02', windows: [['12:00', '13:00']] } },
    { when: { only: ['storm'], windows: [['20:00', '21:00']] } },
    { when: {}, onHold: true },
  );
  const copied = (source: string, days: number, targets: string[], replace: boolean) =>
    diary(
      applied(before, copyDays(before, date(source), days, targets.map(date), { replace, created: CREATED })),
      date('2026-12-01'),
      date('2026-12-14'),
    ).filter((line) => !line.includes('00:00-24:00'));

  test('a day: what shows there shows on the others too, also what a calendar would keep away', () => {
    expect(copied('2026-12-08', 1, ['2026-12-02', '2026-12-05'], false)).toEqual([
      '2026-12-01 06:00-10:00 p3',
      '2026-12-02 06:00-10:00 p3',
      '2026-12-02 12:00-13:00 p3',
      '2026-12-02 20:00-21:00 p3',
      '2026-12-05 06:00-10:00 p3',
      '2026-12-05 20:00-21:00 p3',
      '2026-12-08 06:00-10:00 p3',
      '2026-12-08 20:00-21:00 p3',
    ]);
  });

  test('a day in place of what is there', () => {
    expect(copied('2026-12-01', 1, ['2026-12-02'], true)).toEqual([
      '2026-12-01 06:00-10:00 p3',
      '2026-12-02 06:00-10:00 p3',
      '2026-12-08 06:00-10:00 p3',
      '2026-12-08 20:00-21:00 p3',
    ]);
  });

  test('a week', () => {
    expect(copied('2026-11-30', 7, ['2026-12-07'], true)).toEqual([
      '2026-12-01 06:00-10:00 p3',
      '2026-12-02 12:00-13:00 p3',
      '2026-12-08 06:00-10:00 p3',
      '2026-12-09 12:00-13:00 p3',
    ]);
  });
});
