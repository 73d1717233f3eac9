'use client';

import { toLocalTime, zoneTable } from '@/core/when';
import { useMoment } from '@/interface/data/moment';
import type { TimeScale } from './scale';

/** Now, and the moment that is looked at, as lines over the layers: they move each second, and nothing else with them. */
export function Moments({ scale, zone }: { scale: TimeScale; zone: string }) {
  const { moment, now } = useMoment();
  const table = zoneTable(zone);
  const lines = [
    { at: now, look: 'w-px bg-lamp' },
    { at: moment, look: 'w-[2px] bg-dusk' },
  ];
  return lines.map(({ at, look }) => (
    <div
      key={look}
      aria-hidden
      className={`pointer-events-none absolute inset-y-0 ${look}`}
      style={{ left: scale.x(toLocalTime(table, at)) }}
    />
  ));
}
