import type { Instant } from '../instant';
import type { GroupForecast } from './network';
import { drawnPlays, overlayItems } from './drawn';
import { loopsIn, zoneLoops, type Play } from './plays';
import type { ScreenProgram } from './program';
import type { Segment } from './segments';

/** When a file shows next on screens that see the same: what wins there by then, or what it is woven in by. */
export interface NextShown {
  readonly screens: readonly string[];
  readonly from: Instant;
  readonly to: Instant;
  readonly source: Segment['source'];
  /** The booking's id, or the level of a backdrop. */
  readonly id: string | null;
}

/**
 * When a file is seen next from an instant on, the soonest first, for the screens that see it within what was forecast: those that see it
 * at the same times are one entry. A file that is on at the instant counts as seen from then on.
 */
export function nextShown(outcomes: readonly GroupForecast[], media: string, at: Instant): NextShown[] {
  const alike = new Map<string, NextShown>();
  for (const outcome of outcomes) {
    const found = nextIn(outcome, media, at);
    if (!found) continue;
    const key = `${found.from} ${found.to} ${found.source} ${found.id}`;
    alike.set(key, { ...found, screens: [...(alike.get(key)?.screens ?? []), ...outcome.screens] });
  }
  return [...alike.values()].sort((a, b) => a.from - b.from);
}

function nextIn(
  { program, place, segments }: GroupForecast,
  media: string,
  at: Instant,
): Omit<NextShown, 'screens'> | null {
  const holds = program.loops.map((loop) => loop.some((item) => item.media === media));
  const above = overlayItems(program).some((item) => item.media === media);
  for (const segment of segments) {
    if (segment.to <= at) continue;
    const loops = loopsIn(program, place, segment);
    if (!above && !loops.some(({ loop }) => [loop, ...zoneLoops(program, loop)].some((one) => holds[one]))) continue;
    const play = firstPlay(program, place, segment, media, Math.max(at, segment.from));
    if (play)
      return {
        ...{ from: play.from, to: play.to },
        ...(play.weave === null
          ? { source: segment.source, id: segment.id }
          : { source: 'booking' as const, id: play.weave }),
      };
  }
  return null;
}

/** The turn of a file that begins first. */
const firstOf = (media: string, plays: readonly Play[]): Play | undefined =>
  plays.reduce<Play | undefined>(
    (first, one) => (one.media === media && (!first || one.from < first.from) ? one : first),
    undefined,
  );

/** The first turn of a file in a segment: mostly within two passes, so that no more is looked through at first. */
function firstPlay(
  program: ScreenProgram,
  place: GroupForecast['place'],
  segment: Segment,
  media: string,
  from: Instant,
): Play | undefined {
  const pass = (program.loops[segment.loop] ?? []).reduce((sum, { durationMs }) => sum + durationMs, 0);
  let span = Math.max(2 * pass, 1);
  for (let begin = from; begin < segment.to;) {
    const end = Math.min(segment.to, begin + span);
    const found = firstOf(media, drawnPlays(program, place, { ...segment, from: begin, to: end }));
    // A turn may go on past the end of the forecast: its true end is given.
    if (found && found.to === end && end < segment.to) {
      const on = { ...segment, from: found.from, to: Math.min(segment.to, end + span) };
      return firstOf(media, drawnPlays(program, place, on)) ?? found;
    }
    if (found) return found;
    begin = end;
    span *= 2;
  }
  return undefined;
}
