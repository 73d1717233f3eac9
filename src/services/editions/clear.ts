import { z } from 'zod';
import { rows, transaction } from '@/database';
import { notFound } from '../errors';
import { readInput, type Actor } from '../people';

/** How long a network keeps what one can go back to: editions, and versions of files that were replaced. */
export interface Kept {
  /** So many of the newest editions, whatever their age. */
  readonly editions: number;
  /** And all that are younger than so many days. */
  readonly days: number;
}

const keptSchema = z.object({
  editions: z
    .int('Write a whole number of editions.')
    .min(1, 'At least the newest edition is kept: the players run it.')
    .max(10_000, 'At most 10 000 editions are kept.'),
  days: z.int('Write a whole number of days.').min(1, 'At least a day.').max(4000, 'At most 4000 days.'),
});

export async function kept({ networkId }: Actor): Promise<Kept> {
  const [found] = await rows<Kept>('SELECT kept_editions AS editions, kept_days AS days FROM networks WHERE id = $1', [
    networkId,
  ]);
  if (!found) throw notFound('network');
  return found;
}

/** Sets it; what is older goes with the next clean-up. Throws 422 with a sentence for what can't be. */
export async function keep(actor: Actor, input: Partial<Kept>): Promise<Kept> {
  const { editions, days } = readInput(keptSchema.partial(), input);
  await rows(
    'UPDATE networks SET kept_editions = coalesce($2, kept_editions), kept_days = coalesce($3, kept_days) WHERE id = $1',
    [actor.networkId, editions ?? null, days ?? null],
  );
  return kept(actor);
}

/**
 * Removes editions that nobody goes back to any more, and the programs that no edition holds: their files can then be cleaned up
 * too. What a screen plays by its network's newest edition is never touched. Returns how many of each were removed.
 */
export async function clearEditions(now: Date): Promise<{ editions: number; programs: number }> {
  return transaction(async (within) => {
    // A publication waits until this is done, or this until it is: no program goes that one is about to use.
    await rows('LOCK TABLE programs IN SHARE ROW EXCLUSIVE MODE', [], within);
    const editions = await rows(
      `DELETE FROM editions e USING (
         SELECT id, row_number() OVER (PARTITION BY network_id ORDER BY number DESC) AS place FROM editions
         WHERE number IS NOT NULL) AS o, networks n
       WHERE o.id = e.id AND n.id = e.network_id AND o.place > n.kept_editions
         AND e.published_at < $1::timestamptz - n.kept_days * interval '1 day' RETURNING e.id`,
      [now],
      within,
    );
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
