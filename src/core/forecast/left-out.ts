import type { Instant } from '../instant';
import { isShown, knownItem } from '../plan/known';
import { objectIn } from '../plan/patch';
import { never } from '../refusal';
import type { Item, Plan, Playlist, When } from '../plan/schema';
import { matches, screenTerms, selectorOf } from '../selector';
import { instantsOf, intervalAt, type Place } from '../when';
import { bookedAlone, type Pass, type Turn } from './passes';
import { placeOf } from './program';
import { programMaker } from './narrow';

/** Why a screen does not show an item: it plays on others, finds no file, is heard alone, holds nothing for it, is archived; or is not available then. */
export type LeftOutReason =
  | { readonly kind: 'elsewhere'; readonly where: string }
  | { readonly kind: 'no file' | 'sound' | 'empty' | 'archived' }
  | { readonly kind: 'not now'; readonly when: When };

/** An item that a screen does not show at an instant. */
export interface LeftOut {
  /** Its place in the playlist. */
  readonly item: number;
  readonly reason: LeftOutReason;
}

/** What of a playlist a screen does not show at an instant, and why. `pass` is how that screen sees it. Throws RangeError for an unknown screen. */
export function leftOut(
  plan: Plan,
  playlist: Playlist,
  pass: Pass | undefined,
  screenId: string,
  at: Instant,
): LeftOut[] {
  const alone = bookedAlone(playlist);
  const place = placeOf(programMaker({ ...plan, bookings: [alone] })(screenId, [alone]));
  const screen = plan.screens.find(({ id }) => id === screenId);
  const terms = screen ? screenTerms(screen, plan.sites.find(({ id }) => id === screen.site)?.tags) : new Set<string>();
  return playlist.items.flatMap((item, i): LeftOut[] => {
    const turns = (pass?.turns ?? []).filter((turn) => turn.item === i);
    const reason = turns.length === 0 ? whyNone(plan, item, terms) : whyNotNow(turns, place, at);
    return reason ? [{ item: i, reason }] : [];
  });
}

function whyNone(plan: Plan, item: Item, terms: ReadonlySet<string>): LeftOutReason {
  if (item.where !== undefined && !matches(selectorOf(item.where), terms))
    return { kind: 'elsewhere', where: item.where };
  const what = knownItem(item);
  switch (what.kind) {
    case 'playlist':
      return { kind: objectIn(plan, what.kind, what.id)?.archived ? 'archived' : 'empty' };
    case 'media': {
      const file = objectIn(plan, what.kind, what.id);
      return { kind: file?.archived ? 'archived' : file && !isShown(file) ? 'sound' : 'no file' };
    }
    case 'collect':
      return { kind: 'no file' };
    case 'layout':
    case 'bulletin':
    case 'input':
      return { kind: 'empty' };
    default:
      return never(what);
  }
}

/** The first condition that keeps all of an item's turns away at an instant; null where one of them is available. */
function whyNotNow(turns: readonly Turn[], place: Place, at: Instant): LeftOutReason | null {
  const off = turns.map(({ of }) => of.when.find((when) => !intervalAt(instantsOf(when, place, at, at + 1), at)));
  const [first] = off;
  return first && off.every((when) => when !== undefined) ? { kind: 'not now', when: first } : null;
}
