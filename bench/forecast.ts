import { NetworkForecast, type Segment } from '@/core/forecast';
import { DAY } from '@/core/instant';
import { readPlan, type Plan } from '@/core/plan';
import { generatedNetwork } from './generated-network';
import { directSegments, type Plain } from './direct-way';
import { print, timed } from './figure';

const FROM = Date.UTC(2026, 2, 25);
const TO = FROM + 7 * DAY;
const SAMPLE = 25;

/** A week's segments of a whole network, cold and after one booking was moved, beside the direct way. */
export async function forecastBench(): Promise<void> {
  for (const count of [100, 1000, 10_000]) {
    const read = readPlan(generatedNetwork(count));
    if (!read.ok) throw new Error(JSON.stringify(read.problems.slice(0, 3)));
    await measure(read.value, count);
  }
}

async function measure(plan: Plan, count: number): Promise<void> {
  const network = new NetworkForecast(FROM, TO);
  let all = new Map<string, readonly Segment[]>();
  const cold = await timed(async () => void (all = network.segments(plan)));
  const moved = plan.bookings.map((booking, i) =>
    i === 123 ? { ...booking, when: { ...booking.when, windows: [['09:05', '11:35'] as [string, string]] } } : booking,
  );
  const edited = { ...plan, bookings: moved };
  let after = new Map<string, readonly Segment[]>();
  const warm = await timed(async () => void (after = network.segments(edited)));

  const sample = plan.screens.filter((_, i) => i % Math.ceil(count / SAMPLE) === 0).map((screen) => screen.id);
  const direct = new Map<string, Plain[]>();
  const slow = await timed(async () => sample.forEach((id) => direct.set(id, directSegments(edited, id, FROM, TO))));
  for (const id of sample) {
    const ours = (after.get(id) ?? []).map(({ from, to, source, id: winner, since }) => ({
      from,
      to,
      source,
      id: winner,
      since,
    }));
    if (JSON.stringify(ours) !== JSON.stringify(direct.get(id)))
      throw new Error(
        `The two ways differ on ${id}: ${JSON.stringify(ours).slice(0, 400)} and ${JSON.stringify(direct.get(id)).slice(0, 400)}`,
      );
  }
  if (all.size !== count) throw new Error('A screen is missing.');

  const perScreen = slow / sample.length;
  const reference = {
    what: `filter, rrule, luxon, sort and sweep for each screen, ${sample.length} measured`,
    value: perScreen * count,
  };
  const whole = count === 10_000;
  const times = reference.value / cold;
  print({
    bench: `forecast/week-${count}`,
    value: cold,
    unit: 's',
    reference,
    goal: whole ? 'value <= 3 and 200 times faster than the reference' : 'shows the growth',
    met: !whole || (cold <= 3 && times >= 200),
  });
  print({
    bench: `forecast/week-${count}-after-one-edit`,
    value: warm,
    unit: 's',
    reference: { what: 'the same, cold', value: cold },
    goal: whole ? 'value <= 0.3' : 'shows the growth',
    met: !whole || warm <= 0.3,
  });
  if (whole) {
    const memory = process.resourceUsage().maxRSS / 2 ** 10;
    print({
      bench: 'forecast/peak-memory',
      value: memory,
      unit: 'MB',
      reference: { what: 'limit', value: 1024 },
      goal: 'value < 1024',
      met: memory < 1024,
    });
  }
}
