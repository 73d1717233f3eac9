import { NetworkForecast, drawnPlays } from '@/core/forecast';
import { DAY, MINUTE, parseInstant } from '@/core/instant';
import type { Content, Plan } from '@/core/plan';
import { generatedNetwork } from './generated-network';
import { print } from './figure';

const SCREENS = 1000;
const ROUNDS = 2;
const BEGIN = parseInstant('2026-12-01T00:00:00Z') as number;

/** A plan in which each booking shows its content in the largest zone of a board, beside a notice, an input and a file that stays a minute. */
function inZones(plan: Plan): Plan {
  const layouts: Plan['layouts'] = [];
  const bulletins: Plan['bulletins'] = [{ id: 'notice', name: 'Notice', kind: 'notice', text: 'Mind the step' }];
  const onBoard = (main: Content, i: number): Content => {
    const id = `board-${i}`;
    const still = { media: plan.media[i % plan.media.length]?.id ?? '', durationMs: MINUTE };
    const side = { x: 1440, width: 480, height: 360 };
    const zones = [
      { id: 'main', x: 0, y: 0, width: 1440, height: 1080, content: main },
      { id: 'notice', ...side, y: 0, content: { bulletin: 'notice' } },
      { id: 'input', ...side, y: 360, content: { input: 'hdmi-1' } },
      { id: 'still', ...side, y: 720, content: still },
    ];
    layouts.push({ id, name: id, width: 1920, height: 1080, durationMs: MINUTE, zones });
    return { layout: id };
  };
  const bookings = plan.bookings.map((one, i) => ({ ...one, content: onBoard(one.content, i) }));
  return { ...plan, bookings, layouts, bulletins };
}

/** All plays of a day on all screens, once for each group of those that see the same; in milliseconds. */
function dayOf(plan: Plan): { ms: number; plays: number } {
  const begun = performance.now();
  let plays = 0;
  for (const { program, place, segments } of new NetworkForecast(BEGIN, BEGIN + DAY).outcomes(plan))
    for (const segment of segments) plays += drawnPlays(program, place, segment).length;
  return { ms: performance.now() - begun, plays };
}

/** Plays with zones of 1 000 screens over a day, beside the same bookings without zones. */
export function layoutsBench(): Promise<void> {
  const plain = generatedNetwork(SCREENS);
  const zoned = inZones(plain);
  const times: [number, number][] = [];
  let counts = [0, 0];
  for (let i = 0; i < ROUNDS; i++) {
    const [one, other] = [dayOf(plain), dayOf(zoned)];
    times.push([one.ms, other.ms]);
    counts = [one.plays, other.plays];
  }
  const least = (at: 0 | 1) => Math.min(...times.map((pair) => pair[at]));
  const [bare, value] = [least(0), least(1)];
  print({
    ...{ bench: `layouts/plays-of-a-day-${SCREENS}-screens`, value, unit: 'ms' },
    ...{ goal: '≤ 3 × without zones', met: value <= 3 * bare },
    reference: { what: `the same bookings without zones (${counts[0]} plays; with zones ${counts[1]})`, value: bare },
  });
  return Promise.resolve();
}
