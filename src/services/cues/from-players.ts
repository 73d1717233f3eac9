import { cueEffect, reachedBy } from '@/core/forecast';
import { DAY, SECOND } from '@/core/instant';
import { LATE_MS, objectIn, type Cue, type Plan, type Screen } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { transaction } from '@/database';
import { logger } from '@/log';
import { newestPlan } from '../editions';
import { write, type Hand } from './fire';
import { limitPresses } from './floods';

/** What is pressed at a screen: a key of its remote control, or a zone that is touched. */

/** A press as its player tells it. Instants by the server's clock, as the player knows it. */
export interface Pressed {
  /** Made by the player, so that a press that comes twice is one. */
  readonly id: string;
  readonly cue: string;
  readonly at: number;
  readonly end?: boolean | undefined;
  /** The zone that was touched; absent for a key. */
  readonly touched?: { readonly layout: string; readonly zone: string } | undefined;
}

/** Whose presses they are. */
interface Place {
  readonly id: string;
  readonly networkId: string;
  readonly screen: { readonly id: string; readonly name: string };
}

/** A player's clock may be ahead of ours by this much. */
const AHEAD_MS = 2 * SECOND;

/**
 * Writes down what was pressed at a player's screen: a key fires on that screen alone, a touch where its zone says. One that comes too
 * late for other screens counts on its own, where it was seen at once. What the plan doesn't know is passed over: the player has another
 * plan, or isn't honest.
 */
export async function noteFirings(player: Place, presses: readonly Pressed[], now = Date.now()): Promise<void> {
  const plan = await newestPlan(player.networkId);
  if (!plan) return;
  for (const one of presses) {
    const cue = objectIn(plan, 'cue', one.cue);
    const screen = objectIn(plan, 'screen', player.screen.id);
    const reach = cue && screen && reachOf(plan, screen, cue, one);
    if (!cue || !reach || one.at < now - DAY) {
      logger.info({ screen: player.screen.id, cue: one.cue }, 'a press at a screen was passed over');
      continue;
    }
    const how = one.touched ? 'touch' : 'key';
    const hand = {
      networkId: player.networkId,
      key: `${how} ${player.screen.id}`,
      said: `${player.screen.name}, by ${how}`,
      personId: null,
    };
    try {
      await limitPresses(hand, cue.id);
      await writePress(plan, hand, cue, one, { own: player.screen.id, where: reach.where, now });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
    }
  }
}

/** Where a press fires: null if the plan knows of no such key or zone. */
function reachOf(
  plan: Plan,
  { id, keysOff }: Screen,
  cue: Cue,
  { touched }: Pressed,
): { readonly where?: string } | null {
  if (!touched) return cue.key === undefined || keysOff ? null : { where: `screen:${id}` };
  const zone = objectIn(plan, 'layout', touched.layout)?.zones.find(({ id }) => id === touched.zone);
  return zone?.touch?.cue === cue.id
    ? { ...(zone.touch.where === undefined ? {} : { where: zone.touch.where }) }
    : null;
}

async function writePress(
  plan: Plan,
  hand: Hand,
  cue: Cue,
  { id, at: told, end = false }: Pressed,
  { own, where: wanted, now }: { own: string; where: string | undefined; now: number },
): Promise<void> {
  const at = Math.round(Math.min(told, now + AHEAD_MS));
  const isLate = now - at > (cue.lateMs ?? LATE_MS);
  const where = isLate ? `screen:${own}` : wanted;
  const screens = reachedBy(plan, cue.id, where);
  if (screens.length === 0) return;
  const firing = { cue: cue.id, at: new Date(at).toISOString(), ...(where === undefined ? {} : { where }) };
  const until = end ? at + DAY : cueEffect(plan, cue.id, screens, [firing], at).until;
  // Nothing to show: then nothing was seen.
  if (until === null) return;
  await transaction((within) =>
    write({ hand, cue, at, until, end, where: where ?? null, screens, idempotencyKey: `${hand.key} ${id}` }, within),
  );
}
