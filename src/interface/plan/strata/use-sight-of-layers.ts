import { useEffect, useMemo, useRef } from 'react';
import type { LayerOfBars } from './layout';
import { firstScroll, lanesOut, placed } from './sight';
import { bandHeight } from './sizes';
import { useInSight } from './use-in-sight';

/** The days and hours stand over what is scrolled. */
const RULER_HEIGHT = 41;

/** Which lanes of the layers are visible, and which layers are further down. At the start, the layer that is scrolled to is not cut off. */
export function useSightOfLayers(layers: readonly LayerOfBars[], isDrawn: boolean) {
  const places = useMemo(() => placed(layers.map(({ lanes }) => ({ lanes, height: bandHeight(lanes) }))), [layers]);
  const scroll = useRef<HTMLDivElement>(null);
  const { from: above, to: below } = useInSight(scroll, RULER_HEIGHT);
  const out = places.map((one) => lanesOut(one, above, below));
  // At the start, the layer that is scrolled to is not cut off.
  // Until the person scrolls: parts below take their room only once they are there.
  const begun = useRef(0);
  useEffect(() => {
    const element = scroll.current;
    if (!element || !isDrawn || below === 0 || element.scrollTop !== begun.current) return;
    element.scrollTop = firstScroll(places, below - above);
    begun.current = element.scrollTop;
  }, [isDrawn, places, above, below]);
  const under = layers.filter((one, i) => one.lanes > 0 && out[i] === one.lanes && (places[i]?.top ?? 0) >= below);
  return { scroll, out, under };
}
