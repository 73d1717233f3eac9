import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { rows } from '@/database';
import { publishedPlan } from '@/services/editions';
import { draftPlan } from '@/services/plan';
import { screenStatuses } from '@/services/screens';
import { storedPath } from '@/services/library';
import type { Loaded } from './network';

/** What of a network is not as it was confirmed: a sentence each. `settled` first: what was begun is done. */
export async function audited({ actor, mark, confirmed }: Loaded): Promise<string[]> {
  const { plan } = await draftPlan(actor);
  const wrong: string[] = [];
  const found = new Set(plan.screens.map((one) => one.id));
  for (const id of confirmed.screens) if (!found.has(id)) wrong.push(`the screen ${id} was confirmed and is not there`);
  for (const [id, { last, tried }] of confirmed.names) {
    const now = plan.playlists.find((one) => one.id === id)?.name ?? '';
    if (last !== '' && now !== last && !tried.includes(now))
      wrong.push(`${id} is called "${now}", confirmed was "${last}"`);
  }
  const foreign = [...plan.screens, ...plan.bookings, ...plan.playlists, ...plan.media].filter(
    (one) => !one.name.startsWith(mark),
  );
  if (foreign.length > 0) wrong.push(`${foreign.length} things are another network's: ${foreign[0]?.name}`);

  const editions = await rows<{ number: number; screens: number; whole: number }>(
    `SELECT e.number, jsonb_array_length(e.plan->'screens') AS screens,
       (SELECT count(*)::int FROM edition_screens s JOIN programs p ON p.hash = s.hash WHERE s.edition_id = e.id) AS whole
     FROM editions e WHERE e.network_id = $1 AND e.number IS NOT NULL ORDER BY e.number`,
    [actor.networkId],
  );
  editions.forEach(({ number, screens, whole }, i) => {
    if (number !== i + 1) wrong.push(`edition ${i + 1} is missing`);
    if (screens !== whole) wrong.push(`edition ${number} has ${whole} programs for ${screens} screens`);
  });
  for (const number of confirmed.editions)
    if (!editions.some((one) => one.number === number)) wrong.push(`edition ${number} was confirmed and is not there`);

  const noted = await rows<{ note: string; count: number }>(
    'SELECT note, count(*)::int AS count FROM editions WHERE network_id = $1 AND note IS NOT NULL GROUP BY note',
    [actor.networkId],
  );
  const times = new Map(noted.map(({ note, count }) => [note, count]));
  for (const note of confirmed.notes)
    if (times.get(note) !== 1) wrong.push(`"${note}" was confirmed, and is there ${times.get(note) ?? 0} times`);
  const out = await publishedPlan(actor);
  const [drafted, shown] = [plan, out?.plan].map((one) => one?.bookings.find(({ id }) => id === 'gale'));
  if (confirmed.fired !== null && drafted && confirmed.fired === (drafted.onHold ?? false))
    wrong.push(`the takeover was ${confirmed.fired ? 'fired' : 'cleared'}, and is not by the plan`);
  if (confirmed.fired !== null && drafted && shown && drafted.onHold !== shown.onHold)
    wrong.push('the takeover is otherwise in the plan than on the screens');
  const [past] = await rows('SELECT 1 FROM editions WHERE network_id = $1 AND number IS NULL AND planned_for < now()', [
    actor.networkId,
  ]);
  if (past) wrong.push('an edition that is due was not published');

  const media = new Map(plan.media.map((one) => [one.name, one]));
  for (const [name, sha256] of confirmed.uploads) {
    if (!media.get(name)) wrong.push(`the file ${name} was confirmed and is not in the library`);
    else if (!(await isStored(sha256))) wrong.push(`the bytes of ${name} are not as they were sent`);
  }
  for (const { name, sha256 } of plan.media)
    if (!sha256 || !(await isStored(sha256))) wrong.push(`the file ${name} is in the library without its bytes`);
  return wrong;
}

async function isStored(sha256: string): Promise<boolean> {
  const bytes = await readFile(storedPath(sha256)).catch(() => null);
  return bytes !== null && createHash('sha256').update(bytes).digest('hex') === sha256;
}

/** What is still under way in a network: uploads that wait, screens with a player that are not lit. */
export async function unsettled({ actor, mark, players }: Loaded): Promise<string[]> {
  const [waiting] = await rows<{ count: number }>(
    "SELECT count(*)::int AS count FROM uploads WHERE network_id = $1 AND state IN ('waiting', 'working')",
    [actor.networkId],
  );
  const own = new Set(players.map((_, i) => `${mark}-${i}`));
  const dark = (await screenStatuses(actor)).filter(
    (one) => own.has(one.id) && one.state !== 'lit' && one.state !== 'resting',
  );
  return [
    ...(waiting?.count ? [`${waiting.count} uploads wait`] : []),
    ...dark.map(({ id, state, troubles }) => `${id} is ${state} ${troubles.join(' ')}`),
  ];
}
