import type { Transaction } from 'sequelize';
import { drillOf, inForce, isPrepared, nameAmong } from '@/core/booking';
import { chosenPlan, firedWhen, isAsFired } from '@/core/edition';
import { objectIn, removed, withObject, withPatches, type Booking, type Plan } from '@/core/plan';
import { Refusal, orThrow } from '@/core/refusal';
import { parseSelector, screensMatching, selectorOf } from '@/core/selector';
import type { When } from '@/core/when';
import { rows, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { demand, type Actor } from '../people';
import { draftWithin, editWithin, inUrgentTurn, refuseToFire, type Edit } from '../plan';
import { newestInTurn, writeAside } from './aside';
import type { WholeEdition } from './frozen';
import { type Firing, isOn, lastFiring, firingBy, firedBy, timeBefore } from './firings';

/**
 * Takeovers that are prepared on hold, activated by one act, and cleared by another. Both are written to the draft and to an edition of their
 * own beside it, as what is put on now is. Unpublished changes stay out of it.
 */

/** Whether a plan has the booking as it was fired. */
const isOnGlass = (plan: Plan, { booking: id, firedAt, until }: Firing): boolean => {
  const booking = objectIn(plan, 'booking', id);
  const during = firedWhen(Date.parse(firedAt), until === null ? null : Date.parse(until));
  return booking !== null && isAsFired(booking, { during });
};

/** By whom something is done besides the actor: a program with a key of theirs, under a key that does it once. */
export interface ByWhom {
  readonly byKey?: boolean | undefined;
  readonly idempotencyKey?: string | undefined;
}

/**
 * Fires a prepared takeover: at once, on the screens that it names, for as long as was prepared. Under the same idempotency key
 * it is fired once, and answered the same. Throws 404 for none, 409 where it is in force already or nothing was published yet, 422 for a
 * booking that isn't a prepared takeover, if none of its screens is in an edition, and for a key that fired something else.
 */
export async function fireTakeover(
  actor: Actor,
  id: string,
  { byKey = false, idempotencyKey }: ByWhom = {},
  now = Date.now(),
): Promise<Firing> {
  demand(actor, 'operate');
  const { networkId } = actor;
  return inUrgentTurn(networkId, async (within) => {
    const { newest, whole } = await newestInTurn(actor, now, within);
    const again = idempotencyKey === undefined ? null : await firedBy(networkId, idempotencyKey, within);
    if (again && again.booking !== id)
      throw new Refusal(
        422,
        `This idempotency key has activated “${again.name}”. Use another key for another takeover.`,
      );
    if (again) return again;
    const { plan: draft } = await draftWithin(networkId, within);
    const booking = objectIn(draft, 'booking', id);
    if (!booking) throw notFound('takeover');
    await refuseToFire(actor, booking, { plan: draft, glass: newest.plan }, within);
    const last = await lastFiring(networkId, id, within);
    if (last && isOn(last, now) && isOnGlass(newest.plan, last))
      throw new Refusal(
        409,
        `“${booking.name}” is in force already. Give the all-clear first, then activate it again.`,
      );
    // One that ended by itself counts as fired until it is cleared, or fired again.
    const ended = last !== null && last.clearedAt === null && !booking.onHold && booking.takeover === true;
    if (!isPrepared(booking) && !ended)
      throw new Refusal(
        422,
        `“${booking.name}” isn’t a prepared takeover. In its booking, tick “Takeover” and “On hold”, then activate it.`,
      );
    const screens = screensMatching(newest.plan, selectorOf(booking.where)).map((screen) => screen.id);
    if (screens.length === 0)
      throw new Refusal(422, `None of the screens of “${booking.name}” is in an edition yet. Publish them first.`);
    const before = ended ? await timeBefore(last.id, within) : booking.when;
    const { when, until } = inForce(booking, now);
    const edit: Edit = { kind: 'booking', id, set: { when, onHold: null } };
    const turn = { actor, newest, whole, draft, now, within };
    return putInForce(turn, edit, { booking, screens, until, before, byKey, idempotencyKey, drill: false });
  });
}

/**
 * Fires a prepared takeover as a drill: its content, marked as a drill where it is seen, on other screens and for ten minutes at most. What
 * is prepared stays so. Throws as firing does, and 422 for a selector that is none.
 */
export async function drillTakeover(
  actor: Actor,
  id: string,
  where: string,
  { byKey = false }: ByWhom = {},
  now = Date.now(),
): Promise<Firing> {
  demand(actor, 'operate');
  return inUrgentTurn(actor.networkId, async (within) => {
    const { newest, whole } = await newestInTurn(actor, now, within);
    const { plan: draft } = await draftWithin(actor.networkId, within);
    const prepared = objectIn(draft, 'booking', id);
    if (!prepared) throw notFound('takeover');
    await refuseToFire(actor, prepared, { plan: draft, glass: newest.plan }, within);
    if (!isPrepared(prepared))
      throw new Refusal(
        422,
        `“${prepared.name}” isn’t a prepared takeover. In its booking, tick “Takeover” and “On hold”, then drill it.`,
      );
    const screens = screensMatching(newest.plan, orThrow(parseSelector(where))).map((screen) => screen.id);
    if (screens.length === 0)
      throw new Refusal(422, 'None of these screens is in an edition yet. Publish them first, or choose others.');
    const drill = drillOf(prepared, where);
    const { when, until } = inForce({ ...prepared, ...drill }, now);
    const name = nameAmong(new Set(draft.bookings.map((one) => one.name)), `${prepared.name}, drill`);
    const add = { ...drill, name, created: new Date(now).toISOString(), when };
    const turn = { actor, newest, whole, draft, now, within };
    const booking = { ...prepared, name };
    return putInForce(turn, { kind: 'booking', add }, { booking, screens, until, before: when, byKey, drill: true });
  });
}

/** What a firing has of the turn that it is made in. */
interface FiringTurn {
  readonly actor: Actor;
  readonly newest: WholeEdition;
  readonly whole: boolean;
  readonly draft: Plan;
  readonly now: number;
  readonly within: Transaction;
}

interface Force {
  readonly booking: Booking;
  readonly screens: readonly string[];
  readonly until: number | null;
  /** What the booking said of its time before. */
  readonly before: When;
  readonly byKey: boolean;
  readonly idempotencyKey?: string | undefined;
  readonly drill: boolean;
}

/** Makes an edit of the draft and of an edition beside it, and writes the firing down. */
async function putInForce(
  { actor, newest, whole, draft, now, within }: FiringTurn,
  edit: Edit,
  { booking, screens, until, before, byKey, idempotencyKey, drill }: Force,
): Promise<Firing> {
  const { ids, patches } = await editWithin(actor, [edit], within);
  const [id = ''] = ids;
  const after = withPatches(draft, patches);
  const made = (plan: Plan) => chosenPlan(plan, after, [{ kind: 'booking', id }], { withPlaces: false }).plan;
  const note = drill ? `Drill: ${booking.name}` : `Activated: ${booking.name}`;
  const edition = await writeAside(
    actor,
    newest,
    { made, note, shown: { id, name: booking.name, screens } },
    { plan: after, whole },
    within,
  );
  const firing = uuidv7();
  await rows(
    `INSERT INTO firings (id, network_id, booking, name, fired_at, fired_by, by_key, until, screens, edition, time_before, idempotency_key, drill)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
    [
      ...[firing, actor.networkId, id, booking.name, new Date(now), actor.personId, byKey],
      ...[
        until === null ? null : new Date(until),
        screens,
        edition,
        JSON.stringify(before),
        idempotencyKey ?? null,
        drill,
      ],
    ],
    within,
  );
  return firingBy(firing, within);
}

/**
 * The all-clear: the screens return to their schedule, and the takeover is on hold again, as it was prepared. Given twice it is
 * answered the same. Throws 404 for what was not fired.
 */
export async function allClear(
  actor: Actor,
  id: string,
  { byKey = false }: ByWhom = {},
  now = Date.now(),
): Promise<Firing> {
  demand(actor, 'operate');
  const { networkId, personId } = actor;
  return inUrgentTurn(networkId, async (within) => {
    const { newest, whole } = await newestInTurn(actor, now, within);
    const last = await lastFiring(networkId, id, within);
    if (!last) throw notFound('activated takeover');
    const { plan: draft } = await draftWithin(networkId, within);
    const fired = objectIn(draft, 'booking', id) ?? objectIn(newest.plan, 'booking', id);
    if (fired) await refuseToFire(actor, fired, { plan: draft, glass: newest.plan }, within);
    // A takeover that was cleared before may be on screens again, through an edition with an earlier version of this program.
    if (last.clearedAt !== null && ![newest.plan, draft].some((plan) => isOnGlass(plan, last))) return last;
    const when = await timeBefore(last.id, within);
    const there = objectIn(draft, 'booking', id);
    // What was a drill is gone with it.
    const cleared = (of: Booking): Edit =>
      last.drill ? removed('booking', of) : { kind: 'booking', id, set: { when, onHold: true } };
    const { patches } = there && !there.onHold ? await editWithin(actor, [cleared(there)], within) : { patches: [] };
    const made = (plan: Plan) => {
      const booking = objectIn(plan, 'booking', id);
      if (!booking || booking.onHold) return plan;
      return withObject(
        plan,
        'booking',
        id,
        last.drill ? null : ({ ...booking, when, onHold: true } satisfies Booking),
      );
    };
    const aside = { made, note: `All-clear: ${last.name}` };
    await writeAside(actor, newest, aside, { plan: withPatches(draft, patches), whole }, within);
    await rows(
      'UPDATE firings SET cleared_at = greatest($2, fired_at), cleared_by = $3, cleared_by_key = $4 WHERE id = $1',
      [last.id, new Date(now), personId, byKey],
      within,
    );
    return firingBy(last.id, within);
  });
}
