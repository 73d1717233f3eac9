import { airTime, forecast, programsOf } from '@/core/forecast';
import { DAY } from '@/core/instant';
import { readPlan, type Booking, type Plan } from '@/core/plan';
import { print, timed } from './figure';
import { generatedNetwork } from './generated-network';

const FROM = Date.UTC(2026, 2, 25);
const TO = FROM + DAY;
const SCREENS = 1000;
const SHARE = 0.125;

/** A day's plays of 1 000 screens, all playlists shuffled and three bookings woven in, beside the same as listed; and what a share comes to. */
export async function playlistsBench(): Promise<void> {
  const listed = checked(generatedNetwork(SCREENS));
  const woven = (id: string, weave: Booking['weave']): Booking => ({
    ...{ id, name: id, where: 'all', priority: 3, created: '2026-01-01T00:00:00.000Z', when: {} },
    ...{ content: { playlist: listed.playlists[0]?.id ?? '' }, weave },
  });
  const more = checked({
    ...listed,
    playlists: listed.playlists.map((list) => ({ ...list, order: 'shuffled' as const })),
    bookings: [
      ...listed.bookings,
      woven('w-1', { share: SHARE }),
      woven('w-2', { every: 300_000 }),
      woven('w-3', { share: 0.05 }),
    ],
  });
  const plain = await timed(async () => void playsOf(listed));
  const value = await timed(async () => void playsOf(more));
  print({
    bench: 'playlists/day-of-plays-1000-screens',
    value,
    unit: 's',
    reference: { what: 'the same plan, as listed and with nothing woven in', value: plain },
    goal: 'at most 3 times the reference',
    met: value <= 3 * plain,
  });
  // One is woven into the loop of a screen that shows the same all day.
  const [screen] = listed.screens;
  const alone = checked({
    ...listed,
    network: { ...listed.network, backdrop: { playlist: listed.playlists[1]?.id ?? '' } },
    // Turns in the dark are not seen.
    screens: screen ? [{ ...screen, backdrop: undefined, lightsOut: undefined }] : [],
    bookings: [woven('w-1', { share: SHARE })],
  });
  const aired = airTime(alone, { kind: 'booking', id: 'w-1' }, FROM, TO)[0]?.ms ?? 0;
  const item = 8000;
  print({
    bench: 'playlists/share-over-a-day',
    value: Math.abs(SHARE * DAY - aired) / item,
    unit: 'items',
    reference: { what: 'the promised share, in items', value: (SHARE * DAY) / item },
    goal: 'an error under one item of either loop',
    met: Math.abs(SHARE * DAY - aired) < 2 * item,
  });
}

function checked(plan: Plan): Plan {
  const read = readPlan(plan);
  if (!read.ok) throw new Error(JSON.stringify(read.problems.slice(0, 3)));
  return read.value;
}

function playsOf(plan: Plan): number {
  const programs = [...programsOf(plan).values()];
  return programs.reduce((sum, program) => sum + forecast(program, FROM, TO, { plays: true }).plays.length, 0);
}
