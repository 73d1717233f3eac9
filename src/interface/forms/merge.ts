/** What three versions of the same fields make: what was, what somebody else made of it, and what one has written oneself. */
export interface Merged<V> {
  readonly values: V;
  /** Fields that both changed, each to something else: one's own words stay in them. */
  readonly both: readonly (keyof V & string)[];
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** A field that only one side changed is that side's; what both changed stays one's own, and is told. */
export function merge<V extends object>(base: V, theirs: V, mine: V): Merged<V> {
  const values = { ...mine };
  const both: (keyof V & string)[] = [];
  for (const key of Object.keys(theirs) as (keyof V & string)[]) {
    if (same(theirs[key], base[key]) || same(theirs[key], mine[key])) continue;
    if (same(mine[key], base[key])) values[key] = theirs[key];
    else both.push(key);
  }
  return { values, both };
}
