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

/** Joins spots that lie nearer than `apart`, in turn. A mark is where its spots are on average, and marks are joined as long as two are too near. */
export function clustersOf<S extends Spot>(spots: readonly S[], apart: number): Cluster<S>[] {
  let clusters: Cluster<S>[] = spots.map((spot) => ({ x: spot.x, y: spot.y, spots: [spot] }));
  for (;;) {
    const pair = nearest(clusters, apart);
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
  apart: number,
): [C, C] | null {
  let best: [C, C] | null = null;
  let least = apart;
  clusters.forEach((a, i) =>
    clusters.slice(i + 1).forEach((b) => {
      const distance = Math.hypot(a.x - b.x, a.y - b.y);
      if (distance >= least) return;
      least = distance;
      best = [a, b];
    }),
  );
  return best;
}
