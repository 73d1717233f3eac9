'use client';

import type { ComponentProps } from 'react';
import { counted } from '@/interface/kit/words/format';
import { layerName, type Layer } from './layout';
import { Legend, OutcomeRows } from './outcome';

/** Below the layers: what shows of them, a row for each group of screens that see the same. */
export function WhatShows({
  outcome,
  isPreview,
  under,
  ...rows
}: Omit<ComponentProps<typeof OutcomeRows>, 'outcome'> & {
  /** Null while it is computed. */
  outcome: ComponentProps<typeof OutcomeRows>['outcome'] | null | undefined;
  /** Whether it shows a change that is in hand. */
  isPreview: boolean;
  /** Layers that are out of sight, further down. */
  under: readonly { readonly layer: Layer; readonly lanes: number }[];
}) {
  return (
    <section
      aria-label="What shows"
      className="max-h-[30%] shrink-0 scroll-pt-10 overflow-y-auto border-t-2 border-dusk px-3 pb-1 [scrollbar-gutter:stable] sm:px-6"
    >
      <div className="sticky top-0 z-10 flex items-baseline gap-5 bg-paper py-1">
        <h2 className="text-sm">What shows{isPreview ? ', with this change' : ''}</h2>
        <Legend hasAbove={outcome?.rows.some(({ above }) => above.length > 0) ?? false} />
        {under.length > 0 && (
          <p className="ml-auto text-xs text-faint">
            ↑ further down:{' '}
            {under.map(({ layer, lanes }) => `${layerName(layer)} (${counted(lanes, 'row')})`).join(', ')}
          </p>
        )}
      </div>
      {outcome ? <OutcomeRows outcome={outcome} {...rows} /> : <p className="text-faint">Computing…</p>}
    </section>
  );
}
