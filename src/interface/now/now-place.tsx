'use client';

import Link from 'next/link';
import { rollup } from 'd3-array';
import { useCallback, useMemo, useState } from 'react';
import type { Problem } from '@/core/health';
import { useMoment } from '@/interface/data/moment';
import type { Looked } from '@/interface/data/out-then';
import { usePlanned } from '@/interface/data/planned';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/controls/button';
import { Empty } from '@/interface/kit/controls/empty';
import { SearchField } from '@/interface/kit/controls/field';
import { findScreens } from '@/interface/kit/screens/find-screens';
import { counted, dateTime } from '@/interface/kit/words/format';
import { Lantern, STATE_HINTS, STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { ProblemFilter, useWithProblem } from '@/interface/screens/problem-filter';
import type { ScreenState } from '@/services/screens';
import { withJoining } from './joining';
import { OnNow } from './on-now';
import { ScreenAside } from './screen-aside';
import { ScreensAside } from './screens-aside';
import type { TileSize } from './blocks';
import { useWanted } from '@/interface/shell/use-wanted';
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
  const { statuses: status, draft, published, notify } = useNetwork('statuses', 'draft', 'published', 'notify');
  const { selected, select, isNow, shown: looked } = useMoment();
  const zone = useZone();
  const { plan } = looked.plan;
  const { sites, screens, joining } = useMemo(
    // The past has nothing to join.
    () => withJoining(plan, draft, looked.by === 'plan' ? (published?.plan ?? null) : null),
    [plan, draft, published, looked.by],
  );
  const siteIndex = useMemo(() => new Map(sites.map((site) => [site.id, site])), [sites]);
  const [where, setWhere] = useState('');
  const [state, setState] = useState<ScreenState | null>(null);
  useWanted((wanted) => setWhere(wanted.get('where') ?? ''));
  const [size, setSize] = useState<SizeName>(screens.length > MANY ? 'small' : 'middle');

  const found = useMemo(() => findScreens({ sites, screens }, where), [sites, screens, where]);
  const stateOf = useCallback((id: string) => status.get(id)?.state ?? 'unpaired', [status]);
  const counts = useMemo(
    () =>
      rollup(
        found,
        (list) => list.length,
        ({ id }) => stateOf(id),
      ),
    [found, stateOf],
  );
  // Of now alone it is known how screens are.
  const only = isNow ? state : null;
  const inState = useMemo(
    () => (only === null ? found : found.filter(({ id }) => stateOf(id) === only)),
    [found, only, stateOf],
  );
  const [problem, setProblem] = useState<Problem | null>(null);
  const shown = useWithProblem(inState, isNow ? problem : null);
  const [putting, setPutting] = useState(false);
  const chosen = useMemo(() => screens.filter(({ id }) => selected.has(id)), [screens, selected]);
  const [one] = chosen;

  if (screens.length === 0)
    return (
      <Empty
        title="No screens yet"
        action={
          <Link href="/screens" className="cut-small bg-dusk px-4 py-2 font-semibold text-on-dusk">
            Add a site and a screen
          </Link>
        }
      >
        Your sites will appear here as streets, with a picture of what every screen shows.
      </Empty>
    );

  const close = () => {
    setPutting(false);
    select(new Set());
  };
  /** On the screens that are chosen, or else on those that Now is narrowed to. */
  const put = () => {
    // Never all of them because nothing was said.
    if (chosen.length === 0 && where.trim() === '' && state === null && problem === null) {
      document.querySelector<HTMLInputElement>('[data-search]')?.focus();
      return notify(
        'Choose screens first: click their pictures, or type a name or tag. Ctrl A in the pictures chooses all.',
        true,
      );
    }
    if (chosen.length === 0) select(new Set(shown.map(({ id }) => id)));
    setPutting(true);
  };
  return (
    <div className="flex h-full min-h-0">
      <Streets
        sites={sites}
        screens={shown}
        joining={joining}
        size={SIZES[size]}
        mini={size === 'small'}
        head={
          <div className="sticky top-0 z-10 flex flex-wrap items-center gap-x-5 gap-y-2 bg-paper py-3">
            <h1 className="sr-only">Now</h1>
            <SearchField
              label="Show only screens that match"
              placeholder="All screens: find by name or tag"
              value={where}
              onChange={setWhere}
            />
            {isNow && <ProblemFilter value={problem} onChange={setProblem} />}
            <fieldset className="ml-auto flex border border-rule" aria-label="Size of tiles">
              {(Object.keys(SIZES) as SizeName[]).map((each) => (
                <button
                  key={each}
                  type="button"
                  aria-pressed={size === each}
                  onClick={() => setSize(each)}
                  className={`px-2.5 py-1 text-sm ${size === each ? 'bg-well font-semibold' : 'text-faint hover:text-ink'}`}
                >
                  {each}
                </button>
              ))}
            </fieldset>
            {isNow && published && (
              <Button needs="operate" onClick={put} disabled={shown.length === 0}>
                Put on now…
              </Button>
            )}
            {isNow && published && (
              <Link href="/takeovers" className="border border-rule bg-sheet px-3 py-1.5 hover:border-ink">
                Takeovers
              </Link>
            )}
            {/* A line of its own: a state that begins or ends moves nothing beside it. */}
            <div className="flex w-full flex-wrap items-center gap-x-1" role="group" aria-label="States">
              <span className="mr-2 text-faint">{counted(found.length, 'screen')}</span>
              {(where.trim() !== '' || only !== null || problem !== null) && shown.length > 1 && (
                <Button
                  variant="quiet"
                  className="mr-2 !px-0"
                  onClick={() => select(new Set(shown.map(({ id }) => id)))}
                >
                  Choose {shown.length === 2 ? 'both' : `all ${shown.length}`}
                </Button>
              )}
              {isNow ? (
                STATES.filter((each) => counts.has(each) || each === state).map((each) => (
                  <button
                    key={each}
                    type="button"
                    aria-pressed={state === each}
                    title={`${STATE_WORDS[each]}: ${STATE_HINTS[each]}. ${state === each ? 'Show all again' : 'Show only these'}`}
                    onClick={() => setState(state === each ? null : each)}
                    className={`flex items-center gap-1.5 border px-2 py-0.5 ${state === each ? 'border-dusk bg-well' : 'border-transparent hover:border-rule'}`}
                  >
                    <Lantern state={each} /> {counts.get(each) ?? 0} {STATE_WORDS[each]}
                  </button>
                ))
              ) : (
                <span data-testid="by">{byWords(looked, zone)}</span>
              )}
            </div>
            {isNow && <OnNow className="w-full space-y-1" />}
            <IsTried />
            <WhichIsSeen />
          </div>
        }
      />
      {chosen.length > 1 ? (
        <ScreensAside
          screens={chosen}
          sites={siteIndex}
          status={status}
          putting={putting}
          onPut={setPutting}
          onOnly={(id) => select(new Set([id]))}
          onClose={close}
        />
      ) : (
        one && (
          <ScreenAside
            screen={one}
            site={siteIndex.get(one.site)}
            joins={joining.has(one.id)}
            status={status.get(one.id)}
            putting={putting}
            onPut={setPutting}
            onClose={close}
          />
        )
      )}
    </div>
  );
}

