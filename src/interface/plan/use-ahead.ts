'use client';

import type { LocalOccasion } from '@/core/booking';
import type { Patch, Site } from '@/core/plan';
import type { LocalDate } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { ask, useNewest } from '@/interface/forecast/client';
import type { OutcomeAnswer } from '@/interface/forecast/messages';

/** What shows on the dates `first`..`last` of the draft, with edits that are not made yet: null until it is known. */
export function useOutcome(
  first: LocalDate,
  last: LocalDate,
  edits: readonly Patch[] | undefined,
  where?: string,
  limit?: number,
  of?: string,
): OutcomeAnswer | null {
  const { drafted } = useNetwork('drafted');
  return useNewest(
    () => ask(drafted, { kind: 'outcome', first, last, edits, where, limit, of }),
    [drafted, first, last, edits, where, limit, of],
  );
}

/** All bookings' occasions on the dates `first`..`last` as a wall of `site` reads them; with edits that are not made yet. */
export function useSightings(
  site: Site,
  first: LocalDate,
  last: LocalDate,
  edits?: readonly Patch[],
): readonly LocalOccasion[] | null {
  const { drafted } = useNetwork('drafted');
  return useNewest(
    () => ask(drafted, { kind: 'localOccasions', site, first, last, edits }),
    [drafted, site, first, last, edits],
  );
}
