import { subtract, union } from '../when';
import type { Finding } from './findings';

/**
 * The findings that a plan before did not have: of another kind, about other things, on more screens, or at times that were fine
 * before. Findings that both plans have are left out.
 */
export function newFindings(before: readonly Finding[], after: readonly Finding[]): Finding[] {
  const known = new Map<string, Finding[]>();
  for (const one of before) known.set(keyOf(one), [...(known.get(keyOf(one)) ?? []), one]);
  return after.filter((one) => {
    const same = known.get(keyOf(one));
    if (!same) return true;
    const screens = new Set(same.flatMap((other) => other.screens));
    const times = union(same.flatMap((other) => [...other.times]));
    return one.screens.some((id) => !screens.has(id)) || subtract(one.times, times).length > 0;
  });
}

const keyOf = ({ kind, about }: Finding) => JSON.stringify([kind, [...about].sort()]);
