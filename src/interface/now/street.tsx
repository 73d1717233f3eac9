'use client';

import { memo } from 'react';
import type { Glance, Plan, Screen } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useThumbnails, type useIndex } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { clockTime, counted, dayName, timeNear, zoneName } from '@/interface/kit/format';
import { Lantern } from '@/interface/kit/lantern';
import { Thumb } from '@/interface/kit/thumb';
import type { ScreenStatus } from '@/services/screens';
import { tileWidth, type Block, type TileSize } from './blocks';

export type Index = ReturnType<typeof useIndex>;

interface StreetProps {
  readonly block: Block;
  readonly glances: ReadonlyMap<string, Glance>;
  readonly status: ReadonlyMap<string, ScreenStatus>;
  readonly index: Index;
  readonly size: TileSize;
  /** Pictures and lanterns only. */
  readonly mini: boolean;
  /** Whether screens that are dark are drawn so: the present only. */
  readonly dimDark: boolean;
  readonly selected: ReadonlySet<string>;
  onSelect(screen: string): void;
}

/** One site, or a part of it: its own clock, and its screens side by side. */
export function Street({ block, glances, status, selected, size, mini, ...rest }: StreetProps) {
  const { site, screens, first, count } = block;
  const { moment } = useMoment();
  return (
    <section
      aria-label={first ? site.name : `${site.name}, continued`}
      className={first ? 'border-t border-rule pt-3 pb-1' : ''}
    >
      {first && (
        <header className="flex items-baseline gap-3 pb-2">
          <h2 className="text-lg">{site.name}</h2>
          <SiteClock zone={site.timeZone} />
          <p className="text-sm text-faint">{counted(count, 'screen')}</p>
        </header>
      )}
      <ul className="flex flex-wrap items-end" style={{ gap: size.gap }}>
        {screens.map((screen) => {
          const glance = glances.get(screen.id);
          return (
            <Tile
              key={screen.id}
              screen={screen}
              glance={glance}
              coming={glance?.next ? timeNear(glance.next.at, moment, site.timeZone) : null}
              status={status.get(screen.id)}
              selected={selected.has(screen.id)}
              size={size}
              mini={mini}
              {...rest}
            />
          );
        })}
      </ul>
    </section>
  );
}

function SiteClock({ zone: siteZone }: { zone: string }) {
  const { moment, isNow } = useMoment();
  const zone = useZone();
  const sameDay = dayName(moment, siteZone) === dayName(moment, zone);
  return (
    <p className="font-code text-xs text-faint">
      {sameDay ? '' : `${dayName(moment, siteZone)} `}
      {clockTime(moment, siteZone, isNow ? false : undefined)} {zoneName(siteZone)}
    </p>
  );
}

interface TileProps extends Pick<StreetProps, 'index' | 'size' | 'mini' | 'dimDark' | 'onSelect'> {
  readonly screen: Screen;
  readonly glance: Glance | undefined;
  /** When the next change comes, in words; null for none. */
  readonly coming: string | null;
  readonly status: ScreenStatus | undefined;
  readonly selected: boolean;
}

/** A screen in its true shape. Drawn again only when something of its own changes: thousands of them stand on a page. */
const Tile = memo(function Tile({
  screen,
  glance,
  coming,
  status,
  index,
  size,
  mini,
  dimDark,
  selected,
  onSelect,
}: TileProps) {
  const thumbnail = useThumbnails();
  const state = status?.state ?? 'unpaired';
  const trouble = status?.troubles[0];
  const media = glance?.media ? index.media.get(glance.media) : undefined;
  const { height } = size;
  const width = Math.min(height * 3, (height * screen.width) / screen.height);
  const dim = dimDark && (state === 'dark' || state === 'unpaired');
  return (
    <li style={{ width: tileWidth(screen, size) }}>
      <button
        type="button"
        aria-pressed={selected}
        aria-label={`${screen.name}: ${state}, ${media?.name ?? 'nothing'}`}
        data-screen={screen.id}
        data-state={state}
        data-media={glance?.media ?? ''}
        onClick={() => onSelect(screen.id)}
        className="block w-full text-left outline-offset-4 aria-pressed:outline-2 aria-pressed:outline-dusk"
      >
        <span
          className="relative block bg-[#10151d]"
          style={{ width, height: Math.min(height, (width * screen.height) / screen.width) }}
        >
          {media ? (
            <Thumb
              src={thumbnail(media.id)}
              alt=""
              className={`absolute inset-0 h-full w-full !bg-transparent ${dim ? 'opacity-30 grayscale' : ''}`}
            />
          ) : (
            <span className="absolute inset-0 flex items-center justify-center p-1 text-center text-[11px] text-[#aab0bf]">
              {glance?.source === 'lights-out' ? 'lights out' : glance ? 'nothing' : ''}
            </span>
          )}
          {mini && (
            <span className="absolute right-0 bottom-0 bg-paper p-0.5">
              <Lantern state={state} size={13} />
            </span>
          )}
        </span>
        {!mini && (
          <span className="mt-1 block">
            <span className="flex items-center gap-1.5">
              <Lantern state={state} size={16} />
              <span className="truncate font-semibold">{screen.name}</span>
            </span>
            {trouble ? (
              <span className="block truncate text-sm text-brick" title={trouble}>
                {trouble}
              </span>
            ) : (
              <span className="block truncate text-sm text-faint">
                {glance?.next && coming ? `${coming} ${sourceName(glance.next, index)}` : 'stays so'}
              </span>
            )}
          </span>
        )}
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
  if (source === 'backdrop') return `${id} backdrop`;
  return index.bookings.get(id ?? '')?.name ?? id ?? '';
}
