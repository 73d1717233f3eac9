import fc from 'fast-check';
import { parseInstant } from '../instant';
import { type Plan } from '../plan';
import { randomPlan } from '../tests/random-plan';
import { runs } from '../tests/runs';
import { NetworkForecast, forecast, nextShown, screenProgram } from '.';
import { smallPlan } from '../tests/small-plan';

const at = (text: string) => parseInstant(text) as number;
const [from, to] = [at('2026-12-01T00:00:00Z'), at('2026-12-03T00:00:00Z')];
const HOUR = 3_600_000;

const plan = (bookings: object[], items: object[] = [{ media: 'one' }, { media: 'two' }]): Plan =>
  smallPlan({
    network: { backdrop: { playlist: 'loop' } },
    screens: ['a', 'b'].map((id) => ({ id, tags: [id] })),
    media: ['one', 'two', 'spare'],
    playlists: [{ id: 'loop', name: 'Loop', items }],
    bookings: bookings.map((one, i) => ({
      ...{ id: `b${i}`, name: `B${i}` },
      ...one,
    })),
  });
const next = (of: Plan, media: string, now = from) => nextShown(new NetworkForecast(from, to).outcomes(of), media, now);

test('the turn that is on counts from now; the one to come from its beginning', () => {
  const own = plan([]);
  expect(next(own, 'one', from + 3_000)).toEqual([
    { screens: ['a', 'b'], from: from + 3_000, to: from + 10_000, source: 'backdrop', id: 'network' },
  ]);
  expect(next(own, 'two', from + 3_000)).toMatchObject([{ from: from + 10_000, to: from + 20_000 }]);
  expect(next(own, 'one', from + 10_000)).toMatchObject([{ from: from + 20_000, to: from + 30_000 }]);
});

test('what shows nowhere has no next; screens that see it sooner come first, with what shows it', () => {
  const own = plan([
    { content: { media: 'spare' }, where: 'b', when: { windows: [['06:00', '07:00']] } },
    { content: { media: 'spare' }, where: 'a', when: { windows: [['08:00', '09:00']] } },
  ]);
  expect(next(own, 'gone')).toEqual([]);
  expect(next(own, 'spare')).toEqual([
    { screens: ['b'], from: from + 6 * HOUR, to: from + 6 * HOUR + 10_000, source: 'booking', id: 'b0' },
    { screens: ['a'], from: from + 8 * HOUR, to: from + 8 * HOUR + 10_000, source: 'booking', id: 'b1' },
  ]);
  expect(next(own, 'spare', from + 7 * HOUR)).toMatchObject([{ screens: ['a'] }, { screens: ['b'] }]);
});

test('an item that is there later only, and what is woven in, are found where they are', () => {
  const later = plan([], [{ media: 'one' }, { media: 'two', when: { windows: [['21:00', '21:01']] } }]);
  expect(next(later, 'two')).toMatchObject([{ from: from + 21 * HOUR, to: from + 21 * HOUR + 10_000 }]);
  const woven = plan([{ content: { media: 'spare' }, weave: { every: HOUR } }]);
  expect(next(woven, 'spare')).toMatchObject([{ from: from + HOUR, source: 'booking', id: 'b0' }]);
});

test('for any plan it is the first of the whole forecast', () => {
  fc.assert(
    fc.property(
      randomPlan,
      fc.double({ min: 0, max: 0.9, noNaN: true }),
      ({ plan: own, from: begin, to: end }, part) => {
        const now = begin + Math.floor((end - begin) * part);
        const outcomes = new NetworkForecast(begin, end).outcomes(own);
        for (const { id: media } of own.media) {
          const found = new Map(
            nextShown(outcomes, media, now).flatMap(({ screens, ...one }) => screens.map((id) => [id, one])),
          );
          for (const { id } of own.screens) {
            const { plays } = forecast(screenProgram(own, id), now, end, { plays: true });
            const first = plays.find((play) => play.media === media);
            expect([found.get(id)?.from, found.get(id)?.to]).toEqual([first?.from, first?.to]);
          }
        }
      },
    ),
    runs(40),
  );
});
