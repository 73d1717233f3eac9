'use client';

import { group } from 'd3-array';
import Link from 'next/link';
import { memo, useCallback, useMemo, useState, type CSSProperties } from 'react';
import type { Problem } from '@/core/health';
import type { Screen, Site } from '@/core/plan';
import { searchable } from '@/core/text';
import { describeWhen } from '@/core/when';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { Empty } from '@/interface/kit/controls/empty';
import { SearchField } from '@/interface/kit/controls/field';
import { findScreens } from '@/interface/kit/screens/find-screens';
import { clockTime, counted, zoneName } from '@/interface/kit/words/format';
import { Lantern, STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { Sheet } from '@/interface/kit/controls/sheet';
import type { ScreenStatus } from '@/services/screens';
import { useMoment } from '@/interface/data/moment';
import { useWanted } from '@/interface/shell/use-wanted';
import { PairForm } from './pair-form';
import { PairMany } from './pair-many/pair-many';
import { ProblemFilter, useWithProblem } from './problem-filter';
import { ScreenForm } from './screen-form';
import { SiteForm } from './site-form';
import { ScreenViews } from './views';

/** The columns of the list, and how wide each is. */
const COLUMNS = [
  { name: 'State', width: 'w-32' },
  { name: 'Screen', width: 'w-56' },
  { name: 'Size', width: 'w-32' },
  { name: 'Tags', width: 'w-40' },
  { name: 'Lights out', width: 'w-48' },
  { name: 'Trouble', width: 'flex-1' },
];

/** What the sheet shows: a site or a screen, known or new. */
type Open =
  | { kind: 'site'; id: string | null }
  | { kind: 'pair-many'; id: null }
  | { kind: 'screen'; id: string | null; site: string }
  | null;

/** Every site and screen: state, player, and what is decided for them. */
export function ScreensPlace() {
  const { draft, statuses: status } = useNetwork('draft', 'statuses');
  const index = useIndex(draft);
  const [search, setSearch] = useState('');
  const [open, setOpen] = useState<Open>(null);
  useWanted((wanted) => {
    const screen = index.screens.get(wanted.get('screen') ?? '');
    const place = index.sites.get(wanted.get('site') ?? '');
    if (screen) setOpen({ kind: 'screen', id: screen.id, site: screen.site });
    else if (place) setOpen({ kind: 'site', id: place.id });
    else if (wanted.get('pair') !== null) setOpen({ kind: 'pair-many', id: null });
    else if (wanted.get('add') === 'site') setOpen({ kind: 'site', id: null });
    else if (wanted.get('add') === 'screen') {
      // A screen belongs to a site, so without one the site comes first.
      const [first] = draft.sites;
      setOpen(first ? { kind: 'screen', id: null, site: first.id } : { kind: 'site', id: null });
    }
  });
  const found = useMemo(() => findScreens(draft, search), [draft, search]);
  const [problem, setProblem] = useState<Problem | null>(null);
  const shown = useWithProblem(found, problem);
  const screensOf = useMemo(() => group(shown, (one) => one.site), [shown]);
  const openScreen = useCallback(({ id, site: of }: Screen) => setOpen({ kind: 'screen', id, site: of }), []);
  const site = open?.kind === 'site' && open.id ? (index.sites.get(open.id) ?? null) : null;
  const screen = open?.kind === 'screen' && open.id ? (index.screens.get(open.id) ?? null) : null;
  const close = () => setOpen(null);

  return (
    <div className="px-3 pb-8 sm:px-6">
      <div className="sticky top-0 z-10 flex flex-wrap items-center gap-x-5 gap-y-2 bg-paper py-3">
        <h1 className="sr-only">Screens</h1>
        <SearchField label="Find screens" placeholder="Find by name or tag" value={search} onChange={setSearch} />
        <ProblemFilter value={problem} onChange={setProblem} />
        <p className="text-faint">{counted(shown.length, 'screen')}</p>
        <ScreenViews here="/screens" />
        <p className="ml-auto flex gap-3">
          <Button needs="operate" onClick={() => setOpen({ kind: 'pair-many', id: null })}>
            Pair several
          </Button>
          <Button needs="plan" variant="main" onClick={() => setOpen({ kind: 'site', id: null })}>
            Add site
          </Button>
        </p>
        {shown.length > 0 && (
          // For the eye: each site's table has its own for those who hear it.
          <div aria-hidden className="flex w-full text-xs text-faint max-lg:hidden">
            {COLUMNS.map(({ name, width }) => (
              <span key={name} className={width}>
                {name}
              </span>
            ))}
          </div>
        )}
      </div>
      {draft.sites.length === 0 && (
        <Empty title="No sites yet">A site is a place with a clock of its own. Add the first, then its screens.</Empty>
      )}
      {shown.length === 0 && draft.screens.length > 0 && (
        <p className="py-6 text-faint">{problem ? 'No screen is like this.' : 'No screen has this name or tag.'}</p>
      )}
      {draft.sites.map((one) => {
        const screens = screensOf.get(one.id) ?? [];
        if (screens.length === 0 && (problem || (search.trim() && !isCalled(one, search)))) return null;
        return (
          // Sites out of sight are not laid out: a network may have hundreds, with thousands of screens.
          <section
            key={one.id}
            aria-label={one.name}
            // About how high it stands: its head, and each row, which has two lines where there is little room.
            className="border-t border-rule py-4 [contain-intrinsic-size:auto_calc(70px+var(--rows)*34px)] [content-visibility:auto] max-lg:[contain-intrinsic-size:auto_calc(90px+var(--rows)*64px)]"
            style={{ '--rows': screens.length } as CSSProperties}
          >
            <header className="flex flex-wrap items-baseline gap-x-4">
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
                needs="plan"
                variant="quiet"
                className="ml-auto"
                onClick={() => setOpen({ kind: 'screen', id: null, site: one.id })}
              >
                Add screen
              </Button>
            </header>
            <table className="mt-1 w-full text-left max-lg:block lg:table-fixed">
              <colgroup className="max-lg:hidden">
                {COLUMNS.map(({ name, width }) => (
                  <col key={name} className={width} />
                ))}
              </colgroup>
              <thead className="sr-only">
                <tr>
                  {COLUMNS.map(({ name }) => (
                    <th key={name}>{name}</th>
                  ))}
                </tr>
              </thead>
              <tbody className="max-lg:block">
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
        title={titleOf(open, site, screen, index.sites)}
        onClose={close}
      >
        {open?.kind === 'pair-many' && <PairMany onDone={close} />}
        {open?.kind === 'site' && <SiteForm key={open.id} site={site} onDone={close} />}
        {open?.kind === 'screen' && (
          <>
            {screen && (
              <Link
                href={`/screens/${encodeURIComponent(screen.id)}`}
                className="mb-4 inline-block text-tide underline underline-offset-2"
              >
                Open the screen’s page
              </Link>
            )}
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

const isCalled = ({ name }: Site, search: string) => searchable(name).includes(searchable(search));

/** Two screens may have the same name, so their sites are named too. */
function titleOf(open: Open, site: Site | null, screen: Screen | null, sites: ReadonlyMap<string, Site>): string {
  if (open?.kind === 'pair-many') return 'Pair several players';
  if (open?.kind === 'site') return site?.name ?? 'A new site';
  return screen ? `${sites.get(screen.site)?.name ?? ''} · ${screen.name}` : 'A new screen';
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
    <tr className="border-t border-rule/60 hover:bg-well max-lg:flex max-lg:flex-wrap max-lg:items-baseline max-lg:gap-x-4 max-lg:py-1.5">
      <td className="lg:w-32 lg:py-1.5">
        <span className="flex items-center gap-2">
          <Lantern state={state} /> {STATE_WORDS[state]}
        </span>
      </td>
      <td className="max-lg:order-first max-lg:w-full lg:w-56">
        <button
          type="button"
          onClick={() => onOpen(screen)}
          data-screen-row={screen.id}
          className="min-h-6 font-semibold underline-offset-2 hover:underline"
        >
          {screen.name}
        </button>
      </td>
      <td className="font-code text-xs text-faint lg:w-32">
        {screen.width} × {screen.height}
      </td>
      <td className="truncate text-sm text-tide lg:w-40">{screen.tags?.join(', ')}</td>
      <td className="truncate text-sm text-faint lg:w-48">
        {screen.lightsOut
          ?.map((when) => describeWhen(when))
          .join('; ')
          .replace(/^daily /, '')}
      </td>
      <td className="text-sm text-brick lg:truncate">
        {download
          ? `${Math.round(download.doneBytes / 1e6)} of ${Math.round(download.totalBytes / 1e6)} MB fetched`
          : status?.troubles[0]}
      </td>
    </tr>
  );
});
