import { parseInstant } from '../instant';
import { smallPlan, type Parts } from '../tests/small-plan';
import { forecast, forecastAt, neverShown, screenProgram, stepFrom, withStep, type Stepped } from '.';

const NOON = parseInstant('2026-12-01T12:00:00Z') as number;
const HOUR = 3_600_000;

const ITEMS = [
  { media: 'a', durationMs: 10_000 },
  { media: 'b', durationMs: 10_000, when: { windows: [['20:00', '21:00']] } },
  { media: 'c', durationMs: 10_000 },
  { media: 'd', durationMs: 10_000 },
];
const PARTS = {
  media: ['a', 'b', 'c', 'd'],
  playlists: [{ id: 'loop', items: ITEMS }],
  screens: [{ id: 'hall', stepRestMs: 30_000 }],
  bookings: [{ id: 'loop', content: { playlist: 'loop' }, when: { windows: [['10:00', '22:00']] } }],
} satisfies Parts;

const program = (more: Parts = {}) => screenProgram(smallPlan({ ...PARTS, ...more }), 'hall');

/** What is seen second by second of the steps, each made so many seconds after noon. */
function seen(
  made: ReturnType<typeof program>,
  steps: readonly (readonly [second: number, by: 1 | -1])[],
  seconds: readonly number[],
) {
  const shown = (at: number, stepped: Stepped | null) => {
    const found = forecast(made, at, at + HOUR, { plays: true });
    return (stepped ? withStep(made, found, stepped) : found).plays.find((play) => play.from <= at && at < play.to)
      ?.media;
  };
  let stepped: Stepped | null = null;
  const all = [...steps.map(([second]) => second), ...seconds].sort((a, b) => a - b);
  return all.map((second) => {
    const at = NOON + second * 1000;
    const by = steps.find(([when]) => when === second)?.[1];
    if (by) stepped = stepFrom(made, forecastAt(made, at), stepped, at, by) ?? stepped;
    return shown(at, stepped);
  });
}

test('a step leads to the next item that may play then, or the one before; after the rest it goes on by the clock', () => {
  const made = program();
  // By the clock: a from 0, c from 10, d from 20.
  expect(seen(made, [], [5, 15, 25])).toEqual(['a', 'c', 'd']);
  expect(
    seen(
      made,
      [
        [5, 1],
        [6, 1],
        [7, 1],
        [8, -1],
      ],
      [9, 37, 38],
    ),
  ).toEqual(['c', 'd', 'a', 'd', 'd', 'd', 'a']);
  const stepped = stepFrom(made, forecastAt(made, NOON + 5000), null, NOON + 5000, 1) as Stepped;
  const { plays } = withStep(made, forecast(made, NOON, NOON + 60_000, { plays: true }), stepped);
  expect(plays.map(({ media, from, to }) => [media, (from - NOON) / 1000, (to - NOON) / 1000])).toEqual([
    ['a', 0, 5],
    ['c', 5, 35],
    ['a', 35, 40],
    ['c', 40, 50],
    ['d', 50, 60],
  ]);
});

test('it ends with what was stepped through, and a takeover, one item alone or a screen that doesn’t allow it isn’t stepped', () => {
  // By the clock d is on.
  const at = NOON + 10 * HOUR - 5000;
  const made = program();
  const stepped = stepFrom(made, forecastAt(made, at), null, at, 1) as Stepped;
  const { plays } = withStep(made, forecast(made, at, at + HOUR, { plays: true }), stepped);
  expect(plays.map(({ media, to }) => [media, to])).toEqual([['a', NOON + 10 * HOUR]]);
  const steps = (more: Parts) => {
    const one = program(more);
    return stepFrom(one, forecastAt(one, NOON), null, NOON, 1);
  };
  expect(steps({ bookings: [{ ...PARTS.bookings[0], takeover: true }] })).toBeNull();
  const shown = { playlists: [{ id: 'loop', waits: true, items: ITEMS }] };
  expect(steps({ ...shown, bookings: [{ ...PARTS.bookings[0], takeover: true }] })).not.toBeNull();
  expect(steps({ bookings: [{ content: { media: 'a' } }] })).toBeNull();
  expect(steps({ screens: ['hall'] })).toBeNull();
  expect(steps({ screens: [{ ...PARTS.screens[0], lightsOut: [{}] }] })).toBeNull();
});

test('in a presentation the first item stays until it is stepped, and so each; nothing is said of the others never being shown', () => {
  const parts = { screens: ['hall'], playlists: [{ id: 'loop', waits: true, items: ITEMS }] };
  const made = program(parts);
  const { plays } = forecast(made, NOON, NOON + HOUR, { plays: true });
  expect(plays.map(({ media }) => media)).toEqual(['a']);
  expect(
    seen(
      made,
      [
        [5, 1],
        [6, -1],
        [7, -1],
      ],
      [3000],
    ),
  ).toEqual(['c', 'a', 'd', 'd']);
  const plan = smallPlan({ ...PARTS, ...parts });
  expect(neverShown(plan, NOON, NOON + HOUR)).toEqual([]);
});

test('in a zone a playlist that waits goes round as others do: no key steps it', () => {
  const made = program({
    playlists: [{ id: 'loop', waits: true, items: ITEMS }],
    layouts: [{ id: 'board', zones: [{ id: 'main', content: { playlist: 'loop' } }] }],
    bookings: [{ content: { layout: 'board' } }],
  });
  const { plays } = forecast(made, NOON, NOON + 30_000, { plays: true });
  expect(plays[0]?.zones?.[0]?.plays.map(({ media }) => media)).toHaveLength(3);
});
