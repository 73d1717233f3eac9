import type { Verdict } from '@/core/glimpses';
import { rows } from '@/database';
import { notFound } from '../errors';
import type { Actor } from '../people';

/** A picture of what a screen showed. */
export interface Glimpse {
  readonly id: string;
  readonly screen: string;
  /** Which display of a wall it is of; 1 where the screen isn't a wall. */
  readonly part: number;
  readonly takenAt: string;
  /** How it compares with the forecast of the same instant; null while that is worked out, and if it can't be. */
  readonly verdict: Verdict | null;
  /** In which fields of 8 × 8 it differs from what was planned, row by row from 0; null where it doesn't. */
  readonly different: readonly number[] | null;
  /** Whether there is a picture of what was planned beside it. */
  readonly hasPlanned: boolean;
}

/** Pictures of screens that are private by now are left out, whoever asks. */
const VISIBLE = `EXISTS (SELECT 1 FROM plan_objects o WHERE o.network_id = g.network_id AND o.kind = 'screen' AND o.slug = g.screen
  AND NOT COALESCE((o.document->>'private')::boolean, false))`;
const COLUMNS = `g.id, g.screen, g.part, g.taken_at AS "takenAt", g.verdict, g.different, g.expected IS NOT NULL AS "hasPlanned"`;

type Row = Omit<Glimpse, 'takenAt'> & { readonly takenAt: Date };
const told = ({ takenAt, ...row }: Row): Glimpse => ({ ...row, takenAt: takenAt.toISOString() });

/** The newest picture of each of these screens that has one: of a wall, of each of its displays. */
export async function newestGlimpses({ networkId }: Actor, screens: readonly string[]): Promise<Glimpse[]> {
  const found = await rows<Row>(
    `SELECT ${COLUMNS} FROM plan_objects s
     CROSS JOIN LATERAL generate_series(1, COALESCE((s.document->'wall'->>'rows')::int * (s.document->'wall'->>'columns')::int, 1)) AS part
     CROSS JOIN LATERAL (
       SELECT * FROM glimpses WHERE network_id = $1 AND screen = s.slug AND part = part.part ORDER BY taken_at DESC LIMIT 1) g
     WHERE s.network_id = $1 AND s.kind = 'screen' AND s.slug = ANY($2) AND ${VISIBLE} ORDER BY s.slug, g.part`,
    [networkId, screens],
  );
  return found.map(told);
}

/** The pictures that are kept of a screen, the newest first. */
export async function glimpsesOfScreen({ networkId }: Actor, screen: string): Promise<Glimpse[]> {
  const found = await rows<Row>(
    `SELECT ${COLUMNS} FROM glimpses g WHERE network_id = $1 AND screen = $2 AND ${VISIBLE} ORDER BY taken_at DESC`,
    [networkId, screen],
  );
  return found.map(told);
}

/** The bytes of a picture as it was seen, or as it was planned: JPEG. Throws 404 for none. */
export async function glimpsePicture(
  { networkId }: Actor,
  id: string,
  which: 'seen' | 'planned' = 'seen',
): Promise<Uint8Array<ArrayBuffer>> {
  const [found] = await rows<{ picture: Buffer | null }>(
    `SELECT ${which === 'seen' ? 'picture' : 'expected'} AS picture FROM glimpses g WHERE network_id = $1 AND id = $2 AND ${VISIBLE}`,
    [networkId, id],
  );
  if (!found?.picture) throw notFound('picture');
  return Uint8Array.from(found.picture);
}

/** Deletes pictures that are old, and those of screens that are private or gone. Returns how many. */
export async function clearGlimpses(now: Date): Promise<number> {
  await rows('DELETE FROM glimpse_watches WHERE until < $1', [now]);
  const gone = await rows(
    `DELETE FROM glimpses g USING networks n WHERE n.id = g.network_id
       AND (g.taken_at < $1::timestamptz - n.kept_picture_days * interval '1 day' OR NOT ${VISIBLE}) RETURNING g.id`,
    [now],
  );
  return gone.length;
}
