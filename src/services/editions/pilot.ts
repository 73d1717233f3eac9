import type { Transaction } from 'sequelize';
import { MINUTE, type Instant } from '@/core/instant';
import type { Plan } from '@/core/plan';
import { Refusal, orThrow } from '@/core/refusal';
import { parseSelector, screensMatching } from '@/core/selector';
import { EditionRow, publish, rows, type PilotColumn } from '@/database';
import type { Actor } from '../people';
import { inTurn, takeTurn } from '../plan';
import { programsOf } from './frozen';
import { type Publishing } from './publish';
import { beginDue, plannedWithin } from './planned-plans';
import { readReach } from './reach';
import { freezeNext, giveNumber, type Next } from './waiting';

/**
 * Pilots: an edition that some screens receive first. The others keep what they have, new ones too, until a person says so, or all pilots
 * have been lit with it for some minutes without an error. An error on a pilot screen stops it. A person then decides whether to continue.
 */

export interface Piloting {
  /** The screens that receive it first: a selector. */
  readonly where: string;
  /** After how many minutes of all of them lit the others receive it, 1 to 1440; null waits for a person. */
  readonly minutes: number | null;
  /** When the others receive it, if the minutes are over by then; null, or absent, for as soon as they are. Needs minutes. */
  readonly at?: Instant | null | undefined;
}

/**
 * Gives what waits, or a choice of it, to some screens. Throws 409 while another edition waits, 422 where these screens are none, have no
 * players, are not changed, or are all that are, and for a time that can't be.
 */
export async function pilotEdition(
  actor: Actor,
  basedOn: number,
  { where, minutes, at = null }: Piloting,
  how: Publishing = {},
  now = Date.now(),
): Promise<{ id: string; screens: number }> {
  return freezeNext(actor, basedOn, how, now, async (next, within) => {
    if (next.waiting.length > 0)
      throw new Refusal(409, 'Another edition is waiting already. Publish or cancel it first, then start a pilot.');
    const screens = await pilotsOf(next, where, within);
    const begun = new Date(now).toISOString();
    const time = at === null ? null : readTime(at, minutes, next.plan, now);
    return {
      columns: { pilot: { where, begun, given: begun, minutes, at: time, litSince: null, stopped: null } },
      reach: new Map(screens.map((screen) => [screen, now])),
      told: { screens: screens.length },
    };
  });
}

/** When the other screens get it. Throws 422 if too little time is left to try it, or if the minutes are missing. */
function readTime(at: Instant, minutes: number | null, plan: Plan, now: Instant): string {
  if (minutes === null) throw new Refusal(422, 'Say how many minutes its screens must be lit before this time.');
  const { last } = readReach(at, plan, now);
  if (last < now + minutes * MINUTE)
    throw new Refusal(422, `That is less than ${minutes} minutes from now. Choose a later time, or fewer minutes.`);
  return new Date(last).toISOString();
}

async function pilotsOf(
  { actor, plan, compiled, newest }: Next,
  where: string,
  within: Transaction,
): Promise<readonly string[]> {
  const meant = screensMatching(plan, orThrow(parseSelector(where))).map(({ id }) => id);
  if (meant.length === 0) throw new Refusal(422, 'No screen matches this. Choose the screens for the pilot.');
  const before = await programsOf(newest.id, within);
  const changed = [...compiled.screens].flatMap(([screen, hash]) => (before.get(screen) === hash ? [] : [screen]));
  const pilots = new Set(meant);
  const tried = changed.filter((screen) => pilots.has(screen));
  if (tried.length === 0)
    throw new Refusal(422, 'It changes nothing on these screens. Choose some that will look different.');
  if (tried.length === changed.length)
    throw new Refusal(422, 'These are all the screens that it changes. Publish it, or choose fewer screens.');
  const paired = await rows(
    `SELECT 1 FROM players p JOIN plan_objects s ON s.id = p.screen_id WHERE p.network_id = $1 AND s.slug = ANY($2) LIMIT 1`,
    [actor.networkId, tried],
    within,
  );
  if (paired.length === 0) throw new Refusal(422, 'None of these screens has a player. Choose some that can show it.');
  return meant;
}

/** A pilot that runs: an edition that some screens have. */
export interface RunningPilot {
  readonly id: string;
  readonly networkId: string;
  readonly pilot: PilotColumn;
  /** Whether its minutes are over and only its time is still to come. */
  readonly passed: boolean;
}

/** All pilots that run and were not stopped, of all networks. */
export const runningPilots = (): Promise<RunningPilot[]> =>
  rows<RunningPilot>(
    `SELECT id, network_id AS "networkId", pilot, planned_for IS NOT NULL AS passed FROM editions
     WHERE number IS NULL AND pilot IS NOT NULL AND pilot->>'stopped' IS NULL`,
  );

/** What comes of looking at a pilot's screens. */
export type Verdict =
  | { readonly kind: 'wait'; readonly litSince: string | null }
  /** The minutes are over, and its time is still to come: all players hear of that time, and switch by their own clocks. */
  | { readonly kind: 'pass'; readonly litSince: string }
  | { readonly kind: 'publish' }
  | { readonly kind: 'stop'; readonly why: string };

/**
 * Acts on a verdict, in turn. Returns whether it did: a pilot that was published, taken back or stopped in the meantime is left as it is, and
 * so is one whose time has come, since players have switched already.
 */
export async function settlePilot(
  { id, networkId }: RunningPilot,
  verdict: Verdict,
  now = Date.now(),
): Promise<boolean> {
  return inTurn(networkId, async (within) => {
    await takeTurn(networkId, within);
    await beginDue(networkId, new Date(now), within);
    const pilot = (await plannedWithin(networkId, within)).find((row) => row.id === id)?.row.pilot;
    if (!pilot || pilot.stopped) return false;
    if (verdict.kind === 'publish') await giveNumber(networkId, id, now, within);
    else await EditionRow.update(afterwards(pilot, verdict, now), { where: { id }, transaction: within });
    await publish({ kind: 'edition', network: networkId }, within);
    return true;
  });
}

/** What a verdict changes in the edition's row. A stopped pilot loses its time: players forget that the edition was coming. */
function afterwards(
  pilot: PilotColumn,
  verdict: Exclude<Verdict, { kind: 'publish' }>,
  now: Instant,
): Partial<Pick<EditionRow, 'pilot' | 'plannedFor'>> {
  if (verdict.kind === 'stop') {
    const stopped = { at: new Date(now).toISOString(), why: verdict.why };
    return { pilot: { ...pilot, litSince: null, stopped }, plannedFor: null };
  }
  const tried = { ...pilot, litSince: verdict.litSince };
  return verdict.kind === 'pass' && pilot.at ? { pilot: tried, plannedFor: new Date(pilot.at) } : { pilot: tried };
}
