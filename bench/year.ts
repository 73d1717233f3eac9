import { FORMAT } from '@/core/plan';
import { rows } from '@/database';
import { clearEditions, docket, editions } from '@/services/editions';
import { cleanUp } from '@/services/library';
import type { Actor } from '@/services/people';
import { print, timed } from './figure';
import { bindAgain, withLargeNetwork } from './instance';

/** A tenth of the screens is generated, and what grows with screens is counted ten times. */
const SCREENS = 500;
const OF_SCREENS = 5000;
const DAYS = 365;
const A_DAY = { edits: 200, publications: 10, asides: 60 };
/** So long what was made by hand is kept. */
const ASIDE_DAYS = 14;
/** So many editions are written at a time. */
const PORTION = 500;

/** What a busy network leaves behind in a year: editions as many as are kept, with their screens, and the changes of the plan. */
async function generateYear({ networkId }: Actor): Promise<void> {
  await rows(
    `INSERT INTO editions (id, network_id, number, published_at, last_change, whole, aside, plan, format)
     SELECT gen_random_uuid(), $1, 1 + row_number() OVER (ORDER BY made.at), made.at, e.last_change, true, made.aside, e.plan, e.format
     FROM (SELECT now() - i * interval '1 day' / $2::int AS at, false AS aside FROM generate_series(1, $2::int * $4::int) AS i
       UNION ALL SELECT now() - i * interval '1 day' / $3::int, true FROM generate_series(1, $3::int * $5::int) AS i) AS made,
       (SELECT * FROM editions WHERE network_id = $1 AND number = 1) AS e`,
    [networkId, A_DAY.publications, A_DAY.asides, DAYS, ASIDE_DAYS],
  );
  // In portions: no statement of ours may take longer than a minute.
  const all = 1 + A_DAY.publications * DAYS + A_DAY.asides * ASIDE_DAYS;
  for (let from = 2; from <= all; from += PORTION)
    await rows(
      `INSERT INTO edition_screens (edition_id, screen, hash, delivered, reached_at)
       SELECT e.id, s.screen, s.hash, s.delivered, e.published_at FROM editions e,
         (SELECT s.* FROM edition_screens s JOIN editions f ON f.id = s.edition_id WHERE f.network_id = $1 AND f.number = 1) AS s
       WHERE e.network_id = $1 AND e.number BETWEEN $2 AND $3`,
      [networkId, from, Math.min(all, from + PORTION - 1)],
    );
  await rows(
    `INSERT INTO changes (network_id, at, kind, object, before, after, format)
     SELECT $1, now() - i * interval '1 day' / $2::int, o.kind, o.slug, o.document, o.document, $3
     FROM generate_series(1, $2::int * $4::int) AS i
     JOIN (SELECT *, row_number() OVER (ORDER BY id) - 1 AS place FROM plan_objects WHERE network_id = $1 AND kind = 'booking') AS o
       ON o.place = i % 500`,
    [networkId, A_DAY.edits, FORMAT, DAYS],
  );
}

const gigabytes = async (table: string) => {
  const [found] = await rows<{ size: string }>('SELECT pg_total_relation_size($1::regclass) AS size', [table]);
  return Number(found?.size ?? 0) / 1e9;
};

/** What is asked most, in seconds each. */
const asked = async (actor: Actor) => ({
  'list of editions': await timed(() => editions(actor)),
  docket: await timed(() => docket(actor)),
  'clean-up of editions': await timed(() => clearEditions(new Date())),
  'clean-up of files': await timed(() => cleanUp(new Date())),
});

/** How large a busy network's database is after a year, and whether what is asked most takes longer then. */
export async function yearBench(): Promise<void> {
  await withLargeNetwork(SCREENS, async (_page, _browser, _url, actor) => {
    bindAgain();
    await asked(actor);
    const fresh = await asked(actor);
    await generateYear(actor);
    // A year comes slowly: the database has seen its tables grow.
    await rows('ANALYZE');
    const factor = OF_SCREENS / SCREENS;
    const screens = (await gigabytes('edition_screens')) * factor;
    const plans = (await gigabytes('editions')) * factor;
    const changes = await gigabytes('changes');
    const value = screens + plans + changes;
    print({
      ...{ bench: 'year/database-5000-screens', value, unit: 'GB' },
      reference: { what: 'the plans of its editions alone', value: plans },
      ...{ goal: 'value < 20', met: value < 20 },
    });
    await asked(actor);
    for (const [what, seconds] of Object.entries(await asked(actor))) {
      const before = fresh[what as keyof typeof fresh];
      print({
        ...{ bench: `year/${what.replaceAll(' ', '-')}`, value: seconds, unit: 's' },
        reference: { what: 'the same before the year', value: before },
        ...{ goal: 'value < 1', met: seconds < 1 },
      });
    }
  });
}
