/**
 * A list in which some of its places are moved to another together, in their order: those that come from before it stand after what is
 * there, as a single one does. The list itself where the place is among them.
 */
export function movedTo<T>(list: readonly T[], places: ReadonlySet<number>, to: number): readonly T[] {
  const target = list[to];
  if (places.has(to) || target === undefined) return list;
  const moved = list.filter((_, i) => places.has(i));
  const isDown = Math.min(...places) < to;
  return list.flatMap((one, i) => {
    if (places.has(i)) return [];
    if (i !== to) return [one];
    return isDown ? [one, ...moved] : [...moved, one];
  });
}