/** Says that some screens have a newer edition, which is being piloted, and where that was stopped, why. */
function IsTried() {
  const { looking } = useNetwork('looking');
  const { isNow } = useMoment();
  const tried = usePlanned().find(({ pilot }) => pilot);
  const screens = tried?.steps[0]?.screens.length ?? 0;
  if (!isNow || looking !== 'published' || screens === 0) return null;
  const stopped = tried?.pilot?.stopped;
  return (
    <p data-testid="is-tried" className="w-full text-sm text-faint">
      {counted(screens, 'screen')} {screens === 1 ? 'has' : 'have'} a newer edition, which is being piloted
      {stopped ? <span className="text-brick">, but the pilot was stopped: {stopped.why}</span> : '.'}{' '}
      <Link href="/publish" className="text-tide underline underline-offset-2">
        See how it’s doing
      </Link>
    </p>
  );
}

/** Says which decisions are looked at where they differ, and leads to the others. */
function WhichIsSeen() {
  const { looking, look, published, docket } = useNetwork('looking', 'look', 'published', 'docket');
  const { shown } = useMoment();
  if (!published || shown.by !== 'plan' || docket.entries === 0) return null;
  const glass = looking === 'published';
  return (
    <p data-testid="which-is-seen" className="w-full text-sm text-faint">
      {glass
        ? `This is what the screens show. ${counted(docket.entries, 'change')} ${docket.entries === 1 ? 'isn’t' : 'aren’t'} included. `
        : `This includes my changes. ${counted(docket.entries, 'change')} ${docket.entries === 1 ? 'isn’t' : 'aren’t'} on the screens yet. `}
      <button
        type="button"
        className="text-tide underline underline-offset-2"
        onClick={() => look(glass ? 'draft' : 'published')}
      >
        {glass ? 'See it with my changes' : 'See what the screens show'}
      </button>
    </p>
  );
}

/** Where another moment's pictures come from: for times to come, only the forecast can say. */
function byWords(shown: Looked, zone: string): string {
  switch (shown.by) {
    case 'plan':
      return 'as it is planned now';
    case 'edition':
      return `from edition ${shown.number}, which was published then`;
    case 'chosen':
      return `from edition ${shown.number}, whenever it was published`;
    case 'planned':
      return `from the edition planned for ${dateTime(shown.at, zone)}`;
    case 'nothing':
      return shown.cleared ? 'the edition of that time is no longer kept' : 'nothing was published yet';
    case 'asking':
      return shown.failed
        ? 'the edition of that time couldn’t be loaded: choose the moment again'
        : 'loading the edition of that time…';
  }
}
