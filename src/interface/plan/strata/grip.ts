/** How far the place where an end is pulled reaches into a bar, and out of it, in pixels. */
export interface Grip {
  readonly inside: number;
  readonly outside: number;
}

const WIDE = 6;
const OUTSIDE = 7;
/** A bar that is narrower has no room to be pulled within. */
const NARROW = 3 * 4;

/** The ends of a bar so many pixels wide: the middle third always carries, and very short bars are pulled from outside their ends. */
export function gripOf(width: number): Grip {
  if (width < NARROW) return { inside: 0, outside: OUTSIDE };
  return { inside: Math.min(WIDE, width / 3), outside: 0 };
}
