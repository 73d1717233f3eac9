import { LANES_FROM, LANE_HEIGHT } from './sizes';

/** A layer's place in the scrolled content, in pixels from its top. */
export interface Placed {
  readonly top: number;
  readonly height: number;
  readonly lanes: number;
}

/** Layers under each other. */
export function placed(layers: readonly { readonly height: number; readonly lanes: number }[]): Placed[] {
  let top = 0;
  return layers.map(({ height, lanes }) => {
    const at = { top, height, lanes };
    top += height;
    return at;
  });
}

/** How many lanes of a layer are mostly hidden when `from` to `to` is visible; none before anything is measured. */
export function lanesOut({ top, height, lanes }: Placed, from: number, to: number): number {
  if (to <= from) return 0;
  const foot = top + height - LANES_FROM;
  return Array.from({ length: lanes }, (_, lane) => foot - (lane + 0.5) * LANE_HEIGHT).filter(
    (middle) => middle < from || middle > to,
  ).length;
}

/** How far to scroll at first, so that the layer that holds most is not cut off, where it has room in `height` pixels. */
export function firstScroll(layers: readonly Placed[], height: number): number {
  const fullest = layers.reduce<Placed | null>((best, one) => (one.lanes > (best?.lanes ?? 0) ? one : best), null);
  if (!fullest) return 0;
  const foot = fullest.top + fullest.height;
  return Math.max(0, Math.min(fullest.top, foot - height));
}
