'use client';

import { memo } from 'react';
import type { Board } from '@/core/forecast';
import type { Plan, Screen } from '@/core/plan';
import { useMoment } from '@/interface/data/moment';
import { indexOf, type useIndex } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { clockTime, counted, dayName, timeNear, zoneName } from '@/interface/kit/words/format';
import { Lantern } from '@/interface/kit/lantern/lantern';
import { BoardPicture } from '@/interface/kit/content/board-picture';
import { Thumb } from '@/interface/kit/content/thumb';
import type { ScreenStatus } from '@/services/screens';
import type { SeenGlance } from './next-ahead';
import { HEADER, tileWidth, type Block, type TileSize } from './blocks';

export type Index = ReturnType<typeof useIndex>;

interface StreetProps {
  readonly block: Block;
  readonly glances: ReadonlyMap<string, SeenGlance>;
  readonly status: ReadonlyMap<string, ScreenStatus>;
  /** The index of the plan that says what a screen shows. */
  indexFor(screen: string): Index;
  readonly size: TileSize;
  /** Pictures and lanterns only. */
  readonly mini: boolean;
  /** Whether the present is looked at: of that alone it is known how screens are. */
  readonly isNow: boolean;
  readonly selected: ReadonlySet<string>;
  /** An instant of this hour: times of another day say so. */
  readonly near: number;
  /** Screens that join with the next publication. */
  readonly joining: ReadonlySet<string>;
  /** The one tile that the Tab key comes to. */
  readonly tabbable: string | undefined;
  thumbnail(media: string): string | undefined;
}

/** One site, or a part of it: its own clock, and its screens side by side. Drawn again only when one of them looks otherwise. */
export const Street = memo(function Street({
  block,
  glances,
  status,
  selected,
  joining,
  tabbable,
  size,
  mini,
  indexFor,
  ...rest
}: StreetProps) {
  // A thousand at a glance are a group of plain buttons: half the elements of a list.
  const [Line, Shown] = mini ? (['div', MiniTile] as const) : (['ul', Tile] as const);
  const { site, lines, first, count } = block;
  return (
    <section
      aria-label={first ? site.name : `${site.name}, continued`}
      className={first ? 'border-t border-rule' : ''}
      style={{ height: block.height }}
    >
      {first && (
        <header className="flex items-center gap-3" style={{ height: HEADER - 1 }}>
          <h2 className="truncate text-lg">{site.name}</h2>
          <SiteClock zone={site.timeZone} />
          <p className="text-sm text-faint max-sm:hidden">{counted(count, 'screen')}</p>
        </header>
      )}
      {lines.map((screens) => (
        <Line
          key={screens[0]?.id}
          className="flex items-end"
          style={{ gap: size.gap, height: size.height + size.caption, marginBottom: size.gap }}
        >
          {screens.map((screen) => (
            <Shown
              key={screen.id}
              screen={screen}
              zone={site.timeZone}
              glance={glances.get(screen.id)}
              status={status.get(screen.id)}
              selected={selected.has(screen.id)}
              joins={joining.has(screen.id)}
              tabIndex={screen.id === tabbable ? 0 : -1}
              size={size}
              index={indexFor(screen.id)}
              {...rest}
            />
          ))}
        </Line>
      ))}
    </section>
  );
}, looksTheSame);

/** Whether a street would look as before: of the maps of all screens, only its own entries count. */
function looksTheSame(before: StreetProps, after: StreetProps): boolean {
  const { glances, status, selected, joining, tabbable, ...rest } = before;
  return (
    (Object.keys(rest) as (keyof typeof rest)[]).every((name) => before[name] === after[name]) &&
    after.block.lines.every((line) =>
      line.every(
        ({ id }) =>
          glances.get(id) === after.glances.get(id) &&
          status.get(id) === after.status.get(id) &&
          selected.has(id) === after.selected.has(id) &&
          joining.has(id) === after.joining.has(id) &&
          (id === tabbable) === (id === after.tabbable),
      ),
    )
  );
}

function SiteClock({ zone: siteZone }: { zone: string }) {
  const { moment, isNow } = useMoment();
  const zone = useZone();
  const sameDay = dayName(moment, siteZone) === dayName(moment, zone);
  return (
    <p className="font-code text-xs whitespace-nowrap text-faint">
      {sameDay ? '' : `${dayName(moment, siteZone)} `}
      {clockTime(moment, siteZone, isNow ? false : undefined)} {zoneName(siteZone)}
    </p>
  );
}

interface TileProps extends Pick<StreetProps, 'size' | 'isNow' | 'near' | 'thumbnail'> {
  readonly index: Index;
  readonly screen: Screen;
  /** The site's own. */
  readonly zone: string;
  readonly glance: SeenGlance | undefined;
  readonly status: ScreenStatus | undefined;
  readonly selected: boolean;
  readonly joins: boolean;
  readonly tabIndex: number;
}

/** What a tile is called to those who can't see it. */
function tileLabel({ screen, isNow, joins, glance }: TileProps, state: string, shown: string | undefined): string {
  const shows = joins && !glance ? JOINS : (shown ?? (glance?.source === 'lights-out' ? 'lights out' : 'nothing'));
  return `${screen.name}: ${isNow ? `${state}, ` : ''}${shows}`;
}

