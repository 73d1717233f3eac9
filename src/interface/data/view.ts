import 'server-only';
import { glances, planZones, samePlan, sharing, withUsedMedia, zoneTable, type Plan } from '@/core';
import { docket, publishedPlan } from '@/services/editions';
import { knownStatuses } from '@/services/feed';
import type { Actor } from '@/services/people';
import { draftPlan } from '@/services/plan';
import type { NetworkView } from './state';

/** Up to so many screens are glanced at before the page is sent; more are left to the browser's worker. */
const GLANCED_AT = 300;

/** `zone` is that of the person's own clock. */
export async function loadView(actor: Actor, zone: string): Promise<NetworkView> {
  const draft = await draftPlan(actor);
  const plan = used(draft.plan);
  const serverNow = Date.now();
  const [published, newest, statuses] = await Promise.all([
    publishedPlan(actor),
    docket(actor, draft),
    knownStatuses(actor),
  ]);
  // What the published plan has in common with the draft is sent once.
  const seen = published && { ...published, plan: sharedWith(plan, used(published.plan)) };
  return {
    person: actor.name,
    draft: plan,
    zones: [...new Set([zone, ...planZones(plan), ...planZones(seen?.plan ?? plan)])].map(zoneTable),
    change: draft.change,
    published: seen,
    docket: { change: newest.change, entries: newest.entries.length, screens: newest.screens.length },
    statuses,
    serverNow,
    glances: plan.screens.length > GLANCED_AT ? [] : glances(seen?.plan ?? plan, serverNow),
  };
}

/** Plans with the files alone that they use: the page asks for others where they are in sight. */
const usedPlans = new WeakMap<Plan, Plan>();

function used(plan: Plan): Plan {
  const known = usedPlans.get(plan) ?? withUsedMedia(plan);
  usedPlans.set(plan, known);
  return known;
}

/** What was shared last with a published plan: both stand until somebody edits or publishes. */
const shared = new WeakMap<Plan, { readonly draft: Plan; readonly plan: Plan }>();

function sharedWith(draft: Plan, published: Plan): Plan {
  const known = shared.get(published);
  if (known?.draft === draft) return known.plan;
  const plan = sharing(draft, published);
  const made = { draft, plan: samePlan(plan, draft) ? draft : plan };
  shared.set(published, made);
  return made.plan;
}
