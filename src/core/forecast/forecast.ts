import { formatInstant, type Instant } from '../instant';
import { segmentPlays, type Play } from './plays';
import { placeOf, type ScreenProgram } from './program';
import { segments, type Segment } from './segments';

export interface Forecast {
  readonly segments: readonly Segment[];
  readonly plays: readonly Play[];
}

export interface ForecastOptions {
  /** Also compute every item's time on screen. */
  readonly plays?: boolean;
}

/** What a screen shows in `[from, to)`: a pure function of its program and the time, the same on server and player. */
export function forecast(program: ScreenProgram, from: Instant, to: Instant, options: ForecastOptions = {}): Forecast {
  const place = placeOf(program);
  const found = segments(program, place, from, to);
  return { segments: found, plays: options.plays ? found.flatMap((one) => segmentPlays(program, place, one)) : [] };
}

/** The segment and play at one instant; `play` is null where nothing plays. */
export function forecastAt(program: ScreenProgram, instant: Instant): { segment: Segment; play: Play | null } {
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
          plays: result.plays.map(({ from, to, media, weave }) => ({
            from: formatInstant(from),
            to: formatInstant(to),
            media,
            ...(weave === null ? {} : { weave }),
          })),
        }
      : {}),
  };
}
