'use client';

import { useMemo } from 'react';
import { chosenPlan } from '@/core/edition';
import type { ObjectKey } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';
import type { NamedPlan } from '@/interface/data/state';

/** The draft, or the newest edition with a choice of the draft's changes. */
export function usePlanOf(chosen: readonly ObjectKey[] | null): NamedPlan {
  const { drafted, published } = useNetwork('drafted', 'published');
  const choice = chosen === null ? null : JSON.stringify(chosen);
  return useMemo(() => {
    if (choice === null || !published) return drafted;
    const keys = JSON.parse(choice) as ObjectKey[];
    return {
      key: `${drafted.key} of ${published.key} with ${choice}`,
      plan: chosenPlan(published.plan, drafted.plan, keys).plan,
    };
  }, [choice, drafted, published]);
}
