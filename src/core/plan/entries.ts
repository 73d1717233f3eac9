import equal from 'fast-deep-equal';

/** Lists whose entries have ids of their own, and how they are patched: entry by entry, never by place. */

/** An entry of such a list. Before it is written first, it may have no id. */
export type Entry = Readonly<Record<string, unknown>> & { readonly id?: string | undefined };

/** Fields and their new values; null takes a field away. */
export type Fields = Readonly<Record<string, unknown>>;

/** What becomes of one entry. `after` is the entry behind which it comes to stand, null for the front. `was` is what was seen before. */
export type EntryPatch =
  | { readonly id: string; readonly add: Entry; readonly after: string | null }
  | { readonly id: string; readonly set: Fields; readonly was?: Fields | undefined }
  | { readonly id: string; readonly after: string | null }
  | { readonly id: string; readonly remove: true; readonly was?: Entry | undefined };

/** Where two people changed the same field: whose entry, which field, and what each made of it. Null is "absent". */
export interface FieldConflict {
  readonly entry?: string | undefined;
  readonly field: string;
  readonly theirs: unknown;
  readonly mine: unknown;
}

/**
 * The list with an id on every entry. Those without one get the id of the entry in `known` that says the same, else a new one:
 * `e1`, `e2` and so on, as far as it is free.
 */
export function withEntryIds<E extends Entry>(
  list: readonly E[],
  known: readonly Entry[] = [],
): (E & { id: string })[] {
  const taken = new Set([...list, ...known].flatMap((entry) => entry.id ?? []));
  const free = known.filter((entry) => !list.some((one) => one.id === entry.id));
  let count = 0;
  const next = () => {
    do count++;
    while (taken.has(`e${count}`));
    return `e${count}`;
  };
  return list.map((entry) => {
    if (entry.id !== undefined) return entry as E & { id: string };
    const at = free.findIndex(({ id: _id, ...same }) => equal(same, withoutUndefined(entry)));
    const [found] = at < 0 ? [] : free.splice(at, 1);
    return { ...entry, id: found?.id ?? next() };
  });
}

export const withoutUndefined = <T extends object>(value: T): T =>
  Object.fromEntries(Object.entries(value).filter(([, one]) => one !== undefined)) as T;

/** An id for an entry that is put in, as good as never given twice: two people may put entries in at once. `random` gives 0 to 1. */
export const newEntryId = (random: () => number) =>
  `e${Math.floor(random() * 36 ** 8)
    .toString(36)
    .padStart(8, '0')}`;

/** The patches that lead from one list to another, by their entries' ids: taken out, changed, then put in place from the front on. */
export function entryPatches(before: readonly Entry[], after: readonly Entry[]): EntryPatch[] {
  const from = withEntryIds(before);
  const old = new Map(from.map((entry) => [entry.id, entry]));
  const next = withEntryIds(after, from);
  const kept = new Set(next.map(({ id }) => id));
  const patches: EntryPatch[] = [...old].flatMap(([id, was]) => (kept.has(id) ? [] : [{ id, remove: true, was }]));
  for (const entry of next) {
    const was = old.get(entry.id);
    const fields = was && fieldsThatDiffer(was, entry);
    if (fields) patches.push({ id: entry.id, ...fields });
  }
  const staying = longestRun(
    next.map(({ id }) => id),
    [...old.keys()].filter((id) => kept.has(id)),
  );
  next.forEach(({ id, ...add }, i) => {
    const after = next[i - 1]?.id ?? null;
    if (!old.has(id)) patches.push({ id, add, after });
    else if (!staying.has(id)) patches.push({ id, after });
  });
  return patches;
}

/** The fields that differ, as they are and as they were; null where none does. */
export function fieldsThatDiffer(before: object, after: object): { set: Fields; was: Fields } | null {
  const [old, next] = [before as Fields, after as Fields];
  const changed = [...new Set([...Object.keys(old), ...Object.keys(next)])].filter(
    (field) => field !== 'id' && !equal(old[field] ?? null, next[field] ?? null),
  );
  if (changed.length === 0) return null;
  const pick = (from: Fields) => Object.fromEntries(changed.map((field) => [field, from[field] ?? null]));
  return { set: pick(next), was: pick(old) };
}

/** Applies a patch's fields to an object that another person may have changed since; reports fields that both changed. */
export function withFields<T extends object>(
  object: T,
  set: Fields,
  was: Fields | undefined,
  conflicts: FieldConflict[],
  entry?: string,
): T {
  const result = new Map<string, unknown>(Object.entries(object));
  for (const [field, value] of Object.entries(set)) {
    const mine = value ?? null;
    const now = result.get(field) ?? null;
    if (was && Object.hasOwn(was, field) && !equal(now, was[field] ?? null) && !equal(now, mine))
      conflicts.push({ ...(entry === undefined ? {} : { entry }), field, theirs: now, mine });
    if (mine === null) result.delete(field);
    else result.set(field, mine);
  }
  return Object.fromEntries(result) as T;
}

/**
 * The list with patches applied. If another person removed an entry that the patch changes, that is a conflict. An entry
 * whose neighbour is gone goes to the end. If two people moved an entry, the later move counts.
 */
export function withEntries(
  list: readonly Entry[],
  patches: readonly EntryPatch[],
  conflicts: FieldConflict[],
): Entry[] {
  const result = withEntryIds(list);
  const placeOf = (id: string) => result.findIndex((entry) => entry.id === id);
  const putBehind = (entry: Entry & { id: string }, after: string | null) => {
    const place = after === null ? 0 : placeOf(after) + 1;
    result.splice(after !== null && place === 0 ? result.length : place, 0, entry);
  };
  for (const patch of patches) {
    const place = placeOf(patch.id);
    const entry = result[place];
    if ('add' in patch) {
      const [made] = withEntryIds([{ ...patch.add, id: entry ? undefined : patch.id }], result);
      if (made) putBehind(made, patch.after);
    } else if (!entry) {
      if ('set' in patch)
        conflicts.push({ entry: patch.id, field: Object.keys(patch.set)[0] ?? 'id', theirs: null, mine: patch.set });
    } else if ('set' in patch) {
      result[place] = withFields(entry, patch.set, patch.was, conflicts, patch.id);
    } else if ('remove' in patch) {
      const changed = patch.was && fieldsThatDiffer(patch.was, entry);
      if (changed)
        for (const [field, theirs] of Object.entries(changed.set))
          conflicts.push({ entry: patch.id, field, theirs, mine: null });
      result.splice(place, 1);
    } else {
      result.splice(place, 1);
      putBehind(entry, patch.after);
    }
  }
  return result;
}

/** The longest run of ids in `order` that are in the same order in `old`: these need not move. O(n log n), patience sorting. */
function longestRun(order: readonly string[], old: readonly string[]): ReadonlySet<string> {
  const places = new Map(old.map((id, i) => [id, i]));
  const tails: { place: number; id: string; before: number }[][] = [];
  for (const id of order) {
    const place = places.get(id);
    if (place === undefined) continue;
    let [low, high] = [0, tails.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((tails[middle]?.at(-1)?.place ?? Infinity) < place) low = middle + 1;
      else high = middle;
    }
    (tails[low] ??= []).push({ place, id, before: (tails[low - 1]?.length ?? 0) - 1 });
  }
  const run = new Set<string>();
  for (let pile = tails.length - 1, at = (tails[pile]?.length ?? 0) - 1; pile >= 0; pile--) {
    const one = tails[pile]?.[at];
    if (!one) break;
    run.add(one.id);
    at = one.before;
  }
  return run;
}
