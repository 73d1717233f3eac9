import 'server-only';
import { planZones, samePlan, sharing, withUsedMedia, type Plan } from '@/core/plan';
import { zoneTable } from '@/core/when';
import { publishedPlan } from '@/services/editions';
import { knownStatuses } from '@/services/feed';
import { roleOf, type Actor } from '@/services/people';
import { draftPlan } from '@/services/plan';
import { think } from '@/services/thinking';
import type { NetworkView } from './state';

/** `zone` is that of the person's own clock. */
export async function loadView(actor: Actor, zone: string): Promise<NetworkView> {
  const draft = await draftPlan(actor);
  const plan = used(draft.plan);
  const serverNow = Date.now();
  const [published, docket, statuses, glances] = await Promise.all([
    publishedPlan(actor),
    think('docketSums', actor),
    knownStatuses(actor),
    // The page can forecast by itself, if later.
    think('glancesAt', actor, serverNow).catch(() => []),
  ]);
  // What the published plan has in common with the draft is sent once.
  const seen = published && { ...published, plan: sharedWith(plan, used(published.plan)) };
  return {
    person: actor.name,
    me: actor.personId ?? '',
    role: await roleOf(actor),
    draft: plan,
    zones: [...new Set([zone, ...planZones(plan), ...planZones(seen?.plan ?? plan)])].map(zoneTable),
    change: draft.change,
    published: seen,
    ...{ docket, statuses, serverNow, glances },
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
