'use client';

import { group } from 'd3-array';
import Link from 'next/link';
import { useEffect, useMemo, useState } from 'react';
import type { Problem } from '@/core/health';
import { answered } from '@/interface/data/answered';
import { useMay } from '@/interface/data/may';
import { useNetwork } from '@/interface/data/provider';
import { useNewestGlimpses } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { Empty } from '@/interface/kit/controls/empty';
import { SearchField } from '@/interface/kit/controls/field';
import { Lantern } from '@/interface/kit/lantern/lantern';
import { findScreens } from '@/interface/kit/screens/find-screens';
import { clockTime, counted } from '@/interface/kit/words/format';
import { ProblemFilter, useWithProblem } from '@/interface/screens/problem-filter';
import { ScreenViews } from '@/interface/screens/views';
import { watchScreensAction } from '@/web/actions';
import { ScreenPicture, VerdictWords, worstOf } from './glimpse-picture';
import { VERDICT_WORDS } from './words';

/** So many pictures are kept fresh at once. */
const MOST = 60;
/** The server has pictures taken for a minute after each time that the page says so. */
const WATCH_AGAIN_MS = 30_000;

/** Pictures of many screens side by side: while this page is open, each player takes one every ten seconds. */
export function PicturesPlace() {
  const { draft, statuses } = useNetwork('draft', 'statuses');
  const [search, setSearch] = useState('');
  const zone = useZone();
  const sites = useMemo(() => new Map(draft.sites.map((site) => [site.id, site])), [draft]);
  const [problem, setProblem] = useState<Problem | null>(null);
  const paired = useMemo(
    () =>
      findScreens(draft, search).filter(
        (screen) => !screen.private && (statuses.get(screen.id)?.state ?? 'unpaired') !== 'unpaired',
      ),
    [draft, search, statuses],
  );
  const found = useWithProblem(paired, problem);
  const ids = useMemo(() => found.slice(0, MOST).map(({ id }) => id), [found]);
  const glimpses = useNewestGlimpses(ids);
  const newest = group(glimpses ?? [], ({ screen }) => screen);
  useWatch(ids);
  const isWrong = (id: string) => {
    const verdict = worstOf(newest.get(id) ?? [])?.verdict;
    return verdict != null && VERDICT_WORDS[verdict].isProblem;
  };
  // What is wrong is seen first.
  const shown = [...found.slice(0, MOST)].sort((a, b) => Number(isWrong(b.id)) - Number(isWrong(a.id)));
  const wrong = ids.filter(isWrong).length;
  return (
    <div className="px-3 pb-8 sm:px-6">
      <div className="sticky top-0 z-10 flex flex-wrap items-center gap-x-5 gap-y-2 bg-paper py-3">
        <h1 className="sr-only">Pictures</h1>
        <SearchField label="Find screens" placeholder="Find by name or tag" value={search} onChange={setSearch} />
        <ProblemFilter value={problem} onChange={setProblem} />
        <p className="text-faint">
          {found.length > MOST
            ? `The first ${MOST} of ${counted(found.length, 'screen')}. Search to see others.`
            : counted(found.length, 'screen')}
          {wrong > 0 && (
            <span className="text-brick">
              {' · '}
              {wrong === 1 ? '1 doesn’t show' : `${wrong} don’t show`} what is planned
            </span>
          )}
        </p>
        <ScreenViews here="/screens/pictures" />
      </div>
      {found.length === 0 && (
        <Empty title="No pictures to show">
          Screens with a player appear here, unless they are private. Pair a player on Screens first.
        </Empty>
      )}
      <ul className="grid grid-cols-1 gap-4 sm:grid-cols-[repeat(auto-fill,minmax(15rem,1fr))]">
        {shown.map((screen) => {
          const pictures = newest.get(screen.id) ?? [];
          const glimpse = worstOf(pictures);
          const site = sites.get(screen.site);
          const state = statuses.get(screen.id)?.state ?? 'unpaired';
          return (
            <li key={screen.id} data-testid="picture">
              <Link href={`/screens/${encodeURIComponent(screen.id)}`} className="block hover:text-tide">
                {glimpse ? (
                  <ScreenPicture
                    glimpses={pictures}
                    wall={screen.wall}
                    shape={screen.width / screen.height}
                    which="seen"
                    alt={`What ${screen.name} shows`}
                    className="h-36 w-full"
                  />
                ) : (
                  <span className="hatch flex h-36 w-full items-center justify-center bg-well">
                    <span className="bg-paper px-2 text-sm text-faint">
                      {state === 'dark' ? 'Offline' : 'No picture yet'}
                    </span>
                  </span>
                )}
                <span className="mt-1 flex items-center gap-2">
                  <Lantern state={state} size={16} />
                  <span className="min-w-0 truncate">
                    {screen.name}
                    <span className="text-faint"> · {site?.name}</span>
                  </span>
                </span>
              </Link>
              {glimpse && (
                <p className="flex flex-wrap gap-x-3 text-sm">
                  <VerdictWords glimpse={glimpse} />
                  <time dateTime={glimpse.takenAt} className="text-faint">
                    {clockTime(Date.parse(glimpse.takenAt), zone, true)}
                  </time>
                </p>
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}

/** Has pictures taken of these screens while the page is open and visible. */
function useWatch(screens: readonly string[]): void {
  const may = useMay('operate');
  const key = screens.join(' ');
  useEffect(() => {
    if (key === '' || !may) return;
    const watch = () => {
      if (document.visibilityState === 'visible') void answered(watchScreensAction(key.split(' ')));
    };
    watch();
    const timer = setInterval(watch, WATCH_AGAIN_MS);
    document.addEventListener('visibilitychange', watch);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', watch);
    };
  }, [key, may]);
}
