import type { Booking, Calendar, Media, Network, Plan, Playlist, Screen, Site } from './schema';

interface Documents {
  readonly network: Network;
  readonly calendar: Calendar;
  readonly site: Site;
  readonly screen: Screen;
  readonly media: Media;
  readonly playlist: Playlist;
  readonly booking: Booking;
}

/** One object's new document (null removes it); without `id`, a new object. What mends and gestures make, and the plan's services carry out. */
export type PlanEdit = {
  [Kind in keyof Documents]: {
    readonly kind: Kind;
    readonly id?: string | undefined;
    readonly document: Omit<Documents[Kind], 'id'> | null;
  };
}[keyof Documents];

const COLLECTION = {
  calendar: 'calendars',
  site: 'sites',
  screen: 'screens',
  media: 'media',
  playlist: 'playlists',
  booking: 'bookings',
} as const;

/**
 * The plan with edits made to it, for looking ahead: nothing is checked, and a new object gets a passing id (`new-0` for the
 * first edit). What no edit touches is shared with the plan before.
 */
export function withEdits(plan: Plan, edits: readonly PlanEdit[]): Plan {
  const result = { ...plan };
  edits.forEach((edit, i) => {
    if (edit.kind === 'network') {
      if (edit.document) result.network = edit.document as Network;
      return;
    }
    const key = COLLECTION[edit.kind];
    const list: { id: string }[] = [...result[key]];
    const at = list.findIndex((one) => one.id === edit.id);
    const made = edit.document && { ...edit.document, id: edit.id ?? `new-${i}` };
    if (made) list.splice(at < 0 ? list.length : at, at < 0 ? 0 : 1, made);
    else if (at >= 0) list.splice(at, 1);
    Object.assign(result, { [key]: list });
  });
  return result;
}
