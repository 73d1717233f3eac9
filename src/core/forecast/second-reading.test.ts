import { forecastAt } from '.';
import fc from 'fast-check';
import { randomPlan } from '../tests/random-plan';
import { SecondReading } from '../tests/second-reading';
import { forecast, screenProgram, why } from '.';
import { runs } from '../tests/runs';

/** Each edge of the forecast, the instants beside it, and some in between. */
function instantsToTry(edges: readonly number[], from: number, to: number): number[] {
  const beside = edges.flatMap((at) => [at - 1, at, at + 1]);
  const between = Array.from({ length: 12 }, (_, i) => Math.floor(from + ((to - from) * (i + 0.37)) / 12));
  return [...new Set([...beside, ...between])].filter((at) => at >= from && at < to);
}

test('random plans: at every edge and between, the forecast is what a second reading of the rules says', () => {
  fc.assert(
    fc.property(randomPlan, fc.constantFrom('one', 'two'), ({ plan, from, to }, screen) => {
      const reading = new SecondReading(plan, screen, from, to);
      const { segments, plays } = forecast(screenProgram(plan, screen), from, to, { plays: true });
      const every = Math.ceil(plays.length / 20);
      const playEdges = plays.map((play) => play.from).filter((_, i) => i < 10 || i % every === 0);
      const edges = [...segments.map((one) => one.from), ...playEdges];
      for (const at of instantsToTry(edges, from, to)) {
        const segment = segments.find((one) => one.from <= at && at < one.to);
        const play = plays.find((one) => one.from <= at && at < one.to);
        const { source, id, since } = segment ?? {};
        expect([new Date(at).toISOString(), { source, id, since, media: play?.media ?? null }]).toEqual([
          new Date(at).toISOString(),
          reading.at(at),
        ]);
      }
    }),
    runs(80),
  );
});

test('random plans: why names the same winner', () => {
  fc.assert(
    fc.property(randomPlan, fc.constantFrom('one', 'two'), ({ plan, from, to }, screen) => {
      const reading = new SecondReading(plan, screen, from, to);
      for (const at of instantsToTry([], from, to)) {
        const { source, id } = reading.at(at);
        const shows = why(plan, screen, at).reasons.find(({ verdict }) => verdict === 'shows');
        expect(shows ? [shows.source, shows.id] : ['nothing', null]).toEqual([source, id]);
      }
    }),
    runs(40),
  );
});

test('random plans: a screen asked at one instant answers as its forecast does', () => {
  fc.assert(
    fc.property(randomPlan, fc.constantFrom('one', 'two'), ({ plan, from, to }, screen) => {
      const program = screenProgram(plan, screen);
      const { segments } = forecast(program, from, to);
      for (const at of instantsToTry(
        segments.map((one) => one.from),
        from,
        to,
      )) {
        const { segment } = forecastAt(program, at);
        const inRange = segments.find((one) => one.from <= at && at < one.to);
        expect([segment.source, segment.id, segment.since]).toEqual([inRange?.source, inRange?.id, inRange?.since]);
      }
    }),
    runs(40),
  );
});
