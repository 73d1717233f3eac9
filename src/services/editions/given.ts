import { group } from 'd3-array';
import { rows } from '@/database';

/** What screens are given: by the newest edition, and by those that wait. Which of them a screen is on is decided here alone. */

/** An edition that gives screens something, or will. */
export interface GivingEdition {
  readonly id: string;
  /** Null while it waits. */
  readonly number: number | null;
  readonly plannedFor: Date | null;
  readonly publishedAt: Date;
}

/** What one edition gives a screen. */
export interface Given {
  readonly edition: GivingEdition;
  /** The screen's own instant, if it has one: a pilot gets the edition before the other screens do. */
  readonly own: Date | null;
  /** When this starts on the screen, in milliseconds. -Infinity: the edition is out. Infinity: a person has yet to decide. */
  readonly from: number;
  /** The program's hash as compiled; null if the edition doesn't have this screen. */
  readonly hash: string | null;
  /** The hash of the same program with smaller files, once these are made. */
  readonly delivered: string | null;
  /** Whether the screen's player was heard to play it. */
  readonly reached: boolean;
}

/** What the editions of one network give its screens. */
export interface NetworkGiven {
  readonly newest: GivingEdition | null;
  /** The ids of all screens that any of these editions has, among those asked for. */
  readonly screens: readonly string[];
  /** What a screen is given, in the order in which it starts: the newest edition first, then those that wait. */
  of(screen: string): Given[];
}

/** What a screen is on at an instant; undefined before the first publication. An edition that is due counts, even before it has a number. */
export const givenAt = (given: readonly Given[], now: number): Given | undefined =>
  given.findLast(({ from }) => from <= now);

/** The program that a player gets: with smaller files, if there are any. */
export const programOf = ({ hash, delivered }: Given): string | null => delivered ?? hash;

/** What the newest edition and all waiting ones give, by network. Only some screens are read if their ids are given. */
export async function givenIn(
  networks: readonly string[],
  screens: readonly string[] | null = null,
): Promise<Map<string, NetworkGiven>> {
  // Each edition's screens are looked up apart (LATERAL): otherwise PostgreSQL guesses how many rows a join has, and a wrong guess
  // reads the screens of every edition there ever was.
  const found = await rows<GivingEdition & Row>(
    `SELECT e.network_id AS network, e.id, e.number, e.planned_for AS "plannedFor", e.published_at AS "publishedAt", s.*
     FROM unnest($1::uuid[]) AS n(id)
     JOIN editions e ON e.network_id = n.id
       AND (e.number IS NULL OR e.number = (SELECT max(number) FROM editions l WHERE l.network_id = n.id))
     LEFT JOIN LATERAL (
       SELECT screen, hash, delivered, from_at AS own, reached_at IS NOT NULL AS reached FROM edition_screens
       WHERE edition_id = e.id AND ($2::text[] IS NULL OR screen = ANY($2)) OFFSET 0) s ON true
     ORDER BY e.number NULLS LAST, e.planned_for NULLS FIRST`,
    [networks, screens],
  );
  const byNetwork = group(found, ({ network }) => network);
  return new Map(networks.map((network) => [network, networkGiven(byNetwork.get(network) ?? [])]));
}

interface Row {
  readonly network: string;
  readonly screen: string | null;
  readonly hash: string;
  readonly delivered: string | null;
  readonly own: Date | null;
  readonly reached: boolean;
}

function networkGiven(found: readonly (GivingEdition & Row)[]): NetworkGiven {
  const editions = [...group(found, ({ id }) => id).values()].flatMap(([first, ...others]) => {
    if (!first) return [];
    const { id, number, plannedFor, publishedAt } = first;
    const byScreen = [first, ...others].flatMap((row) => (row.screen === null ? [] : [[row.screen, row] as const]));
    return [{ edition: { id, number, plannedFor, publishedAt }, rows: new Map(byScreen) }];
  });
  return {
    newest: editions.find(({ edition }) => edition.number !== null)?.edition ?? null,
    screens: [...new Set(editions.flatMap((one) => [...one.rows.keys()]))],
    of: (screen) =>
      editions.map(({ edition, rows: byScreen }) => {
        const row = byScreen.get(screen);
        const own = row?.own ?? null;
        const from = edition.number === null ? ((own ?? edition.plannedFor)?.getTime() ?? Infinity) : -Infinity;
        return {
          ...{ edition, own, from },
          ...{ hash: row?.hash ?? null, delivered: row?.delivered ?? null, reached: row?.reached ?? false },
        };
      }),
  };
}

/** What each screen of a network gets by now: program hashes by screen id; empty before the first publication. */
export async function deliveredPrograms(networkId: string, now = Date.now()): Promise<Map<string, string>> {
  const programs = new Map<string, string>();
  const given = (await givenIn([networkId])).get(networkId);
  if (!given) return programs;
  for (const screen of given.screens) {
    const on = givenAt(given.of(screen), now);
    const program = on ? programOf(on) : null;
    if (program) programs.set(screen, program);
  }
  return programs;
}
