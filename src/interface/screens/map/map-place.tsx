'use client';

import { group, rollup } from 'd3-array';
import { geoMercator, geoPath, type GeoProjection } from 'd3-geo';
import Link from 'next/link';
import { useEffect, useMemo, useRef, useState } from 'react';
import { feature } from 'topojson-client';
import { STATES_BY_NEED, type Problem, type State } from '@/core/health';
import type { Site } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { Empty } from '@/interface/kit/controls/empty';
import { SearchField } from '@/interface/kit/controls/field';
import { Lantern, STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { useWidth } from '@/interface/kit/page/use-width';
import { findScreens } from '@/interface/kit/screens/find-screens';
import { counted } from '@/interface/kit/words/format';
import { ProblemFilter, useWithProblem } from '../problem-filter';
import { ScreenViews } from '../views';
import { clustersOf, type Cluster, type Spot } from './clusters';

/** The map in units of its own; it is drawn as large as there is room. */
const [WIDTH, HEIGHT] = [1000, 640];
/** As wide as the map is drawn where there is room, in pixels. */
const DRAWN_WIDTH = 896;
const EDGE = 70;
/** How large a mark is at most, in pixels: on a phone as anywhere. */
const MARK = { width: 168, height: 40 };
/** A single site isn't drawn larger than this: land is known to some kilometres. */
const MOST_SCALE = 12_000;

type Land = ReturnType<typeof feature>;
interface SiteSpot extends Spot {
  readonly site: Site;
}

/** The middle of a mark that stays within the map. */
const within = (at: number, size: number, all: number) => Math.max(size / 2, Math.min(all - size / 2, at));

/** Where the sites are, each with how its screens are. Drawn without any network: the coasts are Natural Earth's, and come with the page. */
export function MapPlace() {
  const { draft, statuses } = useNetwork('draft', 'statuses');
  const [search, setSearch] = useState('');
  const [problem, setProblem] = useState<Problem | null>(null);
  const [near, setNear] = useState<readonly string[] | null>(null);
  const found = useMemo(() => findScreens(draft, search), [draft, search]);
  const shown = useWithProblem(found, problem);
  const land = useLand();
  const screensOf = useMemo(() => group(shown, ({ site }) => site), [shown]);
  const isNarrowed = search.trim() !== '' || problem !== null;
  const sites = draft.sites.filter(({ id }) => !isNarrowed || screensOf.has(id));
  const placed = sites.filter(({ location }) => location);
  const without = sites.filter(({ location }) => !location);
  const inView = near ? placed.filter(({ id }) => near.includes(id)) : placed;
  const key = inView.map(({ id, location }) => `${id} ${location?.latitude} ${location?.longitude}`).join('|');
  // eslint-disable-next-line react-hooks/exhaustive-deps -- `key` is all of the sites that are in view
  const projection = useMemo(() => projectionFor(inView), [key]);
  const coast = useMemo(() => (land ? (geoPath(projection)(land) ?? '') : ''), [land, projection]);
  const place = useRef<HTMLDivElement>(null);
  const pixel = WIDTH / Math.min(DRAWN_WIDTH, useWidth(place, DRAWN_WIDTH));
  const room = { width: MARK.width * pixel, height: MARK.height * pixel };
  const spots = inView.map((site): SiteSpot => {
    const [x, y] = projection([site.location?.longitude ?? 0, site.location?.latitude ?? 0]) ?? [0, 0];
    return { id: site.id, site, x: within(x, room.width, WIDTH), y: within(y, room.height, HEIGHT) };
  });
  const stateOf = (id: string): State => statuses.get(id)?.state ?? 'unpaired';
  return (
    <div ref={place} className="px-3 pb-8 sm:px-6">
      <div className="sticky top-0 z-10 flex flex-wrap items-center gap-x-5 gap-y-2 bg-paper py-3">
        <h1 className="sr-only">Map of screens</h1>
        <SearchField label="Find screens" placeholder="Find by name or tag" value={search} onChange={setSearch} />
        <ProblemFilter value={problem} onChange={setProblem} />
        <p className="text-faint">{counted(shown.length, 'screen')}</p>
        <ScreenViews here="/screens/map" />
        {near && (
          <Button className="ml-auto" onClick={() => setNear(null)}>
            Show all sites
          </Button>
        )}
      </div>
      {placed.length === 0 ? (
        <Empty title="No site has a place on the map">
          Open a site on Screens and choose a town near it. Then it appears here.
        </Empty>
      ) : (
        <div className="relative mx-auto w-full max-w-4xl overflow-hidden border border-rule bg-well">
          <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full" aria-hidden>
            <path d={coast} className="fill-sheet stroke-rule" strokeWidth={1} />
          </svg>
          <ul aria-label="Sites on the map">
            {clustersOf(spots, room).map((cluster) => (
              <li
                key={cluster.spots.map(({ id }) => id).join(' ')}
                className="absolute -translate-x-1/2 -translate-y-1/2"
                style={{ left: `${(100 * cluster.x) / WIDTH}%`, top: `${(100 * cluster.y) / HEIGHT}%` }}
              >
                <Mark
                  cluster={cluster}
                  states={cluster.spots.flatMap(({ id }) =>
                    (screensOf.get(id) ?? []).map((screen) => stateOf(screen.id)),
                  )}
                  isNearest={near?.length === cluster.spots.length}
                  onNear={setNear}
                />
              </li>
            ))}
          </ul>
        </div>
      )}
      {without.length > 0 && placed.length > 0 && (
        <p className="mt-3 text-faint">
          Not on the map, because they have no place yet:{' '}
          {without.map(({ id, name }, i) => (
            <span key={id}>
              {i > 0 && ', '}
              <Link href={`/screens?site=${encodeURIComponent(id)}`} className="text-tide underline underline-offset-2">
                {name}
              </Link>
            </span>
          ))}
          .
        </p>
      )}
    </div>
  );
}

/** A site, which leads to its street on Now; or several, which come nearer. */
function Mark({
  cluster: { spots },
  states,
  isNearest,
  onNear,
}: {
  cluster: Cluster<SiteSpot>;
  states: readonly State[];
  /** Whether they were brought nearer already, and still lie over each other. */
  isNearest: boolean;
  onNear: (sites: readonly string[]) => void;
}) {
  const counts = rollup(
    states,
    (list) => list.length,
    (state) => state,
  );
  const worst = STATES_BY_NEED.find((state) => counts.has(state)) ?? 'unpaired';
  const [only] = spots;
  const isOne = spots.length === 1 || isNearest || spots.every(({ x, y }) => x === only?.x && y === only.y);
  const name = spots.length === 1 ? (only?.site.name ?? '') : `${spots.length} sites`;
  const said = STATES_BY_NEED.flatMap((state) =>
    counts.has(state) ? [`${counts.get(state)} ${STATE_WORDS[state]}`] : [],
  ).join(', ');
  const look = `flex max-w-40 items-center gap-1.5 border bg-paper px-2 py-1 text-sm hover:border-tide ${
    worst === 'dark'
      ? 'border-2 border-brick'
      : worst === 'behind' || worst === 'unpaired'
        ? 'border-2 border-dusk'
        : 'border-rule'
  } ${spots.length > 1 ? 'rounded-full' : ''}`;
  const inside = (
    <>
      <Lantern state={worst} />
      <span className="min-w-0 truncate">{name}</span>
      <span className="font-code text-xs text-faint">{states.length}</span>
    </>
  );
  const title = `${spots.map(({ site }) => site.name).join(', ')}: ${said || 'no screens'}`;
  if (isOne && only)
    return (
      <Link
        href={`/?where=${encodeURIComponent(spots.map(({ id }) => `site:${id}`).join(' or '))}`}
        title={title}
        aria-label={title}
        className={look}
      >
        {inside}
      </Link>
    );
  return (
    <button
      type="button"
      title={title}
      aria-label={`${title}. Zoom in.`}
      className={look}
      onClick={() => onNear(spots.map(({ id }) => id))}
    >
      {inside}
    </button>
  );
}

/** A projection in which these sites fill the map, as far as the land is known that near. */
function projectionFor(sites: readonly Site[]): GeoProjection {
  const coordinates = sites.map(
    ({ location }) => [location?.longitude ?? 0, location?.latitude ?? 0] as [number, number],
  );
  const projection = geoMercator();
  if (coordinates.length > 0)
    projection.fitExtent(
      [
        [EDGE, EDGE],
        [WIDTH - EDGE, HEIGHT - EDGE],
      ],
      { type: 'MultiPoint', coordinates },
    );
  if (!(projection.scale() < MOST_SCALE)) {
    const mean = (i: 0 | 1) => coordinates.reduce((sum, one) => sum + one[i], 0) / coordinates.length;
    projection
      .scale(MOST_SCALE)
      .center([mean(0), mean(1)])
      .translate([WIDTH / 2, HEIGHT / 2]);
  }
  return projection.clipExtent([
    [-10, -10],
    [WIDTH + 10, HEIGHT + 10],
  ]);
}

/** The world's land, fetched once with this place. */
function useLand(): Land | null {
  const [land, setLand] = useState<Land | null>(null);
  useEffect(() => {
    let isHere = true;
    void import('world-atlas/land-50m.json').then(({ default: topology }) => {
      const world = topology as unknown as Parameters<typeof feature>[0];
      const { land: shape } = world.objects;
      if (isHere && shape) setLand(feature(world, shape));
    });
    return () => {
      isHere = false;
    };
  }, []);
  return land;
}
