import 'server-only';
import { glances, planZones, samePlan, sharing, zoneTable, type Glance, type Plan, type ZoneTable } from '@/core';
import { feeds, type Feed } from '@/services/calendars';
import { docket, editions, publishedPlan, type Docket, type Edition } from '@/services/editions';
import { mediaExtras, uploads, type MediaExtras, type Upload } from '@/services/library';
import type { Actor } from '@/services/people';
import { draftPlan } from '@/services/plan';
import { screenStatuses, type ScreenStatus } from '@/services/screens';

/** All that the interface looks at: one network, as it is now. */
export interface NetworkView {
  readonly person: string;
  readonly draft: Plan;
  /** The changes of clocks in the plans' zones and the person's own: the server's zone data holds in every browser. */
  readonly zones: readonly ZoneTable[];
  /** The last change of the draft: edits are based on it. */
  readonly change: number;
  readonly published: { readonly plan: Plan; readonly number: number } | null;
  readonly docket: Docket;
  readonly editions: readonly Edition[];
  readonly media: readonly MediaExtras[];
  readonly statuses: readonly ScreenStatus[];
  readonly uploads: readonly Upload[];
  readonly feeds: readonly Feed[];
  readonly serverNow: number;
  /** What every screen shows at `serverNow`, so that the first picture needs no second look; empty in a large network. */
  readonly glances: readonly Glance[];
}

/** Up to so many screens are glanced at before the page is sent; more are left to the browser's worker. */
const GLANCED_AT = 300;

/** `zone` is that of the person's own clock. */
export async function loadView(actor: Actor, zone: string): Promise<NetworkView> {
  const draft = await draftPlan(actor);
  const [published, newest, list, media, statuses, pending, opened] = await Promise.all([
    publishedPlan(actor),
    docket(actor, draft),
    editions(actor),
    mediaExtras(actor),
    screenStatuses(actor),
    uploads(actor),
    feeds(actor),
  ]);
  const serverNow = Date.now();
  // What the published plan has in common with the draft is sent once.
  const seen = published && { ...published, plan: sharedWith(draft.plan, published.plan) };
  return {
    person: actor.name,
    draft: draft.plan,
    zones: [...new Set([zone, ...planZones(draft.plan), ...planZones(seen?.plan ?? draft.plan)])].map(zoneTable),
    change: draft.change,
    published: seen,
    docket: newest,
    editions: list,
    media,
    statuses,
    uploads: pending,
    feeds: opened,
    serverNow,
    glances: draft.plan.screens.length > GLANCED_AT ? [] : glances(seen?.plan ?? draft.plan, serverNow),
  };
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
