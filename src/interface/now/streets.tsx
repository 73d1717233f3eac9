'use client';

import { observeElementOffset, useVirtualizer } from '@tanstack/react-virtual';
import {
  useCallback,
  useEffect,
  useInsertionEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
  type ReactNode,
} from 'react';
import { HOUR } from '@/core/instant';
import type { Screen, Site } from '@/core/plan';
import { useMoment } from '@/interface/data/moment';
import { indexOf, useNetwork, useThumbnails } from '@/interface/data/provider';
import { lanternRules } from '@/interface/kit/lantern/lantern-image';
import { useWidth } from '@/interface/kit/page/use-width';
import { blocksOf, type TileSize } from './blocks';
import type { ScreenStatus } from '@/services/screens';
import { Street } from './street';
import { pressed, tileBeyond, type Chosen } from './selection';
import { useGlances } from './use-glances';
import { useLasso } from './use-lasso';

/** Beside the tiles: padding of the place. */
const SIDES = 48;
/** A network with up to this many screens is drawn whole; of a larger one, the visible part and a little around it. */
const DRAWN_WHOLE = 200;
const BLOCKS_AROUND = 4;
/** Blocks that are forecast together. */
const STRETCH = 12;
let lanternsAdopted = false;

/** The mini form's lanterns, once a page: as a sheet of our own making, which the policy for styles lets through. */
function adoptLanterns(): void {
  if (lanternsAdopted) return;
  lanternsAdopted = true;
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(lanternRules('mini-tile'));
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
}

