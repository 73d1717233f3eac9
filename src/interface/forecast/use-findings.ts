'use client';

import { HOUR, type Finding, type Instant } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import type { NamedPlan } from '@/interface/data/state';
import { ask, useNewest } from '@/interface/forecast/client';
import { unpack } from '@/interface/forecast/packed';

/** What is worth knowing of the draft in `[from, to)`; null until it is known. */
export function useFindings(from: Instant, to: Instant): readonly Finding[] | null {
  const { drafted } = useNetwork('drafted');
  return useFindingsOf(drafted, from, to);
}

/** The same of any plan. */
export function useFindingsOf(plan: NamedPlan, from: Instant, to: Instant): readonly Finding[] | null {
  // In whole hours, so that a passing second asks nothing anew.
  const hour = Math.floor(useMoment().now / HOUR) * HOUR;
  return useNewest(
    async () => (await ask(plan, { kind: 'findings', from, to, now: hour })).map(unpack),
    [plan, from, to, hour],
  );
}
