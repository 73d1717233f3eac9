/** Several tiles chosen: what a press makes of the chosen screens. Pure. */

export interface Chosen {
  readonly ids: ReadonlySet<string>;
  /** From which one a stretch is drawn; null where nothing is chosen. */
  readonly anchor: string | null;
}

export const NOTHING: Chosen = { ids: new Set(), anchor: null };

/**
 * A tile was pressed: alone it is chosen or given up; `more` (Ctrl, ⌘) adds it or takes it away; `stretch` (Shift) chooses all from the
 * anchor to it, in the `order` in which tiles stand.
 */
export function pressed(
  { ids, anchor }: Chosen,
  id: string,
  order: readonly string[],
  { more, stretch }: { readonly more: boolean; readonly stretch: boolean },
): Chosen {
  if (stretch && anchor !== null) {
    const [a, b] = [order.indexOf(anchor), order.indexOf(id)].sort((x, y) => x - y) as [number, number];
    if (a >= 0) return { ids: new Set([...(more ? ids : []), ...order.slice(a, b + 1)]), anchor };
  }
  if (more) {
    const next = new Set(ids);
    if (!next.delete(id)) next.add(id);
    return { ids: next, anchor: id };
  }
  return ids.size === 1 && ids.has(id) ? NOTHING : { ids: new Set([id]), anchor: id };
}

export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** The box between two corners, whichever they are. */
export const boxBetween = (a: { x: number; y: number }, b: { x: number; y: number }): Box => ({
  left: Math.min(a.x, b.x),
  top: Math.min(a.y, b.y),
  right: Math.max(a.x, b.x),
  bottom: Math.max(a.y, b.y),
});

export const meets = (a: Box, b: Box): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** The tile that an arrow leads to from the one at `from`; the same where there is none. Up and down go to the nearest in the next line. */
export function tileBeyond(boxes: readonly Box[], from: number, key: string): number {
  const here = boxes[from];
  if (!here) return from;
  const last = boxes.length - 1;
  if (key === 'ArrowLeft') return Math.max(0, from - 1);
  if (key === 'ArrowRight') return Math.min(last, from + 1);
  if (key === 'Home') return 0;
  if (key === 'End') return last;
  const middle = (box: Box) => (box.left + box.right) / 2;
  const down = key === 'ArrowDown';
  let best = from;
  let least = Infinity;
  boxes.forEach((box, i) => {
    // Tiles of one line share a bottom edge.
    const lines = down ? box.bottom - here.bottom : here.bottom - box.bottom;
    if (lines < 8) return;
    const far = lines * 1000 + Math.abs(middle(box) - middle(here));
    if (far < least) [best, least] = [i, far];
  });
  return best;
}
