import type { Transaction } from 'sequelize';
import { group } from 'd3-array';
import { chosenPlan, type CompiledEdition } from '@/core/edition';
import type { Instant } from '@/core/instant';
import { samePlan, sharing, type Plan, withUsedMedia } from '@/core/plan';
import { Refusal, orThrow } from '@/core/refusal';
import { EditionRow, publish, rows, type PilotColumn } from '@/database';
import { notFound } from '../errors';
import { demand, type Actor } from '../people';
import { draftWithin, inTurn, inTurnMakingWay, refuseToSend, takeTurn } from '../plan';
import { compile } from './compile';
import { baseOf, freeze } from './freeze';
import { frozen, isDraftAt, newestEdition, programsOf, type WholeEdition } from './frozen';
import { nothingWaits, publishedBase, readNote, seenChange, type Publishing } from './publish';
import { beginDue, plannedWithin, type PlannedPlan } from './planned-plans';
import { writeReach } from './reach';
import { answerRequests, askAgain } from './requests';

/**
 * Editions that wait: planned for a time (`planned.ts`), or tried on some screens first (`pilot.ts`). One is frozen as it is made: what is
 * changed later collects on top of it.
 */

/** An edition that waits. */
export interface Planned {
  readonly id: string;
  /** When it is out everywhere; null where that is not known: it is tried on some screens first. */
  readonly at: string | null;
  /** What clocks at each site show when it goes out there; null where it is one instant for all. */
  readonly siteTime: string | null;
  /** From when on it is on which screens, the earliest first; empty where all get it at once. */
  readonly steps: readonly { readonly at: string; readonly screens: readonly string[] }[];
  readonly pilot: PilotColumn | null;
  readonly person: string | null;
  readonly note: string | null;
  /** Ids of the screens that it gives another program than what is out before it. */
  readonly screens: readonly string[];
  /** On how many of them all that it shows in its first day is there already. */
  readonly ready: number;
  /** The edition that went back to an earlier one after this was planned: this brings again what that took away. Null for none. */
  readonly wentBack: { readonly number: number; readonly to: number } | null;
}

interface Listed extends Pick<Planned, 'id' | 'person' | 'note' | 'siteTime' | 'pilot' | 'wentBack'> {
  readonly at: Date | null;
}

/** What waits in a network, the earliest first. */
export async function plannedEditions({ networkId }: Actor): Promise<Planned[]> {
  const list = await rows<Listed>(
    `SELECT e.id, e.planned_for AS at, p.name AS person, e.note, e.site_time AS "siteTime", e.pilot,
       (SELECT jsonb_build_object('number', b.number, 'to', b.again) FROM editions b
        WHERE b.network_id = e.network_id AND b.again IS NOT NULL AND b.number IS NOT NULL AND b.published_at > e.published_at
        ORDER BY b.number DESC LIMIT 1) AS "wentBack"
     FROM editions e LEFT JOIN people p ON p.id = e.person_id
     WHERE e.network_id = $1 AND e.number IS NULL ORDER BY e.planned_for NULLS FIRST`,
    [networkId],
  );
  if (list.length === 0) return [];
  const newest = await newestEdition(networkId);
  let before = newest ? await programsOf(newest.id) : new Map<string, string>();
  const ready = await readyPrograms(networkId);
  const found: Planned[] = [];
  for (const one of list) {
    const given = await givenBy(one.id);
    const programs = new Map(given.map(({ screen, hash }) => [screen, hash]));
    const delivered = new Map(given.map((row) => [row.screen, row.delivered]));
    const screens = [...programs].flatMap(([screen, hash]) => (before.get(screen) === hash ? [] : [screen])).sort();
    const there = screens.filter((screen) => ready.get(screen)?.includes(delivered.get(screen) ?? '') ?? false);
    found.push({ ...one, at: one.at?.toISOString() ?? null, steps: stepsOf(given), screens, ready: there.length });
    before = programs;
  }
  return found;
}

/** The plan of one that waits, with the files alone that it uses. Throws 404 where it is out, or was called off. */
export async function plannedPlan({ networkId }: Actor, id: string): Promise<Plan> {
  const row = await EditionRow.findOne({ where: { networkId, id, number: null } });
  if (!row) throw notFound('planned edition');
  return withUsedMedia((await frozen(row)).plan);
}

/** The programs that players have said to have ahead, by screen. */
async function readyPrograms(networkId: string): Promise<Map<string, readonly string[]>> {
  const found = await rows<{ screen: string; ready: readonly string[] | null; program: string | null }>(
    `SELECT s.slug AS screen, p.report->'ready' AS ready, p.report->>'program' AS program
     FROM players p JOIN plan_objects s ON s.id = p.screen_id WHERE p.network_id = $1`,
    [networkId],
  );
  const ahead = new Map<string, readonly string[]>();
  for (const { screen, ready, program } of found) {
    const own = [...(ready ?? []), ...(program ? [program] : [])];
    // A wall has ahead what all of its players have.
    ahead.set(screen, ahead.get(screen)?.filter((one) => own.includes(one)) ?? own);
  }
  return ahead;
}

/** What an edition gives to a screen, as the plan has it and as players get it, and from when on where that is its own. */
interface Given {
  readonly screen: string;
  readonly hash: string;
  readonly delivered: string;
  readonly at: Date | null;
}

const givenBy = (edition: string): Promise<Given[]> =>
  rows<Given>(
    'SELECT screen, hash, coalesce(delivered, hash) AS delivered, from_at AS at FROM edition_screens WHERE edition_id = $1',
    [edition],
  );

