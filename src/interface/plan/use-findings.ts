'use client';

import { HOUR, type Finding, type Instant } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { ask, useNewest } from '@/interface/forecast/client';
import { unpack } from '@/interface/forecast/packed';

/** What is worth knowing of the draft in `[from, to)`; null until it is known. */
export function useFindings(from: Instant, to: Instant): readonly Finding[] | null {
  const { drafted } = useNetwork('drafted');
  // In whole hours, so that a passing second asks nothing anew.
  const hour = Math.floor(useMoment().now / HOUR) * HOUR;
  return useNewest(
    async () => (await ask(drafted, { kind: 'findings', from, to, now: hour })).map(unpack),
    [drafted, from, to, hour],
  );
}
