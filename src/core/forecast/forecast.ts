import { formatInstant, type Instant } from '../instant';
import { drawnOnly } from '../plan/contents';
import { overlays, type OverlayTime } from './drawn';
import { segmentPlays, zonePlays, type WholePlay, type ZonePlays } from './plays';
import { placeOf, type ScreenProgram } from './program';
import { segments, type Segment } from './segments';

export interface Forecast {
  readonly segments: readonly Segment[];
  readonly plays: readonly WholePlay[];
  /** What is drawn above it, where the program has overlays. */
  readonly overlays?: readonly OverlayTime[] | undefined;
}

export interface ForecastOptions {
  /** Also compute every item's time on screen. */
  readonly plays?: boolean;
  /** Without what zones show, where that isn't asked. */
  readonly zones?: false;
}

/** What a screen shows in `[from, to)`: a pure function of its program and the time, the same on server and player. */
export function forecast(program: ScreenProgram, from: Instant, to: Instant, options: ForecastOptions = {}): Forecast {
  const place = placeOf(program);
  const found = segments(program, place, from, to);
  const over = program.overlays ? { overlays: overlays(program, place, found) } : {};
  if (!options.plays) return { segments: found, plays: [], ...over };
  const plays = found.flatMap((segment) =>
    segmentPlays(program, place, segment).map((play): WholePlay => {
      const zones = options.zones === false ? undefined : zonePlays(program, place, segment, play);
      return zones ? { ...play, zones } : play;
    }),
  );
  return { segments: found, plays, ...over };
}

/** The segment and play at one instant; `play` is null where nothing plays. */
export function forecastAt(program: ScreenProgram, instant: Instant): { segment: Segment; play: WholePlay | null } {
  const { segments: found, plays } = forecast(program, instant, instant + 1, { plays: true });
  return { segment: found[0] as Segment, play: plays[0] ?? null };
}

/** A forecast as the command line prints it (domain section 8). */
export function forecastDocument(screen: string, result: Forecast, plays: boolean) {
  return {
    screen,
    segments: result.segments.map(({ from, to, source, id, since }) => ({
      from: formatInstant(from),
      to: formatInstant(to),
      source,
      id,
      since: since === null ? null : formatInstant(since),
    })),
    ...(plays
      ? {
          plays: result.plays.map(playDocument),
        }
      : {}),
    ...(result.overlays
      ? {
          overlays: result.overlays.map(({ from, to, id, since, layout, zones }) => ({
            ...{ from: formatInstant(from), to: formatInstant(to), id, since: formatInstant(since), layout },
            ...(plays ? { zones: zones.map(zoneDocument) } : {}),
          })),
        }
      : {}),
  };
}

function playDocument(play: WholePlay): object {
  const { from, to, weave, zones } = play;
  return {
    ...{ from: formatInstant(from), to: formatInstant(to), ...drawnOnly(play) },
    ...(weave === null ? {} : { weave }),
    ...(zones ? { zones: zones.map(zoneDocument) } : {}),
  };
}

const zoneDocument = ({ zone, plays }: ZonePlays): object => ({ zone, plays: plays.map(playDocument) });
