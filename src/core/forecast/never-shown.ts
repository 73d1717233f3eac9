import { drawnIn, knownContent, type ContentKind } from '../plan/contents';
import { knownItem } from '../plan/known';
import { objectIn } from '../plan/patch';
import { collectionOf } from '../plan/registry';
import { screensMatching, selectorOf } from '../selector';
import { itemLength } from './durations';
import type { Instant } from '../instant';
import type { Booking, Plan } from '../plan/schema';
import { intersect } from '../when';
import type { Subject } from './airtime';
import { Contest, contestsOf, hidersOf } from './contest';
import type { GroupForecast } from './network';
import { drawnPlays, overlayItems } from './drawn';
import { drawnItems, loopsIn } from './plays';
import { isPresented } from './stepping';
import { comesFrom, type Loop, type LoopItem } from './loop';
import { placeOf, type ScreenProgram } from './program';
import { itemInstants } from './segments';

/** Something of a plan that no screen shows in a range. */
export interface NeverShown {
  readonly subject: Subject;
  /** Ids of bookings that show when it would, or `lights-out`; the one that hides it longest first. */
  readonly hiddenBy: readonly string[];
  readonly because:
    | 'on hold'
    | 'waits for its cue'
    | 'archived'
    | 'not used'
    | 'no screen'
    | 'no time'
    | 'hidden'
    | 'nothing to show'
    | 'never its turn';
}

/** The bookings, layouts, bulletins, playlists and files that no screen shows at any instant of `[from, to)`, and why. Archived ones are left out. */
export function neverShown(plan: Plan, from: Instant, to: Instant): NeverShown[] {
  const contests = contestsOf(plan, from, to);
  const outcomes = contests.map((one) => one.group);
  const shown = whatShows(outcomes);
  const used = usedContents(plan);
  const bookings = plan.bookings
    .filter((booking) => !shown.has(`booking ${booking.id}`))
    .map((booking): NeverShown => ({
      subject: { kind: 'booking', id: booking.id },
      ...whyNot(plan, booking, contests),
    }));
  const rest = (kind: Exclude<ContentKind, 'input'>) =>
    objectsOf(plan, kind)
      .filter(({ id, archived }) => !archived && !shown.has(`${kind} ${id}`))
      .map(({ id }): NeverShown => {
        const within = (item: LoopItem) => comesFrom(item, { kind, id });
        const holds = (loop: Loop) => loop.some(within);
        const because = outcomes.some(({ program, segments }) =>
          segments.some((one) =>
            loopsIn(program, placeOf(program), one).some(({ loop }) => holds(drawnItems(program, loop))),
          ),
        )
          ? 'never its turn'
          : !outcomes.some(({ program }) => program.loops.some(holds))
            ? used.has(`${kind} ${id}`)
              ? 'no screen'
              : 'not used'
            : outcomes.some(({ program }) =>
                  program.loops.some((loop) => loop.some((item) => within(item) && hasTime(item, program))),
                )
              ? 'hidden'
              : 'no time';
        return { subject: { kind, id }, hiddenBy: [], because };
      });
  const hasTime = (item: LoopItem, program: ScreenProgram) =>
    intersect(itemInstants(program, item, placeOf(program), from, to), [[from, to]]).length > 0;
  // What others are in goes ahead of them.
  return [...bookings, ...(['layout', 'bulletin', 'playlist', 'media'] as const).flatMap(rest)];
}

const objectsOf = (
  plan: Plan,
  kind: Exclude<ContentKind, 'input'>,
): readonly { readonly id: string; readonly archived?: boolean | undefined }[] => plan[collectionOf(kind)];

