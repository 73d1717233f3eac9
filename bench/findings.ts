import { NetworkForecast } from '@/core/forecast';
import { DAY } from '@/core/instant';
import { readPlan } from '@/core/plan';
import { findings } from '@/core/preflight';
import { print, timed } from './figure';
import { generatedNetwork } from './generated-network';

const SCREENS = 5000;
const FROM = Date.UTC(2026, 10, 23);
/** Six weeks, as a month is shown. */
const MONTH_DAYS = 42;

/** What is worth knowing of a large network's week, and of its month: beside the forecast that it rests on. */
export async function findingsBench(): Promise<void> {
  const read = readPlan(generatedNetwork(SCREENS));
  if (!read.ok) throw new Error(JSON.stringify(read.problems.slice(0, 3)));
  for (const [name, days] of [
    ['week', 7],
    ['month', MONTH_DAYS],
  ] as const) {
    const to = FROM + days * DAY;
    const forecast = await timed(async () => void new NetworkForecast(FROM, to).segments(read.value));
    const value = await timed(async () => void findings(read.value, FROM, to));
    print({
      bench: `findings/${name}-${SCREENS}`,
      value,
      unit: 's',
      reference: { what: 'the segments of the same time', value: forecast },
      goal: 'value < 3 times the reference',
      met: value < 3 * forecast,
    });
  }
}
