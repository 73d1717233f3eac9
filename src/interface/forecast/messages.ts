import type { Season, LocalOccasion } from '@/core/booking';
import type { DifferenceGroup } from '@/core/edition';
import type {
  AirTime,
  Brought,
  Change,
  Explanation,
  Glance,
  Misfit,
  NeverShown,
  NextShown,
  OutcomeRow,
  PlaylistOn,
  Reach,
  Segment,
  Subject,
  Unplayable,
} from '@/core/forecast';
import type { KnownFiring } from '@/core/cues';
import type { Instant } from '@/core/instant';
import type { LayoutSeen } from '@/core/layouts';
import type { Booking, LoosePatch, Patch, Site } from '@/core/plan';
import type { Told } from '@/core/profiles';
import type { Besides, Finding, Fix } from '@/core/preflight';
import type { LocalDate, ZoneTable } from '@/core/when';
import type { PackedFinding } from './packed';

/** Whose clock and opening hours are meant. */
export type SiteClock = Pick<Site, 'timeZone' | 'hours'>;

/** What was fired, where a question is about what screens show. */
interface Fired {
  readonly firings?: readonly KnownFiring[];
}

/** What the page asks of the forecast worker about a plan, and what it answers. */
export type Question =
  | (Fired & { readonly kind: 'glances'; readonly at: Instant; readonly screens: readonly string[] })
  /** How each kind of screen sees a layout. */
  | (Fired & { readonly kind: 'layout'; readonly layout: string; readonly at: Instant })
  | (Fired & {
      readonly kind: 'changes';
      readonly from: Instant;
      readonly to: Instant;
      readonly screens?: readonly string[];
    })
  | (Fired & { readonly kind: 'segments'; readonly screen: string; readonly from: Instant; readonly to: Instant })
  | (Fired & { readonly kind: 'why'; readonly screen: string; readonly at: Instant })
  /** What shows on the dates `first`..`last`, with edits that are not made yet: on all screens, or on those of a selector. */
  | {
      readonly kind: 'outcome';
      readonly first: LocalDate;
      readonly last: LocalDate;
      readonly edits?: readonly Patch[] | undefined;
      readonly where?: string | undefined;
      /** A booking of which it is asked why it shows on none of these screens, by its id. */
      readonly of?: string | undefined;
      /** How many groups are wanted, the largest first; all of them where it is absent. */
      readonly limit?: number | undefined;
    }
  /** All bookings' occasions as a wall of `site` reads them, with edits that are not made yet. */
  | {
      readonly kind: 'localOccasions';
      readonly site: SiteClock;
      readonly first: LocalDate;
      readonly last: LocalDate;
      readonly edits?: readonly Patch[] | undefined;
    }
  | { readonly kind: 'seasons'; readonly site: SiteClock; readonly first: LocalDate; readonly last: LocalDate }
  | { readonly kind: 'reach'; readonly booking: Booking }
  /** What is over is over by `now`. */
  | { readonly kind: 'findings'; readonly from: Instant; readonly to: Instant; readonly now: Instant }
  /** What else the fixes of a finding change in `[from, to)`. */
  | {
      readonly kind: 'besides';
      readonly finding: Pick<Finding, 'screens' | 'times'>;
      readonly fixes: readonly Pick<Fix, 'edits'>[];
      readonly from: Instant;
      readonly to: Instant;
    }
  | { readonly kind: 'airtime'; readonly subject: Subject; readonly from: Instant; readonly to: Instant }
  /** When a file is seen next, from an instant on and to the end of the date `last`. */
  | {
      readonly kind: 'next';
      readonly media: string;
      readonly at: Instant;
      readonly first: LocalDate;
      readonly last: LocalDate;
    }
  /** The playlists that play on some screens at an instant. */
  | { readonly kind: 'playlists'; readonly screens: readonly string[]; readonly at: Instant }
  /** What each tag of a screen brings to it. */
  | { readonly kind: 'brought'; readonly screen: string }
  | { readonly kind: 'never'; readonly from: Instant; readonly to: Instant }
  /** What does not fit on these screens. */
  | { readonly kind: 'misfits'; readonly screens: readonly string[] }
  /** What screens are given and can't play, by their profiles and by what their players told. */
  | { readonly kind: 'unplayable'; readonly told: readonly (readonly [screen: string, told: Told])[] }
  /** How it differs from another plan, which was sent before: of some screens. */
  | {
      readonly kind: 'differences';
      readonly before: string;
      readonly from: Instant;
      readonly to: Instant;
      readonly screens: readonly string[];
    };

/** What shows, by groups of screens that see the same: as many as were asked for, of how many. */
export interface OutcomeAnswer {
  readonly rows: readonly OutcomeRow[];
  readonly groups: number;
  /** Why the booking that is asked of shows on none of them; null where it shows on one, and where none is asked of. */
  readonly whyNot: Pick<NeverShown, 'because' | 'hiddenBy'> | null;
}

export interface Answers {
  glances: readonly Glance[];
  layout: readonly LayoutSeen[];
  changes: readonly Change[];
  segments: readonly Segment[];
  why: Explanation;
  outcome: OutcomeAnswer;
  localOccasions: readonly LocalOccasion[];
  seasons: readonly Season[];
  reach: Reach;
  findings: readonly PackedFinding[];
  besides: readonly Besides[];
  airtime: readonly AirTime[];
  next: readonly NextShown[];
  playlists: readonly PlaylistOn[];
  brought: readonly Brought[];
  never: readonly NeverShown[];
  misfits: readonly Misfit[];
  unplayable: readonly Unplayable[];
  differences: readonly DifferenceGroup[];
}

/**
 * Plans are sent once, with the changes of their clocks, and named by a key from then on: the first as text, which for a large
 * plan is far quicker than a structured clone, later ones as what differs from one that was sent.
 */
export type ToWorker =
  | { readonly key: string; readonly plan: string; readonly zones: readonly ZoneTable[] }
  | {
      readonly key: string;
      readonly from: string;
      readonly patches: readonly LoosePatch[];
      readonly zones: readonly ZoneTable[];
    }
  | { readonly key: string; readonly id: number; readonly question: Question };

export type FromWorker =
  { readonly id: number; readonly value: unknown } | { readonly id: number; readonly error: string };
