'use client';

import Link from 'next/link';
import { useMemo, useState } from 'react';
import { parseSelector, screensMatching } from '@/core';
import { useMoment } from '@/interface/data/moment';
import type { Shown } from '@/interface/data/out-then';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { Empty } from '@/interface/kit/empty';
import { Input } from '@/interface/kit/field';
import { counted } from '@/interface/kit/format';
import { Lantern, STATE_WORDS } from '@/interface/kit/lantern';
import type { ScreenState } from '@/services/screens';
import { ScreenAside } from './screen-aside';
import type { TileSize } from './blocks';
import { Streets } from './streets';

const SIZES = {
  small: { height: 64, least: 0, caption: 0, gap: 8 },
  middle: { height: 104, least: 132, caption: 50, gap: 16 },
  large: { height: 176, least: 132, caption: 50, gap: 16 },
} as const satisfies Record<string, TileSize>;
type SizeName = keyof typeof SIZES;

/** From so many screens on, one begins with the thousand-at-a-glance size. */
const MANY = 400;

const STATES: readonly ScreenState[] = ['lit', 'behind', 'dark', 'resting', 'unpaired'];

/** The network as streets: a row a site, a tile a screen, with what the forecast gives for the moment. */
export function NowPlace() {
  const { statuses: status } = useNetwork('statuses');
  const { selected, select, isNow, shown: looked } = useMoment();
  const { plan } = looked.plan;
  const index = useIndex(plan);
  const [where, setWhere] = useState('');
  const [size, setSize] = useState<SizeName>(plan.screens.length > MANY ? 'small' : 'middle');

  const parsed = where.trim() === '' ? null : parseSelector(where);
  const error = parsed?.ok === false ? parsed.message : null;
  const shown = useMemo(() => {
    const selector = where.trim() === '' ? null : parseSelector(where);
    return selector?.ok ? screensMatching(plan, selector.value) : plan.screens;
  }, [plan, where]);
  const counts = useMemo(() => {
    const found = new Map<ScreenState, number>();
    for (const { id } of shown) {
      const state = status.get(id)?.state ?? 'unpaired';
      found.set(state, (found.get(state) ?? 0) + 1);
    }
    return STATES.flatMap((state) => (found.has(state) ? [{ state, n: found.get(state) ?? 0 }] : []));
  }, [shown, status]);
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
      <Streets
        screens={shown}
        size={SIZES[size]}
        mini={size === 'small'}
        head={
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
                {isNow ? (
                  counts.map(({ state, n }) => (
                    <li key={state} className="flex items-center gap-1.5">
                      <Lantern state={state} /> {n} {STATE_WORDS[state]}
                    </li>
                  ))
                ) : (
                  <li data-testid="by">{byWords(looked)}</li>
                )}
              </ul>
            )}
            <fieldset className="ml-auto flex border border-rule" aria-label="Size of tiles">
              {(Object.keys(SIZES) as SizeName[]).map((one) => (
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
        }
      />
      {chosen && <ScreenAside screen={chosen} status={status.get(chosen.id)} onClose={() => select(new Set())} />}
    </div>
  );
}

/** By whose word another moment's pictures are: nobody knows yet what players did show. */
function byWords(shown: Shown): string {
  switch (shown.by) {
    case 'plan':
      return 'as it is planned now';
    case 'edition':
      return `by edition ${shown.number}, which was out then`;
    case 'nothing':
      return shown.cleared ? 'the edition of that time is not kept any more' : 'nothing was published yet';
    case 'asking':
      return shown.failed
        ? 'the edition of that time could not be asked for: choose the moment again'
        : 'asking for the edition of that time…';
  }
}