/** What a tile's screen shows, by name; undefined for nothing. */
function nameOfShown({ glance, index }: TileProps): string | undefined {
  if (glance?.board) return glance.board.name;
  return glance?.media ? index.media.get(glance.media)?.name : undefined;
}

/** The largest picture that is on. */
const largestOf = ({ parts }: Board): string | undefined =>
  [...parts].sort((a, b) => b.width * b.height - a.width * a.height).find(({ media }) => media !== undefined)?.media;

const JOINS = 'included when you next publish';

/** The thousand-at-a-glance form: picture and lantern alone, in as few elements as can be. */
const MiniTile = memo(function MiniTile(props: TileProps) {
  const { screen, glance, status, index, size, isNow, selected, tabIndex, thumbnail } = props;
  const state = status?.state ?? 'unpaired';
  const media = glance?.media ? index.media.get(glance.media) : undefined;
  const pictured = media?.id ?? (glance?.board && largestOf(glance.board));
  const picture = pictured === undefined ? undefined : thumbnail(pictured);
  const width = tileWidth(screen, size);
  const dim = isNow && (state === 'dark' || state === 'unpaired');
  return (
    <button
      type="button"
      aria-pressed={selected}
      tabIndex={tabIndex}
      aria-label={tileLabel(props, state, nameOfShown(props))}
      data-screen={screen.id}
      data-state={isNow ? state : undefined}
      data-media={glance?.media ?? ''}
      className={dim ? 'mini-tile mini-tile-dim' : 'mini-tile'}
      style={{
        width,
        height: Math.min(size.height, (width * screen.height) / screen.width),
        ...(picture ? { backgroundImage: `url("${picture}")` } : {}),
      }}
    />
  );
});

/** A screen in its true shape. Drawn again only when something of its own changes: a page may have thousands. */
const Tile = memo(function Tile(props: TileProps) {
  const { screen, zone, glance, status, index, size, isNow, selected, joins, tabIndex, near, thumbnail } = props;
  const state = status?.state ?? 'unpaired';
  const trouble = status?.troubles[0];
  const media = glance?.media ? index.media.get(glance.media) : undefined;
  const { height } = size;
  const width = Math.min(height * 3, (height * screen.width) / screen.height);
  const dim = isNow && (state === 'dark' || state === 'unpaired');
  return (
    <li className="shrink-0" style={{ width: tileWidth(screen, size) }}>
      <button
        type="button"
        aria-pressed={selected}
        tabIndex={tabIndex}
        aria-label={tileLabel(props, state, nameOfShown(props))}
        data-screen={screen.id}
        data-state={isNow ? state : undefined}
        data-media={glance?.media ?? ''}
        className="block w-full scroll-mt-16 text-left outline-offset-4 aria-pressed:outline-2 aria-pressed:outline-dusk"
      >
        <span
          className="relative block bg-glass"
          style={{ width, height: Math.min(height, (width * screen.height) / screen.width) }}
        >
          {media ? (
            <Thumb
              src={thumbnail(media.id)}
              alt=""
              className={`absolute inset-0 h-full w-full !bg-transparent ${dim ? 'opacity-30 grayscale' : ''}`}
            />
          ) : glance?.board ? (
            <BoardPicture
              board={glance.board}
              thumbnail={thumbnail}
              className={`absolute inset-0 ${dim ? 'opacity-30 grayscale' : ''}`}
            />
          ) : (
            glance && (
              <span className="absolute inset-0 flex items-center justify-center p-1 text-center text-[11px] text-[#aab0bf]">
                {glance.source === 'lights-out' ? 'lights out' : 'nothing'}
              </span>
            )
          )}
          {glance?.above?.map((board, i) => (
            <BoardPicture
              key={i}
              board={board}
              isAbove
              thumbnail={thumbnail}
              className={`absolute inset-0 ${dim ? 'opacity-30 grayscale' : ''}`}
            />
          ))}
        </span>
        <span className="mt-1 block">
          <span className="flex items-center gap-1.5">
            {isNow && <Lantern state={state} size={16} />}
            <span className="truncate font-semibold">{screen.name}</span>
          </span>
          {joins && isNow ? (
            <span className="block truncate text-sm text-tide">{JOINS}</span>
          ) : trouble ? (
            <span className="block truncate text-sm text-brick" title={trouble}>
              {trouble}
            </span>
          ) : (
            <span className="block truncate text-sm text-faint">
              {glance?.next
                ? `${timeNear(glance.next.at, near, zone)} ${sourceName(glance.next, glance.next.by ? indexOf(glance.next.by) : index)}`
                : 'no change planned'}
            </span>
          )}
        </span>
      </button>
    </li>
  );
});

/** A source in a word or two: the booking's name, or which backdrop. */
export function sourceName(
  { source, id }: { source: string; id: string | null },
  index: { bookings: ReadonlyMap<string, Plan['bookings'][number]> },
): string {
  if (source === 'lights-out') return 'lights out';
  if (source === 'nothing') return 'nothing';
  if (source === 'backdrop') return `Backdrop (${id})`;
  return index.bookings.get(id ?? '')?.name ?? id ?? '';
}
