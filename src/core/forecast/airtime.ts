import type { Instant } from '../instant';
import type { ContentKind } from '../plan/contents';
import type { Plan } from '../plan/schema';
import { NetworkForecast, type GroupForecast } from './network';
import { union, type Interval } from '../when';
import { drawnPlays } from './drawn';
import { loopsIn, segmentPlays, zoneLoops } from './plays';
import { comesFrom } from './loop';
import { placeOf } from './program';

/** What is asked about: a booking, or a content; of playlists nested ones too. */
export interface Subject {
  readonly kind: 'booking' | ContentKind;
  readonly id: string;
}

/** How much of a range a subject is on a screen. */
export interface AirTime {
  readonly screen: string;
  readonly ms: number;
  /** Turns of its items, those that are cut short too. */
  readonly plays: number;
  readonly first: Instant;
}

/** Where and how long a subject really shows in `[from, to)`: the screens with any time at all, in the plan's order. */
export function airTime(plan: Plan, subject: Subject, from: Instant, to: Instant): AirTime[] {
  const times = new Map<string, Omit<AirTime, 'screen'>>();
  for (const outcome of new NetworkForecast(from, to).outcomes(plan)) {
    const time = timeIn(outcome, subject);
    if (time) for (const screen of outcome.screens) times.set(screen, time);
  }
  return plan.screens.flatMap(({ id }) => {
    const time = times.get(id);
    return time ? [{ screen: id, ...time }] : [];
  });
}

function timeIn({ program, segments }: GroupForecast, { kind, id }: Subject): Omit<AirTime, 'screen'> | null {
  const place = placeOf(program);
  /** For each loop, whether each of its items belongs to the subject. */
  const belongs = program.loops.map((loop) => loop.map((item) => kind !== 'booking' && comesFrom(item, { kind, id })));
  let [ms, plays, first] = [0, 0, Infinity];
  const seen: Interval[] = [];
  for (const segment of segments) {
    const whole = kind === 'booking';
    const own = segment.source === 'backdrop' ? null : segment.id;
    const loops = loopsIn(program, place, segment);
    const may =
      program.overlays !== undefined ||
      (whole
        ? loops.some(({ weave }) => (weave ? weave.id : own) === id)
        : loops.some(({ loop }) => [loop, ...zoneLoops(program, loop)].some((one) => belongs[one]?.includes(true))));
    if (!may) continue;
    const isAbove = program.overlays?.some((overlay) => overlay.id === id) ?? false;
    for (const play of (whole && !isAbove ? segmentPlays : drawnPlays)(program, place, segment)) {
      const isOwn = whole
        ? (play.weave ?? own) === id && (!isAbove || play.loop < 0)
        : play.loop < 0
          ? kind === 'layout' && play.layout === id
          : belongs[play.loop]?.[play.item];
      if (!isOwn) continue;
      if (program.layouts) seen.push([play.from, play.to]);
      else ms += play.to - play.from;
      plays++;
      first = Math.min(first, play.from);
    }
  }
  // In two zones at once it counts once.
  for (const [from, to] of union(seen)) ms += to - from;
  return plays === 0 ? null : { ms, plays, first };
}
