import equal from 'fast-deep-equal';

/** What three versions of the same fields make: the version before, the other person's, and what this person has written. */
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

/**
 * A change by one side counts. Where both changed a field, this person's value stays, and the field is reported. `together` names fields that are one value: two people's
 * halves of it would make a third value that neither wrote, so it is taken or kept whole, and reported by its first field.
 */
export function merge<V extends object>(
  base: V,
  theirs: V,
  mine: V,
  sent?: Sent<V> | null,
  together: readonly (readonly string[])[] = [],
): Merged<V> {
  const values = { ...mine };
  const both: (keyof V & string)[] = [];
  for (const group of groupsOf(Object.keys(theirs), together) as (keyof V & string)[][]) {
    const same = (one: V, other: V) => group.every((key) => equal(one[key], other[key]));
    const take = () => {
      for (const key of group) values[key] = theirs[key];
    };
    if (same(theirs, base) || same(theirs, mine)) continue;
    // What comes back is one's own: written as it is saved, unless one has written on.
    if (sent && same(theirs, sent.made)) {
      if (same(mine, sent.written)) take();
    } else if (same(mine, base)) take();
    else if (group[0] !== undefined) both.push(group[0]);
  }
  return { values, both };
}

/** All fields, those that are one value together, in the order of `together`. */
export function groupsOf(fields: readonly string[], together: readonly (readonly string[])[]): string[][] {
  const known = together
    .map((group) => group.filter((field) => fields.includes(field)))
    .filter(({ length }) => length > 0);
  const grouped = new Set(known.flat());
  return [...known, ...fields.filter((field) => !grouped.has(field)).map((field) => [field])];
}
