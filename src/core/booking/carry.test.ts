import { HOUR, MINUTE } from '../instant';
import { bookingSchema, withPatches, type Booking, type Plan, type Site } from '../plan';
import { addDays, formatDate, parseDate, startOfDate, type LocalDate, type LocalTime } from '../when';
import { carried, copyOccasion, scopesOf, localOccasions } from '.';
import { smallPlan } from '../tests/small-plan';

const date = (text: string) => parseDate(text) as LocalDate;
const wall = (text: string, hours: number) => (startOfDate(date(text)) + hours * HOUR) as LocalTime;
const oslo: Site = {
  id: 'quay',
  name: 'Quay',
  timeZone: 'Europe/Oslo',
  hours: {
    weekly: { MO: [['06:00', '22:00']], TU: [['07:00', '20:00']] },
    dates: { '2026-12-07': [['10:00', '01:00']] },
  },
};
const booking = (when: object, rest: object = {}): Booking =>
  bookingSchema.parse({
    id: 'b',
    name: 'Morning',
    content: { media: 'm' },
    where: 'all',
    created: '2026-01-01T00:00:00Z',
    when,
    ...rest,
  });

function plan(...bookings: Booking[]): Plan {
  return smallPlan({
    calendars: [{ id: 'storm', name: 'Storm', dates: ['2026-12-02'] }],
    media: [{ id: 'm', name: 'M', kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' }],
    bookings,
  });
}

const seen = (one: Booking, from: string, to: string, site: Pick<Site, 'timeZone' | 'hours'> = oslo) =>
  localOccasions(plan(one), [one], site, date(from), date(to)).map(
    ({ date: day, window, start, end }) =>
      `${formatDate(day)} ${window}: ${(start - startOfDate(day)) / HOUR} to ${(end - startOfDate(day)) / HOUR}`,
  );

describe('what a wall at one site sees', () => {
  test('windows on their dates, also those that reach in from the day before; calendars keep some away', () => {
    const one = booking({
      windows: [
        ['06:00', '10:30'],
        ['22:00', '02:00'],
      ],
      not: ['storm'],
    });
    expect(seen(one, '2026-12-02', '2026-12-03')).toEqual([
      '2026-12-01 1: 22 to 26',
      '2026-12-03 0: 6 to 10.5',
      '2026-12-03 1: 22 to 26',
    ]);
  });

  test('opening hours are those of the site, on single dates too; a closed day has none', () => {
    const one = booking({ windows: [['opens', 'closes-00:30']] });
    expect(seen(one, '2026-11-30', '2026-12-08')).toEqual([
      '2026-11-30 0: 6 to 21.5',
      '2026-12-01 0: 7 to 19.5',
      '2026-12-07 0: 10 to 24.5',
      '2026-12-08 0: 7 to 19.5',
    ]);
  });

  test('a pinned clock is told as this site reads at that instant', () => {
    const one = booking({
      clock: 'Asia/Kathmandu',
      from: '2026-12-01',
      to: '2026-12-01',
      windows: [['04:00', '11:30']],
    });
    expect(seen(one, '2026-11-30', '2026-12-01')).toEqual(['2026-12-01 0: -0.75 to 6.75']);
  });
});

describe('carrying a bar', () => {
  const occasion = (one: Booking, day: string) => {
    const [found] = localOccasions(plan(one), [one], oslo, date(day), date(day));
    if (!found) throw new Error('not seen');
    return found;
  };

  test('to another time and day: both are told', () => {
    const one = booking({ windows: [['06:00', '10:00']] });
    const at = occasion(one, '2026-12-01');
    const change = carried(one, at, wall('2026-12-03', 7.25), wall('2026-12-03', 11.25), oslo);
    expect(change).toEqual({ date: date('2026-12-03'), window: ['07:15', '11:15'] });
  });

  test('to another day at its own time: the window stays as it was written', () => {
    const one = booking({ windows: [['opens', 'closes']] });
    const at = occasion(one, '2026-12-01');
    const shift = (time: LocalTime) => (time + 24 * HOUR) as LocalTime;
    expect(carried(one, at, shift(at.start), shift(at.end), oslo)).toEqual({ date: date('2026-12-02') });
  });

  test('one end alone: the other keeps its words', () => {
    const one = booking({ windows: [['opens', 'closes-00:30']] });
    const at = occasion(one, '2026-12-01');
    expect(carried(one, at, at.start, (at.end - 30 * MINUTE) as LocalTime, oslo).window).toEqual(['opens', '19:00']);
    expect(carried(one, at, (at.start + MINUTE) as LocalTime, at.end, oslo).window).toEqual(['07:01', 'closes-00:30']);
  });

  test('up to midnight is 24:00; over midnight ends on the next day; more than a day ends on a later date', () => {
    const one = booking({ windows: [['20:00', '22:00']] });
    const at = occasion(one, '2026-12-01');
    const to = (hours: number) => carried(one, at, at.start, wall('2026-12-01', hours), oslo).window;
    expect([to(24), to(26), to(60)]).toEqual([
      ['20:00', '24:00'],
      ['20:00', '02:00'],
      ['20:00', '12:00', 2],
    ]);
  });

  test('on a pinned clock: what this site reads is told in the booking’s own zone', () => {
    const one = booking({ clock: 'Asia/Kathmandu', windows: [['04:00', '11:30']] });
    const at = occasion(one, '2026-12-01');
    const later = (time: LocalTime) => (time + 2 * HOUR) as LocalTime;
    expect(carried(one, at, later(at.start), later(at.end), oslo)).toEqual({
      date: at.date,
      window: ['06:00', '13:30'],
    });
  });

  test('put down as a copy it is a booking of its own, and leaves the first as it is', () => {
    const one = booking({ clock: 'UTC', windows: [['06:00', '10:00']], not: ['storm'] }, { priority: 2 });
    const own = plan(one);
    const copy = copyOccasion(
      own,
      one,
      { date: date('2026-12-01'), set: 0, window: 0 },
      { date: date('2026-12-02'), takeover: true },
      '2026-11-25T10:00:00Z',
    );
    const [first, second] = withPatches(own, [copy]).bookings;
    expect(first).toEqual(one);
    expect(second).toMatchObject({
      name: 'Morning, 2 Dec',
      priority: 2,
      takeover: true,
      when: { clock: 'UTC', from: '2026-12-02', to: '2026-12-02', windows: [['06:00', '10:00']] },
    });
  });
});

test('scopes are offered where they mean something of their own', () => {
  const first = date('2026-12-01');
  const scopes = (when: object, day = first) => {
    const one = booking(when);
    return scopesOf(plan(one), one, { date: day, set: 0 });
  };
  expect(scopes({ from: '2026-12-01', to: '2026-12-01' })).toEqual(['all']);
  expect(scopes({ from: '2026-12-01' })).toEqual(['this day', 'all']);
  expect(scopes({ from: '2026-12-01' }, addDays(first, 1))).toEqual(['this day', 'from this day', 'all']);
  expect(scopes({})).toEqual(['this day', 'from this day', 'all']);
});
