'use client';

import { group } from 'd3-array';
import { memo } from 'react';
import type { Finding } from '@/core/preflight';
import { counted } from '@/interface/kit/words/format';
import { BarButton } from './bar';
import type { Bar, Layer, Marks } from './layout';
import type { TimeScale } from './scale';
import { BAR_HEIGHT, LANES_FROM, LANE_HEIGHT } from './sizes';
import type { Held } from '../gestures/held';

/** A priority as a height and a number; visible as long as any of its layer is, with how many of its lanes are not. */
export function LayerName({ layer, height, out }: { layer: Layer; height: number; out: number }) {
  return (
    <div className="flex items-end border-b border-rule text-sm" style={{ height }}>
      <span className="sticky bottom-1 flex flex-wrap items-end gap-x-2 pb-1">
        {layer === 'takeover' ? (
          <>
            <span aria-hidden className="hatch h-6 w-2 border border-dusk" /> Takeover
          </>
        ) : (
          <>
            <span aria-hidden className="w-2 bg-dusk" style={{ height: 3 + layer * 3 }} /> Priority {layer}
          </>
        )}
        {out > 0 && <span className="text-xs text-faint">{counted(out, 'row')} out of sight</span>}
      </span>
    </div>
  );
}

/** The bars of a layer. Drawn again only when they look different, not while a bar is dragged over them. */
export const LayerBars = memo(function LayerBars({
  bars,
  fromLane,
  scale,
  pictures,
  shades,
  findings,
  marks,
  taken,
  tabbable,
}: {
  bars: readonly Bar[];
  /** The lowest lane that is drawn. */
  fromLane: number;
  scale: TimeScale;
  /** Addresses of pictures of what bookings show. */
  pictures: ReadonlyMap<string, string | undefined>;
  /** Colours of pictures, by their addresses. */
  shades: ReadonlyMap<string, string>;
  findings: ReadonlyMap<string, readonly Finding[]>;
  marks: Marks;
  /** The bar that is in hand, or waits to be changed. */
  taken: string | null;
  /** The bar that Tab leads to. */
  tabbable: string | undefined;
}) {
  const lanes = [...group(bars, (bar) => bar.lane)].filter(([lane]) => lane >= fromLane);
  return lanes.map(([lane, list]) => (
    // Lanes out of sight are neither laid out nor painted: a layer may have dozens.
    <div
      key={lane}
      className="absolute inset-x-0 [content-visibility:auto]"
      style={{ bottom: LANES_FROM + lane * LANE_HEIGHT, height: LANE_HEIGHT }}
    >
      {list.map((bar) => (
        <BarButton
          key={bar.key}
          bar={bar}
          scale={scale}
          picture={pictures.get(bar.booking.id)}
          shade={shades.get(pictures.get(bar.booking.id) ?? '')}
          findings={findings.get(bar.booking.id) ?? NO_FINDINGS}
          mark={marks.get(bar.key)}
          held={bar.key === taken}
          tabbable={bar.key === tabbable}
        />
      ))}
    </div>
  ));
});

const NO_FINDINGS: readonly Finding[] = [];

/** Where the bar in hand would stand: a new one takes the whole layer's height. */
export function Ghost({ held, scale }: { held: Held; scale: TimeScale }) {
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
        bottom: LANES_FROM + own * LANE_HEIGHT + (LANE_HEIGHT - BAR_HEIGHT) / 2,
        ...(held.bar ? { height: BAR_HEIGHT } : { top: 2 }),
      }}
    />
  );
}
