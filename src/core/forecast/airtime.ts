import { knownContent, knownItem } from '../plan/known';
import type { Instant } from '../instant';
import type { Plan } from '../plan/schema';
import { intersect } from '../when';
import { NetworkForecast, type GroupForecast } from './network';
import { segmentPlays } from './plays';
import { placeOf, type Loop, type LoopItem, type ScreenProgram } from './program';
import { candidates, itemInstants, overlapping, type Candidate, type Segment } from './segments';

/** What is asked about: a booking, a playlist (nested ones too), or a file. */
export interface Subject {
  readonly kind: 'booking' | 'playlist' | 'media';
  readonly id: string;
}

/** How much of a range a subject is on a screen. */
export interface AirTime {
  readonly screen: string;
  readonly ms: number;
  /** Turns of its items, those that are cut short too. */
  readonly plays: number;
  readonly first: Instant;
}

/** Where and how long a subject really shows in `[from, to)`: the screens with any time at all, in the plan's order. */
export function airTime(plan: Plan, subject: Subject, from: Instant, to: Instant): AirTime[] {
  const times = new Map<string, Omit<AirTime, 'screen'>>();
  for (const outcome of new NetworkForecast(from, to).outcomes(plan)) {
    const time = timeIn(outcome, subject);
    if (time) for (const screen of outcome.screens) times.set(screen, time);
  }
  return plan.screens.flatMap(({ id }) => {
    const time = times.get(id);
    return time ? [{ screen: id, ...time }] : [];
  });
}

function timeIn({ program, segments }: GroupForecast, subject: Subject): Omit<AirTime, 'screen'> | null {
  const place = placeOf(program);
  /** For each loop, whether each of its items belongs to the subject. */
  const belongs = program.loops.map((loop) =>
    loop.map((item) =>
      subject.kind === 'media' ? item.media === subject.id : item.through?.includes(subject.id) === true,
    ),
  );
  let [ms, plays, first] = [0, 0, Infinity];
  for (const segment of segments) {
    const whole = subject.kind === 'booking';
    if (whole ? segment.id !== subject.id || segment.source === 'backdrop' : !belongs[segment.loop]?.includes(true))
      continue;
    for (const play of segmentPlays(program, place, segment)) {
      if (!whole && !belongs[segment.loop]?.[play.item]) continue;
      ms += play.to - play.from;
      plays++;
      first = Math.min(first, play.from);
    }
  }
  return plays === 0 ? null : { ms, plays, first };
}

/** Something of a plan that no screen shows in a range. */
export interface NeverShown {
  readonly subject: Subject;
  /** Ids of bookings that show when it would, or `lights-out`; the one that hides it longest first. */
  readonly hiddenBy: readonly string[];
  readonly because: 'on hold' | 'not used' | 'no screen' | 'no time' | 'hidden' | 'nothing to show' | 'never its turn';
}

