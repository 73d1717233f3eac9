'use client';

import { useState, type ReactNode } from 'react';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useFiringScreens } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { clockTime } from '@/interface/kit/words/format';
import { Lantern } from '@/interface/kit/lantern/lantern';
import type { Firing, ShownOn } from '@/services/editions';

/** Some of the screens of a takeover that was fired, asked for once one opens them. */
export function FiringScreens({
  firing,
  only,
  title,
  states = false,
}: {
  firing: Firing;
  only: (screen: ShownOn) => boolean;
  title: ReactNode;
  /** Whether how each stands now is said beside it. */
  states?: boolean;
}) {
  const { draft, statuses } = useNetwork('draft', 'statuses');
  const index = useIndex(draft);
  const zone = useZone();
  const [open, setOpen] = useState(false);
  const list = useFiringScreens(open ? firing : null)?.filter(only);
  const at = (text: string) => clockTime(Date.parse(text), zone, true);
  return (
    <details className="text-sm" onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
      <summary className="cursor-pointer py-1">{title}</summary>
      {open && !list && <p className="text-faint">Asking which…</p>}
      <ul>
        {list?.map(({ screen, from, to, over }) => {
          const known = index.screens.get(screen);
          return (
            <li key={screen} className="flex flex-wrap items-center gap-x-3 py-0.5">
              {states && <Lantern state={statuses.get(screen)?.state ?? 'unpaired'} />}
              <span>{known ? `${index.sites.get(known.site)?.name ?? ''} · ${known.name}` : screen}</span>
              {from !== null && to !== null && (
                <span className="font-code text-xs leading-5">
                  {at(from)} to {at(to)}
                  {!over && ', offline since then'}
                </span>
              )}
            </li>
          );
        })}
      </ul>
    </details>
  );
}
