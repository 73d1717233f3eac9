import equal from 'fast-deep-equal';

/** What three versions of the same fields make: what was, what somebody else made of it, and what one has written oneself. */
export interface Merged<V> {
  readonly values: V;
  /** Fields that both changed, each to something else: one's own words stay in them. */
  readonly both: readonly (keyof V & string)[];
}

/** What one sent oneself: the words that stood in the form, and how they are written once they are saved. */
export interface Sent<V> {
  readonly written: V;
  readonly made: V;
}

/** A field that only one side changed is that side's; what both changed stays one's own, and is told. */
export function merge<V extends object>(base: V, theirs: V, mine: V, sent?: Sent<V> | null): Merged<V> {
  const values = { ...mine };
  const both: (keyof V & string)[] = [];
  for (const key of Object.keys(theirs) as (keyof V & string)[]) {
    if (equal(theirs[key], base[key]) || equal(theirs[key], mine[key])) continue;
    // What comes back is one's own: written as it is saved, unless one has written on.
    if (sent && equal(theirs[key], sent.made[key])) {
      if (equal(mine[key], sent.written[key])) values[key] = theirs[key];
    } else if (equal(mine[key], base[key])) values[key] = theirs[key];
    else both.push(key);
  }
  return { values, both };
}
