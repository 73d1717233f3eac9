import { rows, transaction } from '@/database';

/** So many of a network's newest editions are kept whatever their age, and every one that is younger than so many days. */
const KEPT = { newest: 200, days: 400 };

/**
 * Removes editions that nobody goes back to any more, and the programs that no edition holds: their files can then be cleaned up
 * too. What a screen plays by its network's newest edition is never touched. Returns how many of each were removed.
 */
export async function clearEditions(now: Date, kept = KEPT): Promise<{ editions: number; programs: number }> {
  const before = new Date(now.getTime() - kept.days * 86_400_000);
  return transaction(async (within) => {
    // A publication waits until this is done, or this until it is: no program goes that one is about to use.
    await rows('LOCK TABLE programs IN SHARE ROW EXCLUSIVE MODE', [], within);
    const editions = await rows(
      `DELETE FROM editions e USING (
         SELECT id, row_number() OVER (PARTITION BY network_id ORDER BY number DESC) AS place FROM editions) AS o
       WHERE o.id = e.id AND o.place > greatest($1::int, 1) AND e.published_at < $2 RETURNING e.id`,
      [kept.newest, before],
      within,
    );
    const programs = await rows(
      `DELETE FROM programs p WHERE NOT EXISTS (SELECT 1 FROM edition_screens s WHERE s.hash = p.hash)
         AND NOT EXISTS (SELECT 1 FROM edition_screens s WHERE s.delivered = p.hash) RETURNING p.hash`,
      [],
      within,
    );
    return { editions: editions.length, programs: programs.length };
  });
}
