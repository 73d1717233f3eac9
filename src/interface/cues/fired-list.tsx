'use client';

import type { Fired } from '@/services/cues';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { selectorWithNames } from '@/core/selector';
import { timeNear } from '@/interface/kit/words/format';
import { screensWords } from './words';

const FEW = 10;

/** What was fired and ended last: when, where and by whom. */
export function FiredList({ fired }: { fired: readonly Fired[] }) {
  const { draft } = useNetwork('draft');
  const { now } = useMoment();
  const zone = useZone();
  if (fired.length === 0) return null;
  return (
    <section aria-labelledby="fired" className="mt-8 border-t border-rule pt-4">
      <h2 id="fired" className="text-lg">
        Fired lately
      </h2>
      <ol className="mt-1">
        {fired.slice(0, FEW).map(({ id, name, at, end, where, screens, by }) => (
          <li key={id} className="flex flex-wrap gap-x-3 py-0.5">
            <span className="font-code text-xs leading-6">{timeNear(Date.parse(at), now, zone)}</span>
            <span>
              {name} {end ? 'ended' : 'fired'}
              {where !== null && ` at ${selectorWithNames(where, draft)}`}
            </span>
            <span className="text-faint">
              {screensWords(screens)}
              {by !== null && `, by ${by}`}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
