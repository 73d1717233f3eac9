import equal from 'fast-deep-equal';
import { LISTED_KINDS, collectionOf, type Collection } from './registry';
import type { Plan } from './schema';

/**
 * `after` with every object that it has in common with `before` taken from there, so that what was computed of an object
 * is found again: by `===`, in place of by looking deep. A collection in which nothing changed is the same list.
 */
export function sharing(before: Plan, after: Plan): Plan {
  const lists = LISTED_KINDS.map((kind) => {
    const collection = collectionOf(kind);
    return [collection, sharedList<{ readonly id: string }>(before[collection], after[collection])] as const;
  });
  return { ...after, network: same(before.network, after.network), ...Object.fromEntries(lists) };
}

function sharedList<T extends { readonly id: string }>(old: readonly T[], next: readonly T[]): readonly T[] {
  if (old === next) return old;
  const known = new Map(old.map((one) => [one.id, one]));
  const shared = next.map((one) => same(known.get(one.id), one));
  return shared.length === old.length && shared.every((one, i) => one === old[i]) ? old : shared;
}

const same = <T>(old: T | undefined, next: T): T => (old !== undefined && equal(old, next) ? old : next);

/** The lists in which two plans that share their objects differ; and whether their networks do. */
export function differingLists(a: Plan, b: Plan): { network: boolean; lists: Collection[] } {
  return {
    network: a.network !== b.network,
    lists: LISTED_KINDS.map((kind) => collectionOf(kind)).filter((collection) => a[collection] !== b[collection]),
  };
}

/** Whether two plans that share their objects differ in their bookings at most. */
export function sameButBookings(a: Plan, b: Plan): boolean {
  const { network, lists } = differingLists(a, b);
  return !network && lists.every((collection) => collection === 'bookings');
}

/** Whether two plans that share their objects are the same. */
export const samePlan = (a: Plan, b: Plan): boolean => sameButBookings(a, b) && a.bookings === b.bookings;
