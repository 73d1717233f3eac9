import equal from 'fast-deep-equal';
import type { Plan } from './schema';

/**
 * `after` with every object that it has in common with `before` taken from there, so that what was computed of an object
 * is found again: by `===`, in place of by looking deep. A collection in which nothing changed is the same list.
 */
export function sharing(before: Plan, after: Plan): Plan {
  const list = <T extends { readonly id: string }>(old: readonly T[], next: readonly T[]): T[] => {
    const known = new Map(old.map((one) => [one.id, one]));
    const shared = next.map((one) => same(known.get(one.id), one));
    return shared.length === old.length && shared.every((one, i) => one === old[i]) ? (old as T[]) : shared;
  };
  return {
    ...after,
    network: same(before.network, after.network),
    calendars: list(before.calendars, after.calendars),
    sites: list(before.sites, after.sites),
    screens: list(before.screens, after.screens),
    media: list(before.media, after.media),
    playlists: list(before.playlists, after.playlists),
    bookings: list(before.bookings, after.bookings),
  };
}

const same = <T>(old: T | undefined, next: T): T => (old !== undefined && equal(old, next) ? old : next);

/** Whether two plans that share their objects differ in their bookings at most. */
export function sameGround(a: Plan, b: Plan): boolean {
  return (
    a.network === b.network &&
    a.calendars === b.calendars &&
    a.sites === b.sites &&
    a.screens === b.screens &&
    a.media === b.media &&
    a.playlists === b.playlists
  );
}

/** Whether two plans that share their objects are the same. */
export const samePlan = (a: Plan, b: Plan): boolean => sameGround(a, b) && a.bookings === b.bookings;
