import type { LocalOccasion } from '@/core/booking';
import { bookingSchema, type Booking } from '@/core/plan';
import type { Finding } from '@/core/preflight';
import { parseDate, startOfDate, type LocalDate, type LocalTime } from '@/core/when';
import { layout, layerOf, troubleMarks } from './layout';
import { snap, ticks, timeScale } from './scale';

const first = parseDate('2026-11-23') as LocalDate;
const HOUR = 3_600_000;
const wall = (hours: number) => (startOfDate(first) + hours * HOUR) as LocalTime;
const booking = (id: string, rest: object = {}): Booking =>
  bookingSchema.parse({
    id,
    name: id,
    content: { media: 'm' },
    where: 'all',
    created: '2026-01-01T00:00:00Z',
    ...rest,
  });
const localOccasion = (id: string, start: number, end: number): LocalOccasion => ({
  booking: id,
  date: first,
  set: 0,
  window: 0,
  start: wall(start),
  end: wall(end),
});

test('bookings stand in the layer of their priority, takeovers above all', () => {
  expect([booking('a'), booking('b', { priority: 5 }), booking('c', { takeover: true })].map(layerOf)).toEqual([
    3,
    5,
    'takeover',
  ]);
});

test('no two bars of a lane overlap, and a booking keeps its lane', () => {
  const bookings = ['a', 'b', 'c'].map((id) => booking(id));
  const layers = layout(bookings, [
    localOccasion('a', 6, 10),
    localOccasion('a', 30, 34),
    localOccasion('b', 9, 12),
    localOccasion('c', 12, 13),
  ]);
  const [three] = layers.filter((one) => one.layer === 3);
  expect(three?.bars.map(({ booking: { id }, lane, next }) => [id, lane, next])).toEqual([
    ['a', 0, wall(12)],
    ['b', 1, null],
    ['c', 0, wall(30)],
    ['a', 0, null],
  ]);
  expect(three?.lanes).toBe(2);
  expect(layers.filter((one) => one.lanes > 0)).toHaveLength(1);
});

test('a wall of a week: an hour is as wide everywhere, and back again', () => {
  const scale = timeScale(first, 7, 1680);
  expect([wall(0), wall(24), wall(168)].map(scale.x)).toEqual([0, 240, 1680]);
  expect(scale.time(scale.x(wall(30.5)))).toBe(wall(30.5));
  expect(ticks(scale)).toHaveLength(28);
});

test('times snap to a neighbour that is near, else to the step, and to the minute where it is to be fine', () => {
  const scale = timeScale(first, 7, 1680);
  const time = wall(10.13);
  expect(snap(time, scale, [], false)).toBe(wall(10.25));
  expect(snap(time, scale, [wall(9.7)], false)).toBe(wall(9.7));
  expect(snap(time, scale, [wall(9)], false)).toBe(wall(10.25));
  expect(snap(time, scale, [wall(9.7)], true)).toBe(wall(10 + 8 / 60));
});

test('a clash is marked where the two meet, on the one that waits; what never shows, on all its bars', () => {
  const bookings = ['a', 'b', 'c'].map((id) => booking(id));
  const layers = layout(bookings, [
    localOccasion('a', 6, 10),
    localOccasion('b', 9, 12),
    localOccasion('b', 30, 33),
    localOccasion('c', 1, 2),
  ]);
  const finding = (kind: Finding['kind'], about: string[]) =>
    ({
      kind,
      about,
      severity: 'warning',
      screens: [],
      times: [],
      span: null,
      sentence: '',
      advice: '',
      fixes: [],
    }) as Finding;
  const marks = troubleMarks(
    layers.flatMap((one) => one.bars),
    [finding('clash', ['a', 'b']), finding('hidden', ['c', 'a'])],
  );
  expect(
    [...marks].map(
      ([
        key,
        {
          at,
          finding: { kind },
        },
      ]) => [key.split(' ')[0], at, kind],
    ),
  ).toEqual([
    ['b', wall(9), 'clash'],
    ['c', wall(1), 'hidden'],
  ]);
});

test('of a booking with several bars a clash is marked on the one that meets the other, where they meet', () => {
  const layers = layout(
    [booking('a'), booking('b')],
    [
      localOccasion('b', 8, 9),
      localOccasion('a', 13, 15),
      { ...localOccasion('b', 12, 14), window: 1 },
      { ...localOccasion('b', 16, 17), window: 2 },
    ],
  );
  const clash = { kind: 'clash', about: ['a', 'b'] } as unknown as Finding;
  const bars = layers.flatMap((one) => one.bars);
  const marks = [...troubleMarks(bars, [clash])].map(([key, { at }]) => [bars.find((bar) => bar.key === key), at]);
  expect(marks).toMatchObject([[{ booking: { id: 'b' }, localOccasion: { start: wall(12) } }, wall(13)]]);
});
