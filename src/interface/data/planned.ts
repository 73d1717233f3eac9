'use client';

import { useQueries, useQuery } from '@tanstack/react-query';
import type { Instant } from '@/core/instant';
import type { Plan } from '@/core/plan';
import type { Planned } from '@/services/editions';
import { adoptZonesOf, asked } from './queries';
import type { SwitchStep } from './reaching';
import type { NamedPlan } from './state';

/** Editions that wait, as a page knows them: the list, and the plans of those that are looked at. */

const NONE: readonly Planned[] = [];

/** What waits, the earliest first: none until it is here. Asked for again with every edition, and while players get ready. */
export function usePlanned({ refresh = false } = {}): readonly Planned[] {
  return (
    useQuery({
      queryKey: ['editions', 'planned'],
      queryFn: () => asked<readonly Planned[]>('/api/planned'),
      refetchInterval: ({ state }) => (refresh && state.data?.length ? 5000 : false),
    }).data ?? NONE
  );
}

async function plannedPlan(id: string): Promise<NamedPlan> {
  const plan = await asked<Plan>(`/api/planned/${id}`);
  await adoptZonesOf(plan);
  return { key: `planned-${id}`, plan };
}

/** The plan of one that waits: undefined until it is here. */
export const usePlannedPlan = (id: string) => useQuery({ queryKey: ['planned', id], queryFn: () => plannedPlan(id) });

/** A step of one that waits, with its plan: undefined until it is here. */
export interface Ahead extends SwitchStep {
  readonly plan: NamedPlan | undefined;
  readonly failed: boolean;
}

/** Those of some steps that come before an instant, with their plans. */
export function useAhead(steps: readonly SwitchStep[], before: Instant): readonly Ahead[] {
  const near = steps.filter(({ at }) => at < before);
  const ids = [...new Set(near.map(({ id }) => id))];
  return useQueries({
    queries: ids.map((id) => ({
      // What waits never changes: another plan has another id.
      queryKey: ['planned', id],
      queryFn: () => plannedPlan(id),
    })),
    combine: (results) =>
      near.map((step) => {
        const result = results[ids.indexOf(step.id)];
        return { ...step, plan: result?.data, failed: result?.isError ?? false };
      }),
  });
}
