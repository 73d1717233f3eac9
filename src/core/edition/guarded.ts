import equal from 'fast-deep-equal';
import { itemFiles } from '../forecast/durations';
import { knownContent, objectIn, type Booking, type Content, type KnownContent, type Plan } from '../plan';
import { knownItem } from '../plan/known';
import { never } from '../refusal';

/**
 * Takeovers that only some people may fire. What one of them shows is guarded too: a copy of the booking, of its playlist or of its file shows
 * the same on the screens, whatever it is called.
 */

/** Everything that a content may show or play: files by their hashes, as one that is in the library twice is the same, and what isn't a file by its id. */
function filesIn(plan: Plan, content: Content): ReadonlySet<string> {
  const found = new Set<string>();
  const seen = new Set<string>();
  const add = (id: string | undefined) => {
    const file = id === undefined ? null : objectIn(plan, 'media', id);
    if (file) found.add(file.sha256 ?? file.id);
  };
  const walk = (id: string) => {
    if (seen.has(id)) return;
    seen.add(id);
    for (const item of objectIn(plan, 'playlist', id)?.items ?? []) {
      const what = knownItem(item);
      if (what.kind === 'collect') for (const file of itemFiles(plan, item)) add(file.id);
      else show(what);
    }
  };
  const show = ({ kind, id }: Pick<KnownContent, 'kind' | 'id'>): void => {
    switch (kind) {
      case 'media':
        return add(id);
      case 'playlist':
        return walk(id);
      case 'layout':
        for (const zone of objectIn(plan, 'layout', id)?.zones ?? [])
          if (zone.content) show(knownContent(zone.content));
        return;
      case 'bulletin':
      case 'input':
        found.add(`${kind} ${id}`);
        return;
      default:
        return never(kind);
    }
  };
  show(knownContent(content));
  return found;
}

/**
 * The ids of the guarded takeovers that a booking of a plan falls under: itself, and those whose files it shows as a takeover, all of them. `others` are
 * plans in which a guarded takeover may show something else, as on the screens now, so that the guard can't be avoided by changing its playlist first.
 */
export function guardedIn(
  plan: Plan,
  booking: Booking,
  guarded: readonly string[],
  others: readonly Plan[] = [],
): string[] {
  const shows = booking.takeover ? filesIn(plan, booking.content) : new Set<string>();
  return guarded.filter(
    (id) =>
      id === booking.id ||
      [plan, ...others].some((one) => {
        const original = objectIn(one, 'booking', id);
        const files = original ? filesIn(one, original.content) : new Set<string>();
        return files.size > 0 && [...files].every((file) => shows.has(file));
      }),
  );
}

/** Which bookings of a plan would be on the screens as a takeover that is guarded, and are not so, or otherwise, in the plan before. */
export function newlyGuarded(
  before: Plan,
  after: Plan,
  guarded: readonly string[],
): readonly { readonly booking: Booking; readonly under: readonly string[] }[] {
  if (guarded.length === 0) return [];
  const isLive = ({ takeover, onHold }: Booking) => takeover === true && !onHold;
  return after.bookings.filter(isLive).flatMap((booking) => {
    const known = objectIn(before, 'booking', booking.id);
    const was = known && isLive(known) && equal(known, booking) ? guardedIn(before, known, guarded) : [];
    const under = guardedIn(after, booking, guarded, [before]).filter((id) => !was.includes(id));
    return under.length > 0 ? [{ booking, under }] : [];
  });
}
