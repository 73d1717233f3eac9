'use client';

import type { Finding, Instant } from '@/core';
import { useNetwork } from '@/interface/data/provider';
import { ask, useNewest } from '@/interface/forecast/client';
import { unpack } from '@/interface/forecast/packed';

/** What is worth knowing of the draft in `[from, to)`; null until it is known. */
export function useFindings(from: Instant, to: Instant): readonly Finding[] | null {
  const { drafted } = useNetwork('drafted');
  return useNewest(async () => (await ask(drafted, { kind: 'findings', from, to })).map(unpack), [drafted, from, to]);
}
