'use client';

import Link from 'next/link';
import { useMemo, useState } from 'react';
import { matches, parseSelector, screenTerms } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { Empty } from '@/interface/kit/empty';
import { Input } from '@/interface/kit/field';
import { counted } from '@/interface/kit/format';
import { Lantern, STATE_WORDS } from '@/interface/kit/lantern';
import type { ScreenState } from '@/services/screens';
import { ScreenAside } from './screen-aside';
import { Street } from './street';
import { useGlances } from './use-glances';

const SIZES = { small: 64, middle: 104, large: 176 } as const;
export type TileSize = keyof typeof SIZES;

const STATES: readonly ScreenState[] = ['lit', 'behind', 'dark', 'resting', 'unpaired'];

/** The network as streets: a row a site, a tile a screen, with what the forecast gives for the moment. */
export function NowPlace() {
  const { seen, statuses } = useNetwork();
  const { plan } = seen;
  const { isNow, selected, select } = useMoment();
  const index = useIndex(plan);
  const glances = useGlances();
  const [where, setWhere] = useState('');
  const [size, setSize] = useState<TileSize>('middle');

  const parsed = where.trim() === '' ? null : parseSelector(where);
  const error = parsed && 'error' in parsed ? parsed.error : null;
  const shown = useMemo(() => {
    const selector = where.trim() === '' ? null : parseSelector(where);
    if (!selector || 'error' in selector) return plan.screens;
    return plan.screens.filter((screen) => matches(selector, screenTerms(screen, index.sites.get(screen.site)?.tags)));
  }, [plan, where, index]);
  const status = useMemo(() => new Map(statuses.map((one) => [one.id, one])), [statuses]);
  const counts = STATES.map((state) => ({
    state,
    n: shown.filter((one) => (status.get(one.id)?.state ?? 'unpaired') === state).length,
  })).filter(({ n }) => n > 0);
  const chosen = selected.size === 1 ? index.screens.get([...selected][0] ?? '') : undefined;

  if (plan.screens.length === 0)
    return (
      <Empty
        title="No screens yet"
        action={
          <Link href="/screens" className="cut-small bg-dusk px-4 py-2 font-semibold text-on-dusk">
            Add a site and a screen
          </Link>
        }
      >
        Here the network will stand as streets, a row for each site, with what every screen shows.
      </Empty>
    );

  return (
    <div className="flex h-full min-h-0">
      <div className="min-w-0 flex-1 overflow-y-auto px-6 pb-6">
        <div className="sticky top-0 z-10 flex flex-wrap items-center gap-x-5 gap-y-2 bg-paper py-3">
          <h1 className="sr-only">Now</h1>
          <div className="w-72">
            <Input
              data-search
              aria-label="Show only screens that match"
              placeholder="All screens: type tags, as quay and not staff"
              value={where}
              onChange={(event) => setWhere(event.target.value)}
              invalid={error !== null}
            />
          </div>
          {error ? (
            <p role="alert" className="text-sm text-brick">
              {error}
            </p>
          ) : (
            <ul className="flex items-center gap-4" aria-label="States">
              <li className="text-faint">{counted(shown.length, 'screen')}</li>
              {counts.map(({ state, n }) => (
                <li key={state} className="flex items-center gap-1.5">
                  <Lantern state={state} /> {n} {STATE_WORDS[state]}
                </li>
              ))}
            </ul>
          )}
          <fieldset className="ml-auto flex border border-rule" aria-label="Size of tiles">
            {(Object.keys(SIZES) as TileSize[]).map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={size === one}
                onClick={() => setSize(one)}
                className={`px-2.5 py-1 text-sm ${size === one ? 'bg-well font-semibold' : 'text-faint hover:text-ink'}`}
              >
                {one}
              </button>
            ))}
          </fieldset>
        </div>
        {plan.sites.map((site) => {
          const screens = shown.filter((screen) => screen.site === site.id);
          if (screens.length === 0) return null;
          return (
            <Street
              key={site.id}
              site={site}
              screens={screens}
              glances={glances}
              status={status}
              index={index}
              height={SIZES[size]}
              mini={size === 'small'}
              dimDark={isNow}
              selected={selected}
              onSelect={(id) => select(selected.has(id) ? new Set() : new Set([id]))}
            />
          );
        })}
        {shown.length === 0 && <p className="py-10 text-faint">No screen matches this selector.</p>}
      </div>
      {chosen && (
        <ScreenAside
          screen={chosen}
          glance={glances.get(chosen.id)}
          status={status.get(chosen.id)}
          onClose={() => select(new Set())}
        />
      )}
    </div>
  );
}
