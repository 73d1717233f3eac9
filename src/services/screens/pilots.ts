import { MINUTE } from '@/core/instant';
import { rows } from '@/database';
import { logger } from '@/log';
import { runningPilots, settlePilot } from '../editions';
import { verdictOf, type PilotScreen } from './pilot-verdict';
import { HEARD_WITHIN_MS } from './status';

/** So long after a server stood still its players have all come back. */
const BACK_WITHIN_MS = 2 * MINUTE;

/** Since when players of each network are heard without a gap, as far as this process knows. */
const heardSince = new Map<string, number>();

/**
 * Looks at all editions that are tried on some screens first: publishes those whose time of trial is over, stops those that failed. How
 * many of either. A worker asks for it every second.
 */
export async function watchPilots(now = Date.now()): Promise<number> {
  let settled = 0;
  for (const running of await runningPilots()) {
    const heard = await isHeard(running.networkId, now);
    const verdict = verdictOf({ ...running.pilot, passed: running.passed }, await pilotScreens(running.id), heard, now);
    if (verdict.kind === 'wait' && verdict.litSince === running.pilot.litSince) continue;
    const isDone = await settlePilot(running, verdict, now);
    if (!isDone || verdict.kind === 'wait') continue;
    settled++;
    logger.info({ network: running.networkId, ...verdict }, 'what was tried on some screens is decided');
  }
  return settled;
}

/** Whether players of a network have been heard for so long that one that is not is gone: any of them speaks for the server. */
async function isHeard(networkId: string, now: number): Promise<boolean> {
  const [newest] = await rows<{ at: Date | null }>('SELECT max(last_seen) AS at FROM players WHERE network_id = $1', [
    networkId,
  ]);
  if (!newest?.at || now - newest.at.getTime() > HEARD_WITHIN_MS) heardSince.delete(networkId);
  else heardSince.set(networkId, Math.min(heardSince.get(networkId) ?? now, now));
  return now - (heardSince.get(networkId) ?? now) >= BACK_WITHIN_MS;
}

const pilotScreens = (edition: string): Promise<PilotScreen[]> =>
  rows<PilotScreen>(
    `SELECT s.screen AS id, o.name, coalesce(s.delivered, s.hash) AS target, s.reached_at AS "reachedAt",
       p.id AS player, p.last_seen AS "lastSeen", p.report
     FROM edition_screens s JOIN editions e ON e.id = s.edition_id
     JOIN plan_objects o ON o.network_id = e.network_id AND o.kind = 'screen' AND o.slug = s.screen
     LEFT JOIN screen_players p ON p.screen_id = o.id WHERE s.edition_id = $1 AND s.from_at IS NOT NULL ORDER BY o.name, s.screen`,
    [edition],
  );
