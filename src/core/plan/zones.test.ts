import fc from 'fast-check';
import { planZones } from '.';
import { screenProgram, zonesOf } from '../forecast';
import { randomPlan } from '../tests/random-plan';
import { runs } from '../tests/runs';

test('a plan names every zone that a program of its screens reads', () => {
  fc.assert(
    fc.property(randomPlan, ({ plan }) => {
      const zones = new Set(planZones(plan));
      for (const { id } of plan.screens)
        for (const zone of zonesOf(screenProgram(plan, id))) expect(zones).toContain(zone);
    }),
    runs(100),
  );
});
