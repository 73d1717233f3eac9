'use client';

import type { Glance, Plan, Screen, Site } from '@/core';
import { useMoment } from '@/interface/data/moment';
import type { useIndex } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { useThumbnails } from '@/interface/data/provider';
import { clockTime, counted, dayName, timeNear, zoneName } from '@/interface/kit/format';
import { Lantern } from '@/interface/kit/lantern';
import { Thumb } from '@/interface/kit/thumb';
import type { ScreenStatus } from '@/services/screens';

export type Index = ReturnType<typeof useIndex>;

interface StreetProps {
  readonly site: Site;
  readonly screens: readonly Screen[];
  readonly glances: ReadonlyMap<string, Glance>;
  readonly status: ReadonlyMap<string, ScreenStatus>;
  readonly index: Index;
  /** Height of a tile's picture, in pixels. */
  readonly height: number;
  /** Pictures and lanterns only. */
  readonly mini: boolean;
  /** Whether screens that are dark are drawn so: the present only. */
  readonly dimDark: boolean;
  readonly selected: ReadonlySet<string>;
  onSelect(screen: string): void;
}

/** One site: its own clock, and its screens side by side. */
export function Street({ site, screens, ...rest }: StreetProps) {
  const { moment, isNow } = useMoment();
  const zone = useZone();
  const sameDay = dayName(moment, site.timeZone) === dayName(moment, zone);
  return (
    <section aria-label={site.name} className="border-t border-rule py-3">
      <header className="flex items-baseline gap-3">
        <h2 className="text-lg">{site.name}</h2>
        <p className="font-code text-xs text-faint">
          {sameDay ? '' : `${dayName(moment, site.timeZone)} `}
          {clockTime(moment, site.timeZone, isNow ? false : undefined)} {zoneName(site.timeZone)}
        </p>
        <p className="text-sm text-faint">{counted(screens.length, 'screen')}</p>
      </header>
      <ul className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-4">
        {screens.map((screen) => (
          <Tile key={screen.id} screen={screen} zone={site.timeZone} {...rest} />
        ))}
      </ul>
    </section>
  );
}

function Tile({
  screen,
  zone,
  glances,
  status,
  index,
  height,
  mini,
  dimDark,
  selected,
  onSelect,
}: Omit<StreetProps, 'site' | 'screens'> & { screen: Screen; zone: string }) {
  const thumbnail = useThumbnails();
  const { moment } = useMoment();
  const glance = glances.get(screen.id);
  const state = status.get(screen.id)?.state ?? 'unpaired';
  const trouble = status.get(screen.id)?.troubles[0];
  const media = glance?.media ? index.media.get(glance.media) : undefined;
  const width = Math.min(height * 3, (height * screen.width) / screen.height);
  const next = glance?.next;
  const dim = dimDark && (state === 'dark' || state === 'unpaired');
  return (
    <li style={{ width: mini ? width : Math.max(width, 132) }}>
      <button
        type="button"
        aria-pressed={selected.has(screen.id)}
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
              {glance?.source === 'lights-out' ? 'lights out' : 'nothing'}
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
                {next ? `${timeNear(next.at, moment, zone)} ${sourceName(next, index)}` : 'stays so'}
              </span>
            )}
          </span>
        )}
      </button>
    </li>
  );
}

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
