import { chosenPlan, diffPlans } from '@/core/edition';
import { forecast, programsOf } from '@/core/forecast';
import { DAY } from '@/core/instant';
import { sharing, type Plan } from '@/core/plan';
import { generatedNetwork } from './generated-network';
import { print, timed } from './figure';

const SCREENS = 1000;
const CHANGES = 200;
/** A Tuesday. */
const FROM = Date.parse('2026-12-01T00:00:00Z');

/** The same plan with so many of its bookings moved by an hour, raised or lowered; what is not changed is shared. */
function changedPlan(plan: Plan): Plan {
  const bookings = plan.bookings.map((booking, i) =>
    i >= CHANGES ? booking : { ...booking, priority: (booking.priority % 5) + 1 },
  );
  return sharing(plan, { ...plan, bookings });
}

/** Publish with 200 changes on 1 000 screens: what looks different in a day, and what half of the changes alone would be. */
export async function docketBench(): Promise<void> {
  const before = generatedNetwork(SCREENS);
  const after = changedPlan(before);
  // Programs are narrowed once a plan, as on the page, whose worker has the newest edition already.
  programsOf(before);
  let groups = 0;
  const first = new Set(before.screens.slice(0, 100).map(({ id }) => id));
  const begun = changedPlan(before);
  const seen = await timed(async () => void diffPlans(before, begun, FROM, FROM + DAY, first));
  const value = await timed(async () => {
    groups = diffPlans(before, after, FROM, FROM + DAY).length;
  });
  const reference = await timed(async () => {
    for (const plan of [before, after].map((one) => structuredClone(one)))
      for (const program of new Set(programsOf(plan).values())) forecast(program, FROM, FROM + DAY);
  });
  print({
    bench: 'publish/on-the-glass-1000',
    value,
    unit: 's',
    reference: {
      what: `both plans compiled, and the segments of each program in that day; ${groups} groups differ`,
      value: reference,
    },
    goal: 'value < 2',
    met: value < 2,
  });
  print({
    bench: 'publish/on-the-glass-first-100',
    value: seen,
    unit: 's',
    reference: { what: 'all 1 000', value },
    goal: 'value < 1',
    met: seen < 1,
  });
  const chosen = before.bookings.slice(0, CHANGES / 2).map(({ id }) => ({ kind: 'booking' as const, id }));
  const choice = await timed(async () => void chosenPlan(before, after, chosen));
  print({
    bench: 'publish/choice-of-100',
    value: choice,
    unit: 's',
    reference: { what: 'what looks different in a day', value },
    goal: 'value < 0.1',
    met: choice < 0.1,
  });
}
