import 'server-only';
import { glances, type Glance, type Plan } from '@/core';
import { docket, editions, publishedPlan, type Docket, type Edition } from '@/services/editions';
import { mediaExtras, uploads, type MediaExtras, type Upload } from '@/services/library';
import type { Actor } from '@/services/people';
import { draftPlan } from '@/services/plan';
import { screenStatuses, type ScreenStatus } from '@/services/screens';

/** All that the interface looks at: one network, as it is now. */
export interface NetworkView {
  readonly person: string;
  readonly draft: Plan;
  /** The last change of the draft: edits are based on it. */
  readonly change: number;
  readonly published: { readonly plan: Plan; readonly number: number } | null;
  readonly docket: Docket;
  readonly editions: readonly Edition[];
  readonly media: readonly MediaExtras[];
  readonly statuses: readonly ScreenStatus[];
  readonly uploads: readonly Upload[];
  readonly serverNow: number;
  /** What every screen shows at `serverNow`, so that the first picture needs no second look. */
  readonly glances: readonly Glance[];
}

export async function loadView(actor: Actor): Promise<NetworkView> {
  const [draft, published, newest, list, media, statuses, pending] = await Promise.all([
    draftPlan(actor),
    publishedPlan(actor),
    docket(actor),
    editions(actor),
    mediaExtras(actor),
    screenStatuses(actor),
    uploads(actor),
  ]);
  const serverNow = Date.now();
  return {
    person: actor.name,
    draft: draft.plan,
    change: draft.change,
    published,
    docket: newest,
    editions: list,
    media,
    statuses,
    uploads: pending,
    serverNow,
    glances: glances(published?.plan ?? draft.plan, serverNow),
  };
}
