'use client';

import { useMoment } from '@/interface/data/moment';
import { indexOf } from '@/interface/data/provider';
import { clockTime, dayName } from '@/interface/kit/words/format';
import type { DayPart } from './next-ahead';
import { sourceName } from './street';

/** What comes on a screen, a line a change. */
export function Coming({ coming, zone }: { coming: readonly DayPart[]; zone: string }) {
  const { moment, isNow } = useMoment();
  return (
    <ol className="mt-1 space-y-1 text-sm">
      {coming.map(({ segment, at, plan, waits }, i) => {
        const newDay = dayName(at, zone) !== dayName(coming[i - 1]?.at ?? moment, zone);
        return (
          <li key={at} className="flex gap-3">
            <span className="w-20 shrink-0 font-code text-xs leading-5 text-faint">
              {i === 0 ? (isNow ? 'now' : 'then') : clockTime(at, zone)}
            </span>
            <span>
              {sourceName(segment, indexOf(plan))}
              <span className="text-faint">
                {newDay && ` (${dayName(at, zone)})`}
                {waits && !coming[i - 1]?.waits && ', from here on as planned'}
              </span>
            </span>
          </li>
        );
      })}
    </ol>
  );
}
