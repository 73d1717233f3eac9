'use client';

import { useMemo } from 'react';
import { MINUTE, dateOfLocalTime, startOfDate, toLocalTime, zoneTable, type PhraseContext } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';

/** What a sentence about time is read against: the plan's calendars and zones, and the day of the first site. */
export function usePhraseContext(): PhraseContext {
  const { draft } = useNetwork('draft');
  const { now } = useMoment();
  const zone = draft.sites[0]?.timeZone ?? 'UTC';
  const wall = toLocalTime(zoneTable(zone), now);
  const today = dateOfLocalTime(wall);
  // In whole minutes, so that a passing second reads nothing anew.
  const time = Math.floor((wall - startOfDate(today)) / MINUTE) * MINUTE;
  return useMemo(
    () => ({ today, time, calendars: draft.calendars, zones: [...new Set(draft.sites.map((site) => site.timeZone))] }),
    [today, time, draft],
  );
}
