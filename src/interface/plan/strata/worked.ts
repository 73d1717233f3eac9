import type { LocalTime } from '@/core/when';
import type { Bar, Layer, LayerOfBars } from './layout';

/** Where one worked: a booking's name, its layer, and the time at which its bar began. */
export interface Worked {
  readonly name: string;
  readonly layer: Layer;
  readonly start: LocalTime;
}

/** The bar that represents it now: its own before others, its layer's before others', the nearest in time. Undefined if there are none. */
export function nearestBar(layers: readonly LayerOfBars[], { name, layer, start }: Worked): Bar | undefined {
  const rank = (bar: Bar) => Number(bar.layer !== layer) * 2 + Number(!bar.booking.name.startsWith(name));
  const far = (bar: Bar) => Math.abs(bar.localOccasion.start - start);
  let best: Bar | undefined;
  for (const { bars } of layers)
    for (const bar of bars)
      if (!best || rank(bar) < rank(best) || (rank(bar) === rank(best) && far(bar) < far(best))) best = bar;
  return best;
}
