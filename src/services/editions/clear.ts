import type { Transaction } from 'sequelize';
import * as z from 'zod';
import { rows, transaction } from '@/database';
import { notFound } from '../errors';
import { demand, readInput, type Actor } from '../people';
import { countArrivals } from './arrivals';

/** How long a network keeps what is over: editions and replaced versions of files, to return to, and pictures of its screens. */
export interface Kept {
  /** So many of the newest editions, whatever their age. */
  readonly editions: number;
  /** And all that are younger than so many days. */
  readonly days: number;
  /** So many of the newest pictures of each screen, */
  readonly pictures: number;
  /** and none that is older than so many days. */
  readonly pictureDays: number;
}

const keptSchema = z.object({
  editions: z
    .int('Write a whole number of editions.')
    .min(1, 'Keep at least 1 edition: the players run the newest.')
    .max(10_000, 'At most 10 000 editions are kept.'),
  days: z.int('Write a whole number of days.').min(1, 'At least a day.').max(4000, 'At most 4000 days.'),
  pictures: z
    .int('Write a whole number of pictures.')
    .min(1, 'At least 1 picture of each screen is kept.')
    .max(1000, 'At most 1000 pictures of each screen are kept.'),
  pictureDays: z.int('Write a whole number of days.').min(1, 'At least a day.').max(400, 'At most 400 days.'),
});

export async function kept({ networkId }: Actor): Promise<Kept> {
  const [found] = await rows<Kept>(
    `SELECT kept_editions AS editions, kept_days AS days, kept_pictures AS pictures, kept_picture_days AS "pictureDays"
     FROM networks WHERE id = $1`,
    [networkId],
  );
  if (!found) throw notFound('network');
  return found;
}

/** Sets it; what is older goes with the next clean-up. Throws 422 with a sentence for what can't be. */
export async function keep(actor: Actor, input: Partial<Kept>): Promise<Kept> {
  demand(actor, 'settings');
  const { editions, days, pictures, pictureDays } = readInput(keptSchema.partial(), input);
  await rows(
    `UPDATE networks SET kept_editions = coalesce($2, kept_editions), kept_days = coalesce($3, kept_days),
       kept_pictures = coalesce($4, kept_pictures), kept_picture_days = coalesce($5, kept_picture_days) WHERE id = $1`,
    [actor.networkId, editions ?? null, days ?? null, pictures ?? null, pictureDays ?? null],
  );
  return kept(actor);
}

/** Editions made by hand are kept for this many days only. They are not published again, and a busy network makes dozens a day. */
const ASIDE_DAYS = 14;

/**
 * Forgets what only matters as long as its editions are kept: changes of the plan that are all in a published edition, takeovers that are
 * over, and when editions were out that are gone. The newest change of each network stays: the next one is counted from it.
 */
async function clearTraces(now: Date, within: Transaction): Promise<void> {
  await rows(
    `DELETE FROM changes c USING networks n WHERE n.id = c.network_id
       AND c.at < $1::timestamptz - n.kept_days * interval '1 day'
       AND c.id <= (SELECT coalesce(max(last_change), 0) FROM editions e WHERE e.network_id = n.id AND e.number IS NOT NULL)
       AND c.id < (SELECT max(id) FROM changes l WHERE l.network_id = n.id)`,
    [now],
    within,
  );
  await rows(
    `DELETE FROM firings f USING networks n WHERE n.id = f.network_id
       AND f.fired_at < $1::timestamptz - n.kept_days * interval '1 day' AND (f.cleared_at IS NOT NULL OR f.until < $1)
       AND f.edition < (SELECT coalesce(min(number), 0) FROM editions e WHERE e.network_id = n.id AND e.number IS NOT NULL)`,
    [now],
    within,
  );
  await rows(
    `DELETE FROM cleared_editions c USING networks n WHERE n.id = c.network_id
       AND c.published_at < $1::timestamptz - n.kept_days * interval '1 day'`,
    [now],
    within,
  );
}

/**
 * Removes editions that are too old to return to, and the programs that no edition uses. Their files can then be cleaned up
 * too. What a screen plays by its network's newest edition is never touched. Returns how many of each were removed.
 */
export async function clearEditions(now: Date): Promise<{ editions: number; programs: number }> {
  // Before the ones go that they are counted against.
  await countArrivals(now);
  return transaction(async (within) => {
    // A publication waits for this, and this waits for a publication, so that no program is removed just before an edition uses it.
    await rows('LOCK TABLE programs IN SHARE ROW EXCLUSIVE MODE', [], within);
    const editions = await rows(
      `WITH gone AS (
         DELETE FROM editions e USING (
           SELECT id, row_number() OVER (PARTITION BY network_id ORDER BY number DESC) AS place FROM editions
           WHERE number IS NOT NULL) AS o, networks n
         WHERE o.id = e.id AND n.id = e.network_id AND o.place > 1 AND (
           e.aside AND e.published_at < $1::timestamptz - least(n.kept_days, ${ASIDE_DAYS}) * interval '1 day'
           OR o.place > n.kept_editions AND e.published_at < $1::timestamptz - n.kept_days * interval '1 day')
         RETURNING e.id, e.network_id, e.number, e.published_at, e.aside
       )
       , told AS (
         INSERT INTO cleared_editions SELECT network_id, number, published_at FROM gone WHERE aside ON CONFLICT DO NOTHING)
       SELECT id FROM gone`,
      [now],
      within,
    );
    await clearTraces(now, within);
    const programs = await rows(
      `DELETE FROM programs p WHERE NOT EXISTS (SELECT 1 FROM edition_screens s WHERE s.hash = p.hash)
         AND NOT EXISTS (SELECT 1 FROM edition_screens s WHERE s.delivered = p.hash) RETURNING p.hash`,
      [],
      within,
    );
    await rows(
      'DELETE FROM parts p WHERE NOT EXISTS (SELECT 1 FROM program_parts o WHERE o.part = p.hash)',
      [],
      within,
    );
    return { editions: editions.length, programs: programs.length };
  });
}
