import { readBoundedJson } from '@/core/bounded-json';
import { glances, tooSmall, type Glance } from '@/core/forecast';
import type { Instant } from '@/core/instant';
import { orThrow } from '@/core/refusal';
import {
  allClear,
  docket,
  docketChoice,
  drillTakeover,
  endPutOn,
  fireTakeover,
  pilotEdition,
  planEdition,
  plannedEditions,
  publishAgain,
  publishEdition,
  publishedPlan,
  putOn,
  takeBack,
  type ByWhom,
  type Docket,
  type GoesOut,
  type Piloting,
  type Publishing,
  type PuttingOn,
} from '../editions';
import type { Actor } from '../people';
import { draftPlan, importPlan, lookAtPlan, type EditResult, type PlanLook } from '../plan';
import { findTowns, type Town } from '../towns';

/** What takes long in a large network: compiling and forecasting. Plain values go in and come out, since a process of its own does it. */

/** How much waits to be published, by the change that it was counted at. */
export interface DocketSums {
  readonly change: number;
  readonly entries: number;
  readonly screens: number;
}

async function docketSums(actor: Actor): Promise<DocketSums> {
  const { change, entries, screens } = await docket(actor);
  return { change, entries: entries.length, screens: screens.length };
}

/** For larger networks, the browser's own worker forecasts only the visible part. */
const GLANCED_AT = { screens: 300, bookings: 2000 };

/** What the screens show at an instant, by the newest edition, or by the draft before the first. Empty in a large network. */
async function glancesAt(actor: Actor, at: Instant): Promise<readonly Glance[]> {
  const plan = ((await publishedPlan(actor)) ?? (await draftPlan(actor))).plan;
  if (plan.screens.length > GLANCED_AT.screens || plan.bookings.length > GLANCED_AT.bookings) return [];
  return glances(plan, at);
}

/** By the plan that they were found in: it is the same object as long as nothing changes. */
const small = new WeakMap<object, readonly string[]>();

/** The ids of the files that screens show too large for them, by the draft. */
async function smallFiles(actor: Actor): Promise<readonly string[]> {
  const { plan } = await draftPlan(actor);
  const ids = small.get(plan) ?? [...tooSmall(plan).keys()];
  small.set(plan, ids);
  return ids;
}

const documentIn = (body: Uint8Array) => orThrow(readBoundedJson(Buffer.from(body).toString('utf8')));

/** Reads a plan file in UTF-8, and makes the draft equal to it. */
async function importPlanFile(
  actor: Actor,
  body: Uint8Array,
  seen?: number,
): Promise<Pick<EditResult, 'change' | 'changes'>> {
  const { change, changes } = await importPlan(actor, documentIn(body), seen);
  return { change, changes };
}

export const TASKS = {
  allClear: (actor: Actor, id: string, by?: ByWhom) => allClear(actor, id, by),
  docket: (actor: Actor): Promise<Docket> => docket(actor),
  docketChoice,
  docketSums,
  drillTakeover: (actor: Actor, id: string, where: string) => drillTakeover(actor, id, where),
  endPutOn: (actor: Actor, id: string) => endPutOn(actor, id),
  fireTakeover: (actor: Actor, id: string, by?: ByWhom) => fireTakeover(actor, id, by),
  glancesAt,
  importPlanFile,
  lookAtPlanFile: (actor: Actor, body: Uint8Array): Promise<PlanLook> => lookAtPlan(actor, documentIn(body)),
  pilotEdition: (actor: Actor, basedOn: number, pilot: Piloting, how?: Publishing) =>
    pilotEdition(actor, basedOn, pilot, how),
  planEdition: (actor: Actor, basedOn: number, goesOut: GoesOut, how?: Publishing) =>
    planEdition(actor, basedOn, goesOut, how),
  plannedEditions,
  publishAgain: (actor: Actor, number: number, seen?: number) => publishAgain(actor, number, { seen }),
  publishEdition,
  putOn: (actor: Actor, what: PuttingOn) => putOn(actor, what),
  smallFiles,
  takeBack,
  /** The list of towns is large: it is read here, and not where pages are answered. */
  towns: (_: Actor, typed: string): Promise<readonly Town[]> => findTowns(typed),
};

export type TaskName = keyof typeof TASKS;
export type TaskArguments<N extends TaskName> = Parameters<(typeof TASKS)[N]>;
export type TaskAnswer<N extends TaskName> = Awaited<ReturnType<(typeof TASKS)[N]>>;
