import { publish, rows } from '@/database';
import { KnownByNetwork } from '../known-by-network';
import { demand, type Actor } from '../people';

/** Which screens a person is looking at: their players take a picture every few seconds, while the page is open. */

/** Someone who looks says so again within this time. */
const WATCHED_FOR_MS = 60_000;
/** So many ids have room in one message. */
const AT_ONCE = 150;

const known = new KnownByNetwork(watchedIn, 'commands');

/** Has pictures taken of these screens for the next minute. Private screens are left out. */
export async function watchScreens(actor: Actor, screens: readonly string[], now = Date.now()): Promise<void> {
  demand(actor, 'operate');
  const { networkId } = actor;
  // Those that were not watched yet: the others know already.
  const begun = await rows<{ player: string }>(
    `WITH wanted AS (
       SELECT o.slug AS screen, p.id AS player FROM plan_objects o JOIN players p ON p.screen_id = o.id
       WHERE o.network_id = $1 AND o.kind = 'screen' AND o.slug = ANY($2) AND NOT COALESCE((o.document->>'private')::boolean, false)),
     before AS (SELECT screen FROM glimpse_watches WHERE network_id = $1 AND until > $3),
     written AS (
       INSERT INTO glimpse_watches (network_id, screen, until) SELECT DISTINCT $1::uuid, screen, $4::timestamptz FROM wanted
       ON CONFLICT (network_id, screen) DO UPDATE SET until = excluded.until)
     SELECT player FROM wanted WHERE screen NOT IN (SELECT screen FROM before)`,
    [networkId, screens, new Date(now), new Date(now + WATCHED_FOR_MS)],
  );
  const players = begun.map(({ player }) => player);
  for (let at = 0; at < players.length; at += AT_ONCE)
    await publish({ kind: 'commands', network: networkId, players: players.slice(at, at + AT_ONCE) });
}

/** Whether a player's screen is being looked at. */
export async function isWatched(
  { networkId, screen }: { readonly networkId: string; readonly screen: { readonly id: string } },
  now = Date.now(),
): Promise<boolean> {
  return ((await known.of(networkId)).get(screen.id) ?? 0) > now;
}

async function watchedIn(networkId: string): Promise<ReadonlyMap<string, number>> {
  const found = await rows<{ screen: string; until: Date }>(
    'SELECT screen, until FROM glimpse_watches WHERE network_id = $1 AND until > now()',
    [networkId],
  );
  return new Map(found.map(({ screen, until }) => [screen, until.getTime()]));
}
