'use client';

import { useMemo } from 'react';
import { MINUTE } from '@/core/instant';
import type { Plan } from '@/core/plan';
import { parseSelector, screensMatching } from '@/core/selector';
import { dateOfLocalTime, startOfDate, toLocalTime, zoneTable, type PhraseContext } from '@/core/when';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';

/** What a sentence about time is read against, and on whose clock its "now" and "today" are. */
export interface SaidContext extends PhraseContext {
  /** The zone whose clock is meant. */
  readonly zone: string;
  /** Whether the screens that it is for have clocks that differ. */
  readonly mixed: boolean;
}

/**
 * What a sentence about time is read against: the plan's calendars and zones, and the clock of the screens that it is for (`where`, a selector).
 * Where these have several clocks, or none are meant, it is that of the first site.
 */
export function usePhraseContext(where?: string): SaidContext {
  const { draft } = useNetwork('draft');
  const { now } = useMoment();
  const zones = useMemo(() => zonesOf(draft, where), [draft, where]);
  const zone = zones[0] ?? draft.sites[0]?.timeZone ?? 'UTC';
  const wall = toLocalTime(zoneTable(zone), now);
  const today = dateOfLocalTime(wall);
  // In whole minutes, so that a passing second reads nothing again.
  const time = Math.floor((wall - startOfDate(today)) / MINUTE) * MINUTE;
  const mixed = zones.length > 1;
  return useMemo(
    () => ({
      ...{ today, time, zone, mixed, calendars: draft.calendars },
      zones: [...new Set(draft.sites.map((site) => site.timeZone))],
    }),
    [today, time, zone, mixed, draft],
  );
}

/** The zones of the screens that a selector means, in the order of the sites; none where it means none. */
export function zonesOf(plan: Plan, where: string | undefined): string[] {
  const selector = where === undefined || where.trim() === '' ? null : parseSelector(where);
  if (!selector?.ok) return [];
  const sites = new Set(screensMatching(plan, selector.value).map(({ site }) => site));
  return [...new Set(plan.sites.filter(({ id }) => sites.has(id)).map(({ timeZone }) => timeZone))];
}
