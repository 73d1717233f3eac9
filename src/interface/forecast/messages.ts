import type { Change, Explanation, Glance, Instant, Plan, Segment } from '@/core';

/** What the page asks of the forecast worker about a plan, and what it answers. */
export type Question =
  | { readonly kind: 'glances'; readonly at: Instant }
  | { readonly kind: 'changes'; readonly from: Instant; readonly to: Instant; readonly screens?: readonly string[] }
  | { readonly kind: 'segments'; readonly screen: string; readonly from: Instant; readonly to: Instant }
  | { readonly kind: 'why'; readonly screen: string; readonly at: Instant };

export interface Answers {
  glances: readonly Glance[];
  changes: readonly Change[];
  segments: readonly Segment[];
  why: Explanation;
}

/** Plans are sent once, and named by a key from then on. */
export type ToWorker =
  | { readonly key: string; readonly plan: Plan }
  | { readonly key: string; readonly id: number; readonly question: Question };

export type FromWorker =
  { readonly id: number; readonly value: unknown } | { readonly id: number; readonly error: string };