/** Keys `booking ID`, and `KIND ID` of contents, of all that shows. Loops of which all was seen are not played again. */
function whatShows(outcomes: readonly GroupForecast[]): Set<string> {
  const shown = new Set<string>();
  const keyOf = (item: LoopItem) => Object.values(drawnIn(item)).join(' ');
  const isShown = (item: LoopItem) => shown.has(keyOf(item));
  for (const { program, segments } of outcomes) {
    const place = placeOf(program);
    for (const segment of segments) {
      if (segment.source === 'booking' || segment.source === 'takeover') shown.add(`booking ${segment.id}`);
      const loops = loopsIn(program, place, segment);
      const items = [...loops.flatMap(({ loop }) => drawnItems(program, loop)), ...overlayItems(program)];
      const isAboveKnown = () => (program.overlays ?? []).every(({ id }) => shown.has(`booking ${id}`));
      const known = () =>
        items.every((item) => isShown(item) && (item.through ?? []).every((id) => shown.has(`playlist ${id}`))) &&
        isAboveKnown() &&
        loops.every(({ weave }) => !weave || shown.has(`booking ${weave.id}`));
      // Mostly the first rounds show all of a loop: only where they do not is the whole segment played.
      const round = items.reduce((sum, item) => sum + item.durationMs, 0);
      for (const to of [Math.min(segment.to, segment.from + 2 * round), segment.to]) {
        if (known()) break;
        for (const play of drawnPlays(program, place, { ...segment, to })) {
          if (play.weave !== null) shown.add(`booking ${play.weave}`);
          if (play.layout !== undefined) shown.add(`layout ${play.layout}`);
          const item = program.loops[play.loop]?.[play.item];
          if (!item) continue;
          // In a presentation the other items are a step away.
          for (const one of isPresented(program, play.loop) ? drawnItems(program, play.loop) : [item]) {
            shown.add(keyOf(one));
            for (const id of one.through ?? []) shown.add(`playlist ${id}`);
          }
        }
      }
    }
  }
  return shown;
}

function usedContents(plan: Plan): Set<string> {
  const contents = [
    ...plan.bookings.map((one) => one.content),
    ...[plan.network, ...plan.sites, ...plan.screens].flatMap((one) => one.backdrop ?? []),
  ].map(knownContent);
  const zones = plan.layouts.flatMap((layout) => layout.zones.flatMap((zone) => zone.content ?? [])).map(knownContent);
  const used = [...contents, ...zones, ...plan.playlists.flatMap((list) => list.items.map(knownItem))];
  return new Set(used.flatMap((one) => (one.kind === 'collect' ? [] : [`${one.kind} ${one.id}`])));
}

/** Whether what a booking shows is archived. */
function isArchived(plan: Plan, { content }: Booking): boolean {
  const { kind, id } = knownContent(content);
  return (kind === 'media' || kind === 'playlist') && objectIn(plan, kind, id)?.archived === true;
}

/** Whether a booking that is for some screens has a playlist or a layout without anything in it, or whose rules collect nothing. */
function isEmpty(plan: Plan, { content, where }: Booking): boolean {
  const known = knownContent(content);
  const isBare =
    known.kind === 'playlist'
      ? (objectIn(plan, 'playlist', known.id)?.items ?? []).every((item) => itemLength(plan, item).files === 0)
      : known.kind === 'layout' && !objectIn(plan, 'layout', known.id)?.zones.some((zone) => zone.content);
  return isBare && screensMatching(plan, selectorOf(where)).length > 0;
}

/** Why a booking, which none of some groups of screens shows over their range, does not show there. */
function whyNot(plan: Plan, booking: Booking, contests: readonly Contest[]): Pick<NeverShown, 'because' | 'hiddenBy'> {
  const because = isArchived(plan, booking)
    ? 'archived'
    : isEmpty(plan, booking) && !booking.onHold
      ? 'nothing to show'
      : whyNever(booking, contests);
  return { because, hiddenBy: because === 'hidden' ? hidersOf(booking.id, contests) : [] };
}

/**
 * What becomes of a booking on screens over `[from, to)`: null where it shows on one of them, else why it shows on none. `groups` are the screens
 * that it is for, as they were forecast for that time.
 */
export function whyNotShown(
  plan: Plan,
  booking: Booking,
  groups: readonly GroupForecast[],
  [from, to]: readonly [Instant, Instant],
): Pick<NeverShown, 'because' | 'hiddenBy'> | null {
  const contests = groups.map((group) => new Contest(group, from, to));
  const isShown = !booking.onHold && contests.some((contest) => contest.stateOf(booking.id) === 'shows');
  return isShown ? null : whyNot(plan, booking, contests);
}

function whyNever({ id, onHold }: Booking, contests: readonly Contest[]): NeverShown['because'] {
  if (onHold) return 'on hold';
  const states = new Set(contests.map((contest) => contest.stateOf(id)));
  if (states.has('waits for its cue')) return 'waits for its cue';
  if (states.has('hidden') || states.has('off')) return 'hidden';
  return states.has('nothing to show') ? 'nothing to show' : states.has('no time') ? 'no time' : 'no screen';
}
