'use client';

import { useMemo } from 'react';
import type { Facts } from '@/core/health';
import { useNetwork } from '@/interface/data/provider';
import { useScreensOverview } from '@/interface/data/queries';
import type { ScreenOverview } from '@/services/health';
import type { ScreenStatus } from '@/services/screens';

/** What is known of a screen: its state as it is now, and what was written down of it. */
export function factsOf(status: ScreenStatus | undefined, overview: ScreenOverview | undefined): Facts {
  const { usedBytes, limitBytes } = overview ?? {};
  return {
    state: status?.state ?? 'unpaired',
    troubles: status?.troubles ?? [],
    since: overview?.since ?? null,
    lastSeen: status?.lastSeen ? Date.parse(status.lastSeen) : null,
    wasDarkYesterday: overview?.wasDarkYesterday ?? false,
    clockMs: overview?.clockMs ?? null,
    freeStorage: usedBytes != null && limitBytes ? Math.max(0, 1 - usedBytes / limitBytes) : null,
  };
}

const NONE: ReadonlyMap<string, ScreenOverview> = new Map();

/** What was written down of all screens, by their ids: empty until it is here, or while it isn't asked for. */
export function useOverview(enabled = true): ReadonlyMap<string, ScreenOverview> {
  return useScreensOverview(enabled) ?? NONE;
}

/** The facts of a screen by its id. */
export function useFacts(enabled = true): (id: string) => Facts {
  const { statuses } = useNetwork('statuses');
  const overview = useOverview(enabled);
  return useMemo(() => (id: string) => factsOf(statuses.get(id), overview.get(id)), [statuses, overview]);
}
