import { emptyPlan, type Booking, type When } from '../plan';
import { orThrow } from '../refusal';
import { parseDate, type LocalDate } from '../when';
import { copyDays } from './copy';
import { reschedule, scopesOf, type Rescheduling } from './reschedule';
import { readRows } from '../tests/rows';

const date = (text: string) => parseDate(text) as LocalDate;
const booking = (when: When): Booking => ({
  ...{ id: 'b', name: 'B', content: { media: 'm' }, where: 'all', priority: 3, created: '2026-01-01T00:00:00Z' },
  when,
});
const plan = (...bookings: Booking[]) => ({
  ...emptyPlan('N'),
  calendars: [{ id: 'storm', name: 'Storm', dates: ['2026-12-08'] }],
  bookings,
});

describe('which scopes mean something of their own', () => {
  const scopes = (when: When, on: string) => scopesOf(plan(), booking(when), { date: date(on), set: 0 }).join(', ');
  test.each<[string, When, string, string]>(readRows('booking/scopes.jsonl'))('%s', (_, when, on, expected) => {
    expect(scopes(when, on)).toBe(expected);
  });
});

describe('windows after a change', () => {
  const DAY: When = { from: '2026-12-10', to: '2026-12-10' };
  const changed = (when: When, change: Rescheduling, window = 0) => {
    const one = booking(when);
    const patches = orThrow(
      reschedule(plan(one), one, { date: date('2026-12-10'), set: 0, window }, change, 'all', '2026-01-02T00:00:00Z'),
    );
    return patches.map((patch) => ('set' in patch ? patch.set.when : patch));
  };

  test('the whole day is written without windows; with another window beside it, it is one', () => {
    const whole: Rescheduling = { window: ['00:00', '24:00'] };
    expect(changed({ ...DAY, windows: [['06:00', '07:00']] }, whole)).toEqual([DAY]);
    expect(
      changed(
        {
          ...DAY,
          windows: [
            ['06:00', '07:00'],
            ['08:00', '09:00'],
          ],
        },
        whole,
        1,
      ),
    ).toEqual([
      {
        ...DAY,
        windows: [
          ['06:00', '07:00'],
          ['00:00', '24:00'],
        ],
      },
    ]);
    expect(changed(DAY, { window: ['06:00', '07:00'] })).toEqual([{ ...DAY, windows: [['06:00', '07:00']] }]);
  });

  test('one window taken away leaves the others; the last one takes the booking with it', () => {
    expect(
      changed(
        {
          ...DAY,
          windows: [
            ['06:00', '07:00'],
            ['08:00', '09:00'],
          ],
        },
        { remove: true },
      ),
    ).toEqual([{ ...DAY, windows: [['08:00', '09:00']] }]);
    expect(changed({ ...DAY, windows: [['06:00', '07:00']] }, { remove: true })).toMatchObject([
      { id: 'b', remove: true },
    ]);
    expect(changed(DAY, { remove: true })).toMatchObject([{ id: 'b', remove: true }]);
  });

  test('without a date the day stays, with one it moves', () => {
    expect(changed(DAY, {})).toEqual([]);
    expect(changed(DAY, { date: date('2026-12-12') })).toEqual([{ from: '2026-12-12', to: '2026-12-12' }]);
  });

  test('no longer a takeover, it wakes no displays', () => {
    const one: Booking = { ...booking(DAY), takeover: true, wake: true };
    const patches = orThrow(
      reschedule(
        plan(one),
        one,
        { date: date('2026-12-10'), set: 0, window: 0 },
        { takeover: false, priority: 5 },
        'all',
        '',
      ),
    );
    expect(patches).toMatchObject([{ set: { takeover: null, wake: null, priority: 5 } }]);
  });
});

test('copying a day changes what differs and nothing else', () => {
  const [there, elsewhere] = [
    booking({ from: '2026-12-10', to: '2026-12-10' }),
    { ...booking({ from: '2026-12-01', to: '2026-12-01' }), id: 'c', name: 'C' },
  ];
  const patches = copyDays(plan(there, elsewhere), date('2026-12-10'), 1, [date('2026-12-12')], {
    ...{ replace: false, created: '2026-01-02T00:00:00Z' },
  });
  expect(patches).toMatchObject([{ id: 'b', set: { when: { also: ['2026-12-12'] } } }]);
});
