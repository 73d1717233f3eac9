'use client';

import { LANE_HEIGHT } from './bar';
import type { Layer } from './layout';
import type { WallScale } from './scale';
import type { Held } from './held';

const SHORTEST_BAND = 30;

/** How high a layer stands, in pixels: room for its lanes, and for drawing where it has none. */
export const bandHeight = (lanes: number) => Math.max(SHORTEST_BAND, lanes * LANE_HEIGHT + 6);

/** A priority as a height and a number; in sight as long as any of its layer is. */
export function LayerName({ layer, height }: { layer: Layer; height: number }) {
  return (
    <div className="flex items-end border-b border-rule text-sm" style={{ height }}>
      <span className="sticky bottom-1 flex items-end gap-2 pb-1">
        {layer === 'takeover' ? (
          <>
            <span aria-hidden className="hatch h-6 w-2 border border-dusk" /> Takeover
          </>
        ) : (
          <>
            <span aria-hidden className="w-2 bg-dusk" style={{ height: 3 + layer * 3 }} /> Priority {layer}
          </>
        )}
      </span>
    </div>
  );
}

/** Where the bar in hand would stand: a new one takes the whole layer's height. */
export function Ghost({ held, scale }: { held: Held; scale: WallScale }) {
  const left = scale.x(held.start);
  const own = held.bar?.layer === held.layer ? held.bar.lane : 0;
  return (
    <div
      aria-hidden
      data-testid="ghost"
      className="pointer-events-none absolute z-20 border-2 border-tide bg-tide/25"
      style={{
        left,
        width: Math.max(3, scale.x(held.end) - left),
        bottom: 4 + own * LANE_HEIGHT,
        ...(held.bar ? { height: LANE_HEIGHT - 4 } : { top: 2 }),
      }}
    />
  );
}
