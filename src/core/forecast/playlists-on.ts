import type { Instant } from '../instant';
import type { Plan } from '../plan/schema';
import { forecastAt } from './forecast';
import { programsOf } from './glance';

/** A playlist that plays at an instant, and on which of the screens that were asked about. */
export interface PlaylistOn {
  readonly playlist: string;
  readonly screens: readonly string[];
}

/**
 * The playlists that play on some screens at an instant, those on most screens first: of each screen the one that what wins there names
 * itself. Screens on which a single file plays, or nothing, are in none.
 */
export function playlistsOn(plan: Plan, screens: readonly string[], at: Instant): PlaylistOn[] {
  const programs = programsOf(plan);
  const playing = new Map<object, string | undefined>();
  const found = new Map<string, string[]>();
  for (const screen of screens) {
    const program = programs.get(screen);
    if (!program) continue;
    // Screens of one program play the same.
    if (!playing.has(program)) {
      const { segment } = forecastAt(program, at);
      playing.set(program, program.loops[segment.loop]?.[0]?.through?.[0]);
    }
    const playlist = playing.get(program);
    if (playlist !== undefined) found.set(playlist, [...(found.get(playlist) ?? []), screen]);
  }
  return [...found]
    .map(([playlist, on]) => ({ playlist, screens: on }))
    .sort((a, b) => b.screens.length - a.screens.length || (a.playlist < b.playlist ? -1 : 1));
}
