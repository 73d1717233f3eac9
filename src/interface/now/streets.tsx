'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useInsertionEffect, useMemo, useRef, type ReactNode } from 'react';
import { HOUR, type Screen } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork, useThumbnails } from '@/interface/data/provider';
import { lanternRules } from '@/interface/kit/lantern-image';
import { useWidth } from '@/interface/kit/use-width';
import { blocksOf, type TileSize } from './blocks';
import type { ScreenStatus } from '@/services/screens';
import { Street } from './street';
import { useGlances } from './use-glances';

/** Beside the tiles: padding of the place. */
const SIDES = 48;
/** A network of so many screens is drawn whole; of a larger one, what is in sight and a little around. */
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

const stretchOf = (index: number) => Math.floor(index / STRETCH);
const UNKNOWN: ReadonlyMap<string, ScreenStatus> = new Map();
const FIRST_SIGHT = { width: 1240, height: 700 };

/** All streets under each other. However many there are, only those in sight are drawn and forecast. */
export function Streets({
  head,
  screens,
  size,
  mini,
}: {
  head: ReactNode;
  screens: readonly Screen[];
  size: TileSize;
  mini: boolean;
}) {
  const { statuses } = useNetwork('statuses');
  const {
    moment,
    isNow,
    selected,
    select,
    shown: { plan: seen },
  } = useMoment();
  // How screens are is known of now alone.
  const status = isNow ? statuses : UNKNOWN;
  const index = useIndex(seen.plan);
  const thumbnail = useThumbnails();
  useInsertionEffect(adoptLanterns, []);
  const scroll = useRef<HTMLDivElement>(null);
  const width = useWidth(scroll, FIRST_SIGHT.width - SIDES);
  const blocks = useMemo(
    () => blocksOf(seen.plan.sites, screens, size, width),
    [seen.plan.sites, screens, size, width],
  );
  const virtual = useVirtualizer({
    count: blocks.length,
    getScrollElement: () => scroll.current,
    estimateSize: (i) => blocks[i]?.height ?? 0,
    getItemKey: (i) => blocks[i]?.key ?? i,
    overscan: screens.length <= DRAWN_WHOLE ? blocks.length : BLOCKS_AROUND,
    initialRect: FIRST_SIGHT,
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
        .flatMap((block) => block.lines.flat().map((screen) => screen.id)),
    [blocks, from, to],
  );
  const glances = useGlances(near);
  const onSelect = useCallback(
    (id: string) => select(selected.has(id) ? new Set() : new Set([id])),
    [select, selected],
  );
  return (
    <div ref={scroll} data-testid="streets" className="min-w-0 flex-1 overflow-y-auto px-6 pb-6">
      {head}
      <div className="relative" style={{ height: virtual.getTotalSize() }}>
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
                  index={index}
                  size={size}
                  mini={mini}
                  isNow={isNow}
                  selected={selected}
                  thumbnail={thumbnail}
                  near={Math.floor(moment / HOUR) * HOUR}
                  onSelect={onSelect}
                />
              </div>
            )
          );
        })}
      </div>
      {screens.length === 0 && <p className="py-10 text-faint">No screen matches this selector.</p>}
    </div>
  );
}
