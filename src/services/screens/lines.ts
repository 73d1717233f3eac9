import type { Told } from '@/core/profiles';
import { rows } from '@/database';
import type { Actor } from '../people';

/** What a screen's player told of its line, its storage and what it can play last. */
export interface Line {
  readonly id: string;
  /** How fast its last file came; null before one did. */
  readonly bytesPerSecond: number | null;
  /** How many bytes more it can keep; null where it does not tell. */
  readonly freeBytes: number | null;
  /** The kinds of files that it can play; null where it doesn’t tell. */
  readonly kinds: NonNullable<Told['kinds']> | null;
  /** The video codecs that it can play; null where it doesn’t tell. */
  readonly codecs: readonly string[] | null;
}

/** The lines of the actor's screens that have a player which was heard, in order of their ids. */
export async function screenLines({ networkId }: Actor): Promise<Line[]> {
  return rows<Line>(
    `SELECT s.slug AS id, (p.report->>'bytesPerSecond')::float8 AS "bytesPerSecond",
       (p.report->'storage'->>'limitBytes')::float8 - (p.report->'storage'->>'usedBytes')::float8 AS "freeBytes",
       p.report->'kinds' AS kinds, p.report->'codecs' AS codecs
     FROM screen_players p JOIN plan_objects s ON s.id = p.screen_id
     WHERE p.network_id = $1 AND p.report IS NOT NULL ORDER BY s.slug`,
    [networkId],
  );
}
