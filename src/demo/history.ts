import { group } from 'd3-array';
import { forecast, screenProgram } from '@/core/forecast';
import type { Sample, Since } from '@/core/health';
import { DAY, HOUR, MINUTE } from '@/core/instant';
import type { Plan } from '@/core/plan';
import { rows } from '@/database';

/** A day that the sample network's players have behind them: their states, and what they measured. */

const EVERY_MS = 5 * MINUTE;

/** Screens that were offline for a while: from so many hours ago, for so many minutes. */
const DARK: Record<string, readonly (readonly [hoursAgo: number, minutes: number])[]> = {
  'ms-kivikko-deck': [
    [19, 25],
    [8, 12],
  ],
  'ms-ternen-cafe': [[14, 95]],
  'port-annick-hall': [[3.5, 6]],
};
/** In a cupboard without air. */
const WARM = new Set(['kaldavik-lanes']);

/** Writes down the last day of each screen of a plan. */
export async function seedHistory(networkId: string, plan: Plan, now: number): Promise<void> {
  const days = plan.screens.map(({ id }, number) => {
    const states = statesOf(plan, id, now);
    return { id, states, samples: samplesOf(id, number, states, now) };
  });
  await rows(
    `INSERT INTO screen_states (network_id, screen, at, state)
     SELECT $1, t.screen, to_timestamp(t.at / 1000.0), t.state FROM jsonb_to_recordset($2::jsonb) AS t(screen text, at bigint, state text)`,
    [networkId, JSON.stringify(days.flatMap(({ id, states }) => states.map((one) => ({ screen: id, ...one }))))],
  );
  await rows(
    `INSERT INTO screen_health (network_id, screen, hour, samples)
     SELECT $1, t.screen, to_timestamp(t.hour / 1000.0), t.samples
     FROM jsonb_to_recordset($2::jsonb) AS t(screen text, hour bigint, samples jsonb)`,
    [
      networkId,
      JSON.stringify(
        days.flatMap(({ id, samples }) =>
          [...group(samples, ({ at }) => Math.floor(at / HOUR) * HOUR)].map(([hour, list]) => ({
            ...{ screen: id, hour, samples: list },
          })),
        ),
      ),
    ],
  );
}

/** Lit but for the lights-out hours, and where it was offline. */
function statesOf(plan: Plan, screen: string, now: number): Since[] {
  const from = now - DAY;
  const { segments } = forecast(screenProgram(plan, screen), from, now);
  const offline = (DARK[screen] ?? []).map(([hoursAgo, minutes]) => {
    const begins = now - hoursAgo * HOUR;
    return { begins, ends: begins + minutes * MINUTE };
  });
  const edges = [...segments.map((one) => one.from), ...offline.flatMap(({ begins, ends }) => [begins, ends])].sort(
    (a, b) => a - b,
  );
  const stateAt = (at: number) => {
    if (offline.some(({ begins, ends }) => begins <= at && at < ends)) return 'dark';
    return segments.find((one) => one.from <= at && at < one.to)?.source === 'lights-out' ? 'resting' : 'lit';
  };
  return edges
    .map((at): Since => ({ at: Math.round(at), state: stateAt(at) }))
    .filter(({ state }, i, list) => state !== list[i - 1]?.state);
}

/** Warmer by day, fuller as files come in: made up, but never twice the same. */
function samplesOf(screen: string, number: number, states: readonly Since[], now: number): Sample[] {
  const first = Math.ceil((now - DAY) / EVERY_MS) * EVERY_MS;
  return Array.from({ length: Math.floor((now - first) / EVERY_MS) }, (_, i) => first + i * EVERY_MS)
    .filter((at) => states.findLast((one) => one.at <= at)?.state !== 'dark')
    .map((at) => {
      const day = Math.sin(((at % DAY) / DAY - 0.35) * 2 * Math.PI);
      const ripple = Math.sin(at / 1.7e6 + number * 2.3);
      const warm = WARM.has(screen) ? 17 : 0;
      return {
        at,
        temperature: Math.round((43 + warm + (number % 5) + 4 * day + ripple) * 10) / 10,
        memory: Math.round((0.42 + 0.03 * ripple + (number % 4) * 0.04) * 1000) / 1000,
        load: Math.round((0.24 + 0.08 * (ripple + 1)) * 100) / 100,
        storage: Math.round((0.2 + (number % 6) * 0.05) * 1000) / 1000,
        clock: Math.round(30 * ripple),
        line: Math.round(3e6 + 1e6 * ripple),
      };
    });
}