/** The bookings, playlists and files that no screen shows at any instant of `[from, to)`, and why. */
export function neverShown(plan: Plan, from: Instant, to: Instant): NeverShown[] {
  const outcomes = new NetworkForecast(from, to).outcomes(plan);
  const shown = whatShows(outcomes);
  const used = usedContents(plan);
  const contests = contestsOf(outcomes, from, to);
  const bookings = plan.bookings
    .filter((booking) => !shown.has(`booking ${booking.id}`))
    .map((booking): NeverShown => {
      const subject = { kind: 'booking', id: booking.id } as const;
      if (booking.onHold) return { subject, hiddenBy: [], because: 'on hold' };
      return { subject, ...whyNever(booking.id, contests) };
    });
  const rest = (kind: 'playlist' | 'media') =>
    plan[kind === 'media' ? 'media' : 'playlists']
      .filter(({ id }) => !shown.has(`${kind} ${id}`))
      .map(({ id }): NeverShown => {
        const within = (item: LoopItem) => (kind === 'media' ? item.media === id : item.through?.includes(id) === true);
        const holds = (loop: Loop | undefined) => loop?.some(within) ?? false;
        const because = outcomes.some(({ program, segments }) => segments.some((one) => holds(program.loops[one.loop])))
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
    intersect(itemInstants(item, placeOf(program), from, to), [[from, to]]).length > 0;
  return [...bookings, ...rest('playlist'), ...rest('media')];
}

/** Keys `booking ID`, `playlist ID` and `media ID` of all that shows. Loops of which all was seen are not played again. */
function whatShows(outcomes: readonly GroupForecast[]): Set<string> {
  const shown = new Set<string>();
  for (const { program, segments } of outcomes) {
    const place = placeOf(program);
    for (const segment of segments) {
      if (segment.source === 'booking' || segment.source === 'takeover') shown.add(`booking ${segment.id}`);
      const loop = program.loops[segment.loop] ?? [];
      const known = () =>
        loop.every(
          (item) => shown.has(`media ${item.media}`) && (item.through ?? []).every((id) => shown.has(`playlist ${id}`)),
        );
      // Mostly the first rounds show all of a loop: only where they do not is the whole segment played.
      const round = loop.reduce((sum, item) => sum + item.durationMs, 0);
      for (const to of [Math.min(segment.to, segment.from + 2 * round), segment.to]) {
        if (known()) break;
        for (const play of segmentPlays(program, place, { ...segment, to })) {
          const item = loop[play.item];
          if (!item) continue;
          shown.add(`media ${item.media}`);
          for (const id of item.through ?? []) shown.add(`playlist ${id}`);
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
  const used = [...contents, ...plan.playlists.flatMap((list) => list.items.map(knownItem))];
  return new Set(used.flatMap((one) => (one.kind === 'collect' ? [] : [`${one.kind} ${one.id}`])));
}

function whyNever(id: string, contests: readonly Contest[]): Pick<NeverShown, 'because' | 'hiddenBy'> {
  const willing = contests.filter(({ outcome }) => outcome.program.bookings.some((one) => one.id === id));
  if (willing.length === 0) return { because: 'no screen', hiddenBy: [] };
  const total = new Map<string, number>();
  let occurs = false;
  for (const { outcome, candidates: all } of willing) {
    const own = all().filter((one) => isBooking(one, id));
    occurs ||= own.length > 0;
    for (const [winner, ms] of whoIsAhead(own, outcome.segments))
      total.set(winner, (total.get(winner) ?? 0) + ms * outcome.screens.length);
  }
  const hiddenBy = [...total].sort((a, b) => b[1] - a[1]).map(([winner]) => winner);
  return { because: !occurs ? 'no time' : hiddenBy.length > 0 ? 'hidden' : 'nothing to show', hiddenBy };
}

/** An outcome with who stands to win there, found when it is first asked for. */
interface Contest {
  readonly outcome: GroupForecast;
  candidates(): readonly Candidate[];
}

function contestsOf(outcomes: readonly GroupForecast[], from: Instant, to: Instant): Contest[] {
  return outcomes.map((outcome) => {
    let found: readonly Candidate[] | undefined;
    return { outcome, candidates: () => (found ??= candidates(outcome.program, outcome.place, from, to)) };
  });
}

const isBooking = (one: Candidate, id: string) => one.id === id && one.source !== 'backdrop';

/** Who shows while the given candidates, which have something to show, wait, of segments in order: booking ids, or `lights-out`, with the time in milliseconds. */
export function whoIsAhead(waiting: readonly Candidate[], segments: readonly Segment[]): Map<string, number> {
  const time = new Map<string, number>();
  for (const mine of waiting)
    for (const segment of overlapping(segments, mine.since, mine.until)) {
      if (segment.id === mine.id && segment.source === mine.source) continue;
      const covered = intersect(mine.counts, [[segment.from, segment.to]]);
      const ms = covered.reduce((sum, [begin, end]) => sum + end - begin, 0);
      const winner = segment.source === 'lights-out' ? segment.source : segment.id;
      if (ms > 0 && winner !== null) time.set(winner, (time.get(winner) ?? 0) + ms);
    }
  return time;
}
