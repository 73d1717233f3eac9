import type { Transaction } from 'sequelize';
import {
  ROLE,
  Refusal,
  chosenPlan,
  drillOf,
  firedWhen,
  inForce,
  isAsFired,
  isPrepared,
  nameAmong,
  objectIn,
  orThrow,
  parseSelector,
  removed,
  screensMatching,
  selectorOf,
  withObject,
  withPatches,
  type Booking,
  type Plan,
  type Role,
  type When,
} from '@/core';
import { publish, rows, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { demand, record, type Actor } from '../people';
import {
  draftWithin,
  editWithin,
  guardsOf,
  inTurn,
  inUrgentTurn,
  loadPlan,
  refuseToFire,
  takeTurn,
  type Edit,
} from '../plan';
import { newestInTurn, writeAside } from './aside';
import type { WholeEdition } from './frozen';

/**
 * Takeovers that are prepared on hold, activated by one act, and cleared by another. Both are written to the draft and to an edition of their
 * own beside it, as what is put on now is. Unpublished changes stay out of it.
 */

/** A takeover that was fired, and what became of it. */
export interface Firing {
  readonly id: string;
  /** The booking's id, and its name at the time. */
  readonly booking: string;
  readonly name: string;
  readonly firedAt: string;
  readonly firedBy: string | null;
  /** Whether a program did it, by that person's key. */
  readonly byKey: boolean;
  /** Whether it was a drill, on other screens, and marked so. */
  readonly drill: boolean;
  /** When it ends by itself; null for with the all-clear. */
  readonly until: string | null;
  /** For how many screens it is; how many of them say that they show it, and how many have said so. */
  readonly screens: number;
  readonly showing: number;
  readonly showed: number;
  readonly edition: number;
  readonly clearedAt: string | null;
  readonly clearedBy: string | null;
  readonly clearedByKey: boolean;
}

/** From when to when a screen showed it, by its player's own word. */
export interface Shown {
  readonly screen: string;
  /** Null where it has not said so. */
  readonly from: string | null;
  /** When it ended; for one still in force, when its player was last online. */
  readonly to: string | null;
  readonly over: boolean;
}

type FiringRow = Omit<Firing, 'firedAt' | 'until' | 'clearedAt'> &
  Record<'firedAt' | 'until' | 'clearedAt', Date | null>;

const FIRING = `SELECT f.id, f.booking, f.name, f.fired_at AS "firedAt", p.name AS "firedBy", f.by_key AS "byKey", f.drill, f.until,
    cardinality(f.screens) AS screens, f.edition, f.cleared_at AS "clearedAt", c.name AS "clearedBy", f.cleared_by_key AS "clearedByKey",
    (SELECT count(*)::int FROM firing_screens s WHERE s.firing_id = f.id AND NOT s.over) AS showing,
    (SELECT count(*)::int FROM firing_screens s WHERE s.firing_id = f.id) AS showed
  FROM firings f LEFT JOIN people p ON p.id = f.fired_by LEFT JOIN people c ON c.id = f.cleared_by`;
const MOST = 100;

const firingOf = (row: FiringRow): Firing => ({
  ...row,
  firedAt: row.firedAt?.toISOString() ?? '',
  until: row.until?.toISOString() ?? null,
  clearedAt: row.clearedAt?.toISOString() ?? null,
});

/** The screens that one was fired on, and which of them showed it, from when to when. Throws 404 for none. */
export async function firingScreens({ networkId }: Actor, id: string): Promise<Shown[]> {
  const found = await rows<{ screen: string | null; from: Date | null; to: Date | null; over: boolean | null }>(
    `SELECT x.screen, s.shown_from AS from, s.shown_to AS to, s.over
     FROM firings f LEFT JOIN LATERAL unnest(f.screens) AS x(screen) ON true
     LEFT JOIN firing_screens s ON s.firing_id = f.id AND s.screen = x.screen
     WHERE f.network_id = $1 AND f.id = $2 ORDER BY x.screen`,
    [networkId, id],
  );
  if (found.length === 0) throw notFound('activated takeover');
  return found.flatMap(({ screen, from, to, over }) =>
    screen === null
      ? []
      : [{ screen, from: from?.toISOString() ?? null, to: to?.toISOString() ?? null, over: over ?? false }],
  );
}

/** What was fired last, the newest first. */
export async function firings({ networkId }: Actor): Promise<Firing[]> {
  const found = await rows<FiringRow>(
    `${FIRING} WHERE f.network_id = $1 ORDER BY f.fired_at DESC, f.id DESC LIMIT ${MOST}`,
    [networkId],
  );
  return found.map(firingOf);
}

/** What a page knows of takeovers besides the plan. */
export interface Takeovers {
  /** The takeovers that are prepared in the draft: a program fires one by its id. */
  readonly prepared: readonly Pick<Booking, 'id' | 'name'>[];
  readonly firings: readonly Firing[];
  /** Who alone may fire which takeover, by the booking's id: ids of people. Of others everybody may whose role may. */
  readonly firers: Readonly<Record<string, readonly string[]>>;
}

export async function takeovers(actor: Actor): Promise<Takeovers> {
  const guards = await guardsOf(actor.networkId);
  const prepared = await rows<{ id: string; name: string }>(
    `SELECT slug AS id, name FROM plan_objects WHERE network_id = $1 AND kind = 'booking'
       AND document->'takeover' = 'true' AND document->'onHold' = 'true' ORDER BY name`,
    [actor.networkId],
  );
  return {
    prepared,
    firings: await firings(actor),
    firers: Object.fromEntries([...guards].map(([booking, people]) => [booking, people.map(({ id }) => id)])),
  };
}

/**
 * Sets who may fire, drill and clear a takeover, by their ids; an empty list lets everybody whose role allows it. Only a person who may fire it now, or an owner, may set this.
 * Throws 403 for anybody else, 404 for no takeover, 422 for people whom the network does not have, or whose role fires nothing.
 */
export async function setFirers(actor: Actor, id: string, people: readonly string[]): Promise<void> {
  if (!actor.may.includes('people')) demand(actor, 'operate');
  const { networkId } = actor;
  await inTurn(networkId, async (within) => {
    await takeTurn(networkId, within);
    const draft = await loadPlan(networkId, within);
    const booking = objectIn(draft, 'booking', id);
    if (!booking?.takeover) throw notFound('takeover');
    if (!actor.may.includes('people')) await refuseToFire(actor, booking, { plan: draft }, within);
    await rows('DELETE FROM takeover_people WHERE network_id = $1 AND booking = $2', [networkId, id], within);
    const wanted = [...new Set(people)];
    const set = await rows<{ name: string; role: Role }>(
      `WITH chosen AS (SELECT id, name, role FROM people WHERE network_id = $1 AND removed_at IS NULL AND id = ANY($3::uuid[])),
         written AS (INSERT INTO takeover_people (network_id, booking, person_id) SELECT $1, $2, id FROM chosen)
       SELECT name, role FROM chosen ORDER BY name`,
      [networkId, id, wanted],
      within,
    );
    if (set.length !== wanted.length)
      throw new Refusal(422, 'One of these people is no longer here. Reload the page, then choose again.');
    const unfit = set.find(({ role }) => !ROLE[role].may.includes('operate'));
    if (unfit)
      throw new Refusal(
        422,
        `${unfit.name} can’t activate takeovers as ${ROLE[unfit.role].name.toLowerCase()}. Choose another person, or change their role first.`,
      );
    await record({ ...actor, act: 'firers-set', about: booking.name }, within);
    await publish({ kind: 'edition', network: networkId }, within);
  });
}

/** Whether it is in force at an instant: neither cleared nor over by itself. */
const isOn = ({ clearedAt, until }: Firing, now: number): boolean =>
  clearedAt === null && (until === null || Date.parse(until) > now);

/** Whether a plan has the booking as it was fired. */
const isOnGlass = (plan: Plan, { booking: id, firedAt, until }: Firing): boolean => {
  const booking = objectIn(plan, 'booking', id);
  const during = firedWhen(Date.parse(firedAt), until === null ? null : Date.parse(until));
  return booking !== null && isAsFired(booking, { during });
};

async function lastFiring(networkId: string, booking: string, within: Transaction): Promise<Firing | null> {
  const [row] = await rows<FiringRow>(
    `${FIRING} WHERE f.network_id = $1 AND f.booking = $2 ORDER BY f.fired_at DESC, f.id DESC LIMIT 1`,
    [networkId, booking],
    within,
  );
  return row ? firingOf(row) : null;
}

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
    const { newest, whole } = await newestInTurn(actor, within);
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
    const { newest, whole } = await newestInTurn(actor, within);
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
interface Turn {
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
  { actor, newest, whole, draft, now, within }: Turn,
  edit: Edit,
  { booking, screens, until, before, byKey, idempotencyKey, drill }: Force,
): Promise<Firing> {
  const { ids, patches } = await editWithin(actor, [edit], within);
  const [id = ''] = ids;
  const after = withPatches(draft, patches);
  const made = (plan: Plan) => chosenPlan(plan, after, [{ kind: 'booking', id }], { withPlaces: false }).plan;
  const note = drill ? `Drill: ${booking.name}` : `Fired: ${booking.name}`;
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

async function firingBy(id: string, within: Transaction): Promise<Firing> {
  const [row] = await rows<FiringRow>(`${FIRING} WHERE f.id = $1`, [id], within);
  if (!row) throw notFound('activated takeover');
  return firingOf(row);
}

async function firedBy(networkId: string, key: string, within: Transaction): Promise<Firing | null> {
  const [row] = await rows<FiringRow>(
    `${FIRING} WHERE f.network_id = $1 AND f.idempotency_key = $2`,
    [networkId, key],
    within,
  );
  return row ? firingOf(row) : null;
}

async function timeBefore(firing: string, within: Transaction): Promise<When> {
  const [row] = await rows<{ when: When }>('SELECT time_before AS when FROM firings WHERE id = $1', [firing], within);
  return row?.when ?? {};
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
    const { newest, whole } = await newestInTurn(actor, within);
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

/** What a player told that it shows. */
export interface Told {
  readonly player: string;
  /** The booking whose takeover it shows; null for anything else. */
  readonly booking: string | null;
  /** Since when, by its corrected clock; null where it does not say. */
  readonly since: number | null;
  readonly seen: number;
}

/** Writes down which screens show what was fired, and which do no longer. Costs one look where nothing was. */
export async function noteShown(told: readonly Told[]): Promise<void> {
  const list = JSON.stringify(
    told.map(({ player, booking, since, seen }) => ({
      ...{ player, booking, seen: new Date(seen).toISOString() },
      since: since === null ? null : new Date(Math.min(since, seen)).toISOString(),
    })),
  );
  await rows(
    `WITH told AS (
       SELECT p.network_id, s.slug AS screen, t.booking, t.since, t.seen
       FROM jsonb_to_recordset($1::jsonb) AS t(player uuid, booking text, since timestamptz, seen timestamptz)
       JOIN players p ON p.id = t.player JOIN plan_objects s ON s.id = p.screen_id
     ), over AS (
       UPDATE firing_screens o SET over = true, shown_to = greatest(o.shown_from, o.shown_to, coalesce(t.since, o.shown_to))
       FROM told t JOIN firings f ON f.network_id = t.network_id
       WHERE o.firing_id = f.id AND o.screen = t.screen AND NOT o.over AND t.booking IS DISTINCT FROM f.booking
     )
     INSERT INTO firing_screens (firing_id, screen, shown_from, shown_to)
     SELECT f.id, t.screen, greatest(f.fired_at, coalesce(t.since, t.seen)), greatest(f.fired_at, coalesce(t.since, t.seen), t.seen)
     FROM told t JOIN LATERAL (
       SELECT id, fired_at FROM firings WHERE network_id = t.network_id AND booking = t.booking AND fired_at <= t.seen
       ORDER BY fired_at DESC LIMIT 1
     ) f ON true WHERE t.booking IS NOT NULL
     ON CONFLICT (firing_id, screen) DO UPDATE SET shown_to = greatest(firing_screens.shown_to, excluded.shown_to), over = false`,
    [list],
  );
}
