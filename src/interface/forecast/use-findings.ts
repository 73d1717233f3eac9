'use client';

import { HOUR, type Instant } from '@/core/instant';
import type { Finding } from '@/core/preflight';
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
  // In whole hours, so that a passing second asks nothing again.
  const hour = Math.floor(useMoment().now / HOUR) * HOUR;
  return useNewest(() => findingsOf(plan, from, to, hour), [plan, from, to, hour]);
}

/** The last answers and the questions under way, so that two parts with the same question ask once. */
const asked = new Map<string, Promise<readonly Finding[]>>();
const KEPT = 4;

/** What is worth knowing of a plan in `[from, to)`, with what is over by `now`. Rejects where it can't be worked out. */
export function findingsOf(plan: NamedPlan, from: Instant, to: Instant, now: Instant): Promise<readonly Finding[]> {
  const key = [from, to, now, plan.key].join();
  const known = asked.get(key);
  if (known) return known;
  const answer = ask(plan, { kind: 'findings', from, to, now }).then((packed) => packed.map(unpack));
  answer.catch(() => asked.delete(key));
  asked.set(key, answer);
  for (const old of [...asked.keys()].slice(0, -KEPT)) asked.delete(old);
  return answer;
}
