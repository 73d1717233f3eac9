'use client';

import { group } from 'd3-array';
import { useRouter, useSearchParams } from 'next/navigation';
import { memo, useCallback, useMemo, useState } from 'react';
import { describeWhen, parseSelector, screensMatching, type Plan, type Screen } from '@/core';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/button';
import { Empty } from '@/interface/kit/empty';
import { Input } from '@/interface/kit/field';
import { clockTime, counted, zoneName } from '@/interface/kit/format';
import { Lantern, STATE_WORDS } from '@/interface/kit/lantern';
import { Sheet } from '@/interface/kit/sheet';
import type { ScreenStatus } from '@/services/screens';
import { useMoment } from '@/interface/data/moment';
import { PairForm } from './pair-form';
import { ScreenForm } from './screen-form';
import { SiteForm } from './site-form';

/** About how high a site stands without its screens, and each of these, in pixels. */
const [SITE_HEIGHT, ROW_HEIGHT] = [70, 34];

/** What the sheet shows: a site or a screen, known or new. */
type Open = { kind: 'site'; id: string | null } | { kind: 'screen'; id: string | null; site: string } | null;

/** Every site and screen: state, player, and what is decided for them. */
export function ScreensPlace() {
  const { draft, statuses: status } = useNetwork('draft', 'statuses');
  const router = useRouter();
  const wanted = useSearchParams().get('screen');
  const index = useIndex(draft);
  const [search, setSearch] = useState('');
  const [open, setOpen] = useState<Open>(() => {
    const screen = wanted === null ? undefined : index.screens.get(wanted);
    return screen ? { kind: 'screen', id: screen.id, site: screen.site } : null;
  });
  const shown = useMemo(() => found(draft, search), [draft, search]);
  const screensOf = useMemo(() => group(shown, (one) => one.site), [shown]);
  const openScreen = useCallback(({ id, site: of }: Screen) => setOpen({ kind: 'screen', id, site: of }), []);
  const site = open?.kind === 'site' && open.id ? (index.sites.get(open.id) ?? null) : null;
  const screen = open?.kind === 'screen' && open.id ? (index.screens.get(open.id) ?? null) : null;
  const close = () => {
    setOpen(null);
    if (wanted !== null) router.replace('/screens');
  };

  return (
    <div className="px-6 pb-8">
      <div className="sticky top-0 z-10 flex items-center gap-5 bg-paper py-3">
        <h1 className="sr-only">Screens</h1>
        <div className="w-72">
          <Input
            data-search
            aria-label="Find screens"
            placeholder="Find by name, or by tags as in quay and hall"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        </div>
        <p className="text-faint">{counted(shown.length, 'screen')}</p>
        <Button variant="main" className="ml-auto" onClick={() => setOpen({ kind: 'site', id: null })}>
          Add site
        </Button>
      </div>
      {draft.sites.length === 0 && (
        <Empty title="No sites yet">A site is a place with a clock of its own. Add the first, then its screens.</Empty>
      )}
      {draft.sites.map((one) => {
        const screens = screensOf.get(one.id) ?? [];
        if (search && screens.length === 0) return null;
        return (
          // Sites out of sight are not laid out: a network may have hundreds, with thousands of screens.
          <section
            key={one.id}
            aria-label={one.name}
            className="border-t border-rule py-4 [content-visibility:auto]"
            style={{ containIntrinsicSize: `auto ${SITE_HEIGHT + screens.length * ROW_HEIGHT}px` }}
          >
            <header className="flex items-baseline gap-4">
              <h2 className="text-lg">
                <button type="button" onClick={() => setOpen({ kind: 'site', id: one.id })} className="hover:text-tide">
                  {one.name}
                </button>
              </h2>
              <p className="font-code text-xs text-faint">
                <Clock zone={one.timeZone} /> {zoneName(one.timeZone)}
              </p>
              <p className="text-sm text-tide">{one.tags?.join(', ')}</p>
              <Button
                variant="quiet"
                className="ml-auto"
                onClick={() => setOpen({ kind: 'screen', id: null, site: one.id })}
              >
                Add screen
              </Button>
            </header>
            <table className="mt-1 w-full table-fixed text-left">
              <thead className="sr-only">
                <tr>
                  <th>State</th>
                  <th>Screen</th>
                  <th>Size</th>
                  <th>Tags</th>
                  <th>Lights out</th>
                  <th>Trouble</th>
                </tr>
              </thead>
              <tbody>
                {screens.map((entry) => (
                  <Row key={entry.id} screen={entry} status={status.get(entry.id)} onOpen={openScreen} />
                ))}
              </tbody>
            </table>
            {screens.length === 0 && <p className="py-2 text-sm text-faint">No screens here yet.</p>}
          </section>
        );
      })}
      <Sheet
        open={open !== null && (open.id === null || site !== null || screen !== null)}
        title={open?.kind === 'site' ? (site?.name ?? 'A new site') : (screen?.name ?? 'A new screen')}
        onClose={close}
      >
        {open?.kind === 'site' && <SiteForm key={open.id} site={site} onDone={close} />}
        {open?.kind === 'screen' && (
          <>
            {screen && <PairForm screen={screen} status={status.get(screen.id)} />}
            <ScreenForm
              key={open.id}
              screen={screen}
              site={open.site}
              onDone={(id) => (id ? setOpen({ kind: 'screen', id, site: open.site }) : close())}
            />
          </>
        )}
      </Sheet>
    </div>
  );
}

function Clock({ zone }: { zone: string }) {
  const { now } = useMoment();
  return clockTime(now, zone, false);
}

const Row = memo(function Row({
  screen,
  status,
  onOpen,
}: {
  screen: Screen;
  status: ScreenStatus | undefined;
  onOpen: (screen: Screen) => void;
}) {
  const state = status?.state ?? 'unpaired';
  const { download } = status ?? {};
  return (
    <tr className="border-t border-rule/60 hover:bg-well">
      <td className="w-32 py-1.5">
        <span className="flex items-center gap-2">
          <Lantern state={state} /> {STATE_WORDS[state]}
        </span>
      </td>
      <td className="w-56">
        <button
          type="button"
          onClick={() => onOpen(screen)}
          data-screen-row={screen.id}
          className="font-semibold underline-offset-2 hover:underline"
        >
          {screen.name}
        </button>
      </td>
      <td className="w-32 font-code text-xs text-faint">
        {screen.width} × {screen.height}
      </td>
      <td className="w-40 truncate text-sm text-tide">{screen.tags?.join(', ')}</td>
      <td className="w-48 truncate text-sm text-faint">
        {screen.lightsOut
          ?.map((when) => describeWhen(when))
          .join('; ')
          .replace(/^daily /, '')}
      </td>
      <td className="truncate text-sm text-brick">
        {download
          ? `${Math.round(download.doneBytes / 1e6)} of ${Math.round(download.totalBytes / 1e6)} MB fetched`
          : status?.troubles[0]}
      </td>
    </tr>
  );
});

/** The screens whose name holds what is searched, or that it selects as a selector. */
function found(plan: Plan, search: string): readonly Screen[] {
  const text = search.trim().toLowerCase();
  if (text === '') return plan.screens;
  const selector = parseSelector(text);
  const selected = new Set(selector.ok ? screensMatching(plan, selector.value) : []);
  return plan.screens.filter((screen) => selected.has(screen) || screen.name.toLowerCase().includes(text));
}
