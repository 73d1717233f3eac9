/** Sites on a map that would lie over each other are one mark. */

export interface Spot {
  readonly id: string;
  /** On the map, in its own units. */
  readonly x: number;
  readonly y: number;
}

export interface Cluster<S extends Spot> {
  readonly x: number;
  readonly y: number;
  /** In the order in which they came. */
  readonly spots: readonly S[];
}

/** How large a mark is, in the map's units. */
export interface Room {
  readonly width: number;
  readonly height: number;
}

/** Joins spots whose marks would lie over each other, in turn. A mark is where its spots are on average, and marks are joined as long as two are too near. */
export function clustersOf<S extends Spot>(spots: readonly S[], room: Room): Cluster<S>[] {
  let clusters: Cluster<S>[] = spots.map((spot) => ({ x: spot.x, y: spot.y, spots: [spot] }));
  for (;;) {
    const pair = nearest(clusters, room);
    if (!pair) return clusters;
    const [a, b] = pair;
    const joined = [...a.spots, ...b.spots];
    const mean = (of: (spot: S) => number) => joined.reduce((sum, spot) => sum + of(spot), 0) / joined.length;
    clusters = clusters.flatMap((one) =>
      one === b ? [] : one === a ? [{ x: mean((spot) => spot.x), y: mean((spot) => spot.y), spots: joined }] : [one],
    );
  }
}

/** The two marks that lie nearest to each other, if that is too near. */
function nearest<C extends { readonly x: number; readonly y: number }>(
  clusters: readonly C[],
  { width, height }: Room,
): [C, C] | null {
  let best: [C, C] | null = null;
  let least = 1;
  clusters.forEach((a, i) =>
    clusters.slice(i + 1).forEach((b) => {
      // Less than 1 where they lie over each other.
      const distance = Math.max(Math.abs(a.x - b.x) / width, Math.abs(a.y - b.y) / height);
      if (distance >= least) return;
      least = distance;
      best = [a, b];
    }),
  );
  return best;
}