const ARROWS = new Set(['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'End']);

const stretchOf = (index: number) => Math.floor(index / STRETCH);
const UNKNOWN: ReadonlyMap<string, ScreenStatus> = new Map();
const FIRST_SIGHT = { width: 1240, height: 700 };

/** All streets under each other. However many there are, only the visible ones are drawn and forecast. */
export function Streets({
  head,
  sites,
  screens,
  joining,
  size,
  mini,
}: {
  head: ReactNode;
  sites: readonly Site[];
  screens: readonly Screen[];
  /** Ids of screens that join with the next publication. */
  joining: ReadonlySet<string>;
  size: TileSize;
  mini: boolean;
}) {
  const { statuses } = useNetwork('statuses');
  const { moment, isNow, selected, select, shownOf } = useMoment();
  // How screens are is known of now alone.
  const status = isNow ? statuses : UNKNOWN;
  const indexFor = useCallback((screen: string) => indexOf(shownOf(screen).plan.plan), [shownOf]);
  const thumbnail = useThumbnails();
  useInsertionEffect(adoptLanterns, []);
  const scroll = useRef<HTMLDivElement>(null);
  const width = useWidth(scroll, FIRST_SIGHT.width - SIDES);
  const blocks = useMemo(() => blocksOf(sites, screens, size, width), [sites, screens, size, width]);
  const virtual = useVirtualizer({
    count: blocks.length,
    getScrollElement: () => scroll.current,
    estimateSize: (i) => blocks[i]?.height ?? 0,
    getItemKey: (i) => blocks[i]?.key ?? i,
    overscan: screens.length <= DRAWN_WHOLE ? blocks.length : BLOCKS_AROUND,
    initialRect: FIRST_SIGHT,
    // A person may have scrolled before the script came: stay there.
    observeElementOffset: (instance, moved) => {
      moved(instance.scrollElement?.scrollTop ?? 0, false);
      return observeElementOffset(instance, moved);
    },
    // A scroll that is late by a frame is better than one that holds the frame up.
    useFlushSync: false,
  });
  const items = virtual.getVirtualItems();
  // Forecast a stretch ahead, so that what comes into sight has its picture, and few questions are asked.
  const from = stretchOf(items[0]?.index ?? 0) - 1;
  const to = stretchOf(items.at(-1)?.index ?? 0) + 1;
  const near = useMemo(
    () =>
      blocks
        .slice(Math.max(0, from * STRETCH), (to + 1) * STRETCH)
        .flatMap((block) => block.lines.flat().map((screen) => screen.id))
        // Of what no edition knows there is nothing to forecast.
        .filter((id) => indexFor(id).screens.has(id)),
    [blocks, from, to, indexFor],
  );
  const glances = useGlances(near);
  const order = useMemo(() => blocks.flatMap((block) => block.lines.flat().map(({ id }) => id)), [blocks]);
  const anchor = useRef<string | null>(null);
  const choose = (next: Chosen) => {
    anchor.current = next.anchor;
    select(next.ids);
  };
  const lasso = useLasso((ids, more) =>
    choose({ ids: new Set([...(more ? selected : []), ...ids]), anchor: ids[0] ?? null }),
  );
  const tileOf = (target: EventTarget) => (target as HTMLElement).closest<HTMLElement>('[data-screen]');
  const press = (id: string, { ctrlKey, metaKey, shiftKey }: Pick<MouseEvent, 'ctrlKey' | 'metaKey' | 'shiftKey'>) =>
    choose(
      pressed({ ids: selected, anchor: anchor.current }, id, order, { more: ctrlKey || metaKey, stretch: shiftKey }),
    );
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const tile = tileOf(event.target);
    if (!tile || event.altKey) return;
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a')
      choose({ ids: new Set(order), anchor: tile.dataset.screen ?? null });
    else if (ARROWS.has(event.key) && !event.ctrlKey && !event.metaKey) {
      const tiles = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-screen]')];
      const to =
        tiles[
          tileBeyond(
            tiles.map((one) => one.getBoundingClientRect()),
            tiles.indexOf(tile),
            event.key,
          )
        ];
      to?.focus();
      if (event.shiftKey && to) {
        anchor.current ??= tile.dataset.screen ?? null;
        press(to.dataset.screen ?? '', event);
      }
    } else return;
    event.preventDefault();
  };
  const [focused, setFocused] = useState<string | null>(null);
  const drawn = items.flatMap(({ index: i }) => blocks[i]?.lines.flat() ?? []);
  const tabbable = (drawn.find(({ id }) => id === focused) ?? drawn[0])?.id;
  // The panel beside takes room, so lines break in other places. The chosen screen stays visible.
  const [only] = selected.size === 1 ? selected : [];
  useEffect(() => {
    if (only === undefined) return;
    const tile = scroll.current?.querySelector(`[data-screen="${CSS.escape(only)}"]`);
    if (tile) tile.scrollIntoView({ block: 'nearest' });
    else {
      const at = blocks.findIndex(({ lines }) => lines.some((line) => line.some(({ id }) => id === only)));
      if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- when another is chosen, and when lines break in other places
  }, [only, width]);
  return (
    <div
      ref={scroll}
      data-testid="streets"
      {...lasso.hears}
      className="min-w-0 flex-1 overflow-y-auto px-3 pb-6 sm:px-6"
    >
      {head}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- presses and arrows are for the tiles inside, which are buttons */}
      <div
        role="group"
        aria-label="Screens"
        className="relative select-none"
        style={{ height: virtual.getTotalSize() }}
        onClick={(event) => {
          const id = tileOf(event.target)?.dataset.screen;
          if (id !== undefined) press(id, event);
        }}
        onKeyDown={onKeyDown}
        onFocus={(event) => setFocused(tileOf(event.target)?.dataset.screen ?? null)}
      >
        {items.map((item) => {
          const block = blocks[item.index];
          return (
            block && (
              <div
                key={item.key}
                // Laid out on its own: what comes into sight makes nothing else be laid out again.
                className="absolute inset-x-0 top-0 contain-[layout_size_style]"
                style={{ height: block.height, transform: `translateY(${item.start}px)` }}
              >
                <Street
                  block={block}
                  glances={glances}
                  status={status}
                  indexFor={indexFor}
                  size={size}
                  mini={mini}
                  isNow={isNow}
                  selected={selected}
                  joining={joining}
                  tabbable={tabbable}
                  thumbnail={thumbnail}
                  near={Math.floor(moment / HOUR) * HOUR}
                />
              </div>
            )
          );
        })}
      </div>
      {lasso.box && (
        <div
          aria-hidden
          className="pointer-events-none fixed z-20 border border-dusk bg-dusk/15"
          style={{
            left: lasso.box.left,
            top: lasso.box.top,
            width: lasso.box.right - lasso.box.left,
            height: lasso.box.bottom - lasso.box.top,
          }}
        />
      )}
      {screens.length === 0 && <p className="py-10 text-faint">No screen matches this.</p>}
    </div>
  );
}
