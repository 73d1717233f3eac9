'use client';

import { X } from 'lucide-react';
import { useEffect, useMemo, useRef } from 'react';
import { useEditionPlan } from '@/interface/data/queries';
import { Select } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import type { Edition } from '@/services/editions';
import { Comparison } from './comparison';

/** The numbers of two editions, the one that is compared first. */
export type Compared = readonly [number, number];

/** Any two editions side by side: by what shows on all screens of either. */
export function EditionsCompared({
  editions,
  compared,
  onChange,
}: {
  editions: readonly Edition[];
  compared: Compared;
  /** Null closes it. */
  onChange: (compared: Compared | null) => void;
}) {
  const box = useRef<HTMLElement>(null);
  // The comparison is above the list in which it was asked for.
  useEffect(() => box.current?.focus(), []);
  const [before, after] = [usePlanOfEdition(compared[0]), usePlanOfEdition(compared[1])];
  const screens = useMemo(
    () => [...new Set([...(before.plan?.plan.screens ?? []), ...(after.plan?.plan.screens ?? [])].map(({ id }) => id))],
    [before.plan, after.plan],
  );
  const choose = (place: 0 | 1) => (
    <Select
      aria-label={place === 0 ? 'Compare' : 'with'}
      value={compared[place]}
      onChange={({ target }) => onChange(compared.with(place, Number(target.value)) as unknown as Compared)}
      className="!w-auto"
    >
      {editions.map(({ number }) => (
        <option key={number} value={number}>
          edition {number}
        </option>
      ))}
    </Select>
  );
  const failed = before.failed || after.failed;
  return (
    <section ref={box} tabIndex={-1} aria-label="Editions compared" className="mb-10 border border-rule p-4">
      <div className="flex flex-wrap items-center gap-2">
        <span>Compare</span> {choose(0)} <span>with</span> {choose(1)}
        <button type="button" aria-label="Close" onClick={() => onChange(null)} className="ml-auto p-1 hover:text-tide">
          <X size={18} aria-hidden />
        </button>
      </div>
      {failed ? (
        <p role="alert" className="mt-3 text-brick">
          One of the two couldn’t be loaded. It may no longer be kept. Choose another, or try again.
        </p>
      ) : before.plan && after.plan ? (
        <Comparison
          name={`Edition ${compared[1]} against edition ${compared[0]}`}
          before={before.plan}
          after={after.plan}
          screens={screens}
          sameWords={(count) => `${counted(count, 'screen')} ${count === 1 ? 'shows' : 'show'} the same in this time`}
        />
      ) : (
        <p className="mt-3 text-faint">Loading both…</p>
      )}
    </section>
  );
}

function usePlanOfEdition(number: number) {
  const { data, isError } = useEditionPlan(number);
  const plan = useMemo(() => (data ? { key: `edition-${data.number}`, plan: data.plan } : null), [data]);
  return { plan, failed: isError };
}
