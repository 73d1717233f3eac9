'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useMemo, useRef, type ReactNode } from 'react';
import type { Screen } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useWidth } from '@/interface/kit/use-width';
import { blocksOf, type TileSize } from './blocks';
import { Street } from './street';
import { useGlances } from './use-glances';

/** Beside the tiles: padding of the place. */
const SIDES = 48;
/** A network of so many screens is drawn whole; of a larger one, what is in sight and a little around. */
const DRAWN_WHOLE = 200;
const BLOCKS_AROUND = 3;
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
  const { seen, statuses } = useNetwork();
  const { isNow, selected, select } = useMoment();
  const index = useIndex(seen.plan);
  const scroll = useRef<HTMLDivElement>(null);
  const width = useWidth(scroll, FIRST_SIGHT.width - SIDES);
  const status = useMemo(() => new Map(statuses.map((one) => [one.id, one])), [statuses]);
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
  });
  const items = virtual.getVirtualItems();
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? -1];
  const inSight = useMemo(
    () => blocks.slice(from, to + 1).flatMap((block) => block.screens.map((screen) => screen.id)),
    [blocks, from, to],
  );
  const glances = useGlances(inSight);
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
                ref={virtual.measureElement}
                data-index={item.index}
                className="absolute inset-x-0 top-0"
                style={{ transform: `translateY(${item.start}px)`, paddingBottom: size.gap }}
              >
                <Street
                  block={block}
                  glances={glances}
                  status={status}
                  index={index}
                  size={size}
                  mini={mini}
                  dimDark={isNow}
                  selected={selected}
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
