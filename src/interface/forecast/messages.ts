import type {
  AirTime,
  Booking,
  Change,
  Explanation,
  Finding,
  Glance,
  Instant,
  LocalDate,
  NeverShown,
  OutcomeRow,
  PlanEdit,
  Reach,
  Segment,
  Subject,
} from '@/core';

/** What the page asks of the forecast worker about a plan, and what it answers. */
export type Question =
  | { readonly kind: 'glances'; readonly at: Instant; readonly screens: readonly string[] }
  | { readonly kind: 'changes'; readonly from: Instant; readonly to: Instant; readonly screens?: readonly string[] }
  | { readonly kind: 'segments'; readonly screen: string; readonly from: Instant; readonly to: Instant }
  | { readonly kind: 'why'; readonly screen: string; readonly at: Instant }
  /** What shows on the dates `first`..`last`, with edits that are not made yet. */
  | {
      readonly kind: 'outcome';
      readonly first: LocalDate;
      readonly last: LocalDate;
      readonly edits?: readonly PlanEdit[] | undefined;
    }
  | { readonly kind: 'reach'; readonly booking: Booking }
  | { readonly kind: 'findings'; readonly from: Instant; readonly to: Instant }
  | { readonly kind: 'airtime'; readonly subject: Subject; readonly from: Instant; readonly to: Instant }
  | { readonly kind: 'never'; readonly from: Instant; readonly to: Instant };

export interface Answers {
  glances: readonly Glance[];
  changes: readonly Change[];
  segments: readonly Segment[];
  why: Explanation;
  outcome: readonly OutcomeRow[];
  reach: Reach;
  findings: readonly Finding[];
  airtime: readonly AirTime[];
  never: readonly NeverShown[];
}

/** Plans are sent once, and named by a key from then on. As text: for a large plan that is far quicker than a structured clone. */
export type ToWorker =
  | { readonly key: string; readonly plan: string }
  | { readonly key: string; readonly id: number; readonly question: Question };

export type FromWorker =
  { readonly id: number; readonly value: unknown } | { readonly id: number; readonly error: string };