const stepsOf = (given: readonly Given[]): Planned['steps'] =>
  [
    ...group(
      given.filter(({ at }) => at !== null),
      ({ at }) => at?.toISOString() ?? '',
    ),
  ]
    .map(([at, list]) => ({ at, screens: list.map(({ screen }) => screen).sort() }))
    .sort((a, b) => (a.at < b.at ? -1 : 1));

/** What is about to wait, on top of all that does already. */
export interface Next {
  readonly actor: Actor;
  readonly plan: Plan;
  readonly compiled: CompiledEdition;
  readonly whole: boolean;
  readonly lastChange: number;
  readonly note: string | null;
  readonly newest: WholeEdition;
  readonly waiting: readonly PlannedPlan[];
}

/**
 * Freezes the draft, or some of its changes, as the last planned edition. `when` holds the columns that say when it goes out.
 * In turn; `basedOn` as in publishing. Throws 409 if the plan was changed since, and if nothing is changed.
 */
export async function freezeNext<T>(
  actor: Actor,
  basedOn: number,
  { chosen, note }: Publishing,
  now: number,
  when: (next: Next, within: Transaction) => Promise<Waiting<T>>,
): Promise<{ id: string } & T> {
  demand(actor, 'publish');
  const { networkId } = actor;
  const words = readNote(note);
  return inTurnMakingWay(networkId, async (within) => {
    await takeTurn(networkId, within);
    await beginDue(networkId, new Date(now), within);
    const change = await seenChange(actor, basedOn, within);
    const { plan: draft } = await draftWithin(networkId, within);
    const newest = await newestEdition(networkId, within);
    const waiting = await plannedWithin(networkId, within);
    if (!newest)
      throw new Refusal(409, 'Nothing has been published yet. Publish the first edition now, then plan the next ones.');
    const top = waiting.at(-1) ?? newest;
    if (isDraftAt(top, change)) throw nothingWaits(newest, waiting.length);
    const base = publishedBase(top, draft);
    const plan = chosen ? chosenPlan(base, draft, chosen).plan : draft;
    if (plan === base) throw new Refusal(409, 'These changes are all published already. Choose some that aren’t.');
    await refuseToSend(actor, { before: base, after: plan }, within);
    const whole = samePlan(plan, sharing(plan, draft));
    const compiled = orThrow(await compile(plan, await baseOf(top, within)));
    const lastChange = whole ? change : top.lastChange;
    const next: Next = { actor, plan, compiled, whole, lastChange, note: words, newest, waiting };
    const { columns, reach, told } = await when(next, within);
    const { personId } = actor;
    const id = await freeze(
      { networkId, personId, number: null, plan, lastChange, whole, note: words, again: null, ...columns },
      compiled,
      top,
      within,
    );
    await writeReach(id, reach, within);
    await answerRequests(actor, { edition: id, plan, draft }, within);
    await publish({ kind: 'edition', network: networkId }, within);
    return { id, ...told };
  });
}

/** The columns that say when a planned edition goes out, which screens have times of their own, and what people see of it. */
export interface Waiting<T> {
  readonly columns: Partial<Pick<EditionRow, 'plannedFor' | 'siteTime' | 'pilot'>>;
  readonly reach: ReadonlyMap<string, Instant> | null;
  readonly told: T;
}

/** Does something with one that waits, in turn. Throws 404 where it is out, or was called off. */
export async function withWaiting<T>(
  actor: Actor,
  id: string,
  now: number,
  work: (one: PlannedPlan, list: readonly PlannedPlan[], within: Transaction) => Promise<T>,
): Promise<T> {
  demand(actor, 'publish');
  const { networkId } = actor;
  return inTurn(networkId, async (within) => {
    await takeTurn(networkId, within);
    await beginDue(networkId, new Date(now), within);
    const list = await plannedWithin(networkId, within);
    const one = list.find((row) => row.id === id);
    if (!one) throw notFound('planned edition');
    const done = await work(one, list, within);
    await publish({ kind: 'edition', network: networkId }, within);
    return done;
  });
}

/** Cancels a planned edition. Its changes are unpublished again, or go out with the next planned one. Screens that have it return to the one before. */
export async function callOffPlanned(actor: Actor, id: string, now = Date.now()): Promise<void> {
  await withWaiting(actor, id, now, async (_one, _list, within) => {
    await askAgain(actor.networkId, id, within);
    await EditionRow.destroy({ where: { id }, transaction: within });
  });
}

/** Publishes one on all screens, before its time. Throws 409 where another is to go out before it. */
export async function publishPlanned(actor: Actor, id: string, now = Date.now()): Promise<{ number: number }> {
  return withWaiting(actor, id, now, async (one, [first], within) => {
    if (first?.id !== one.id)
      throw new Refusal(409, 'Another edition is planned before this one. Publish or cancel that one first.');
    await refuseSooner(actor, one, within);
    return { number: await giveNumber(actor.networkId, id, now, within) };
  });
}

/** Throws 403 where one holds a takeover that only others may fire: whoever planned it may, but not everybody may bring it forward. */
export async function refuseSooner(actor: Actor, { plan }: PlannedPlan, within: Transaction): Promise<void> {
  const newest = await newestEdition(actor.networkId, within);
  if (newest) await refuseToSend(actor, { before: newest.plan, after: plan }, within);
}

/** Makes one that waits the newest edition, for all screens. In turn. */
export async function giveNumber(networkId: string, id: string, now: number, within: Transaction): Promise<number> {
  const number = ((await newestEdition(networkId, within))?.number ?? 0) + 1;
  await EditionRow.update({ number, publishedAt: new Date(now) }, { where: { id }, transaction: within });
  return number;
}
