import type { Transaction } from 'sequelize';
import { programMaker } from '@/core/forecast';
import type { Instant } from '@/core/instant';
import { samePlan, sharing, type Plan } from '@/core/plan';
import { Refusal, orThrow } from '@/core/refusal';
import type { Actor } from '../people';
import { lastChange } from '../plan';
import { compile } from './compile';
import { baseOf } from './freeze';
import { isDraftAt, newestEdition, type WholeEdition } from './frozen';
import { write } from './publish';
import { beginDue, carryInto, plannedWithin } from './planned-plans';

/** Editions beside the draft's way: what is put on at once, and takeovers that are fired. */

/** The newest edition, and whether it is the draft as it stands. Called in an urgent turn: neither changes until that ends. */
export async function newestInTurn(
  actor: Actor,
  now: Instant,
  within: Transaction,
): Promise<{ readonly newest: WholeEdition; readonly whole: boolean }> {
  await beginDue(actor.networkId, new Date(now), within);
  const newest = await newestEdition(actor.networkId, within);
  if (!newest)
    throw new Refusal(409, 'Nothing has been published yet. Publish the first edition, then put something on.');
  return { newest, whole: isDraftAt(newest, await lastChange(actor.networkId, within)) };
}

/** What an edition beside the draft's way has otherwise than the newest. */
interface Aside {
  readonly made: (plan: Plan) => Plan;
  readonly note: string;
  /** A booking that has to show something on one of some screens, by its id; absent where nothing has to. */
  readonly shown?: { readonly id: string; readonly name: string; readonly screens: readonly string[] };
}

/** Whether a booking shows something on one of its screens at least. */
function isShown(plan: Plan, { id, screens }: NonNullable<Aside['shown']>): boolean {
  const narrow = programMaker(plan);
  return screens.some((screen) => narrow(screen).bookings.some((booking) => booking.id === id));
}

/**
 * Writes an edition beside the draft's way: it holds what the newest one holds, and one booking otherwise; so does what is planned.
 * `draft.whole` says that the newest edition was the draft as it stood. Throws 422 where what has to show shows nothing.
 */
export async function writeAside(
  actor: Actor,
  newest: WholeEdition,
  { made, note, shown }: Aside,
  draft: { readonly plan: Plan; readonly whole: boolean },
  within: Transaction,
): Promise<number> {
  const plan = made(newest.plan);
  if (shown && !isShown(plan, shown))
    throw new Refusal(
      422,
      `“${shown.name}” shows nothing on these screens. Sounds need a picture beside them, and its items may be for other screens.`,
    );
  const compiled = orThrow(await compile(plan, await baseOf(newest, within)));
  const whole = draft.whole && samePlan(plan, sharing(plan, draft.plan));
  const change = await lastChange(actor.networkId, within);
  const upTo = whole ? change : newest.lastChange;
  const { number } = await write(
    actor,
    { plan, compiled, lastChange: upTo, whole, note, again: null, aside: true },
    within,
  );
  await carryInto(await plannedWithin(actor.networkId, within), made, { plan: draft.plan, change }, within);
  return number;
}
