import {
  contestsOf,
  hidersOf,
  drawnItems,
  loopsIn,
  segmentPlays,
  unplayable,
  type BookingState,
  type Candidate,
  type Contest,
  type Segment,
} from '../forecast';
import { DAY, HOUR, MINUTE, type Instant } from '../instant';
import type { Booking, Plan, Site } from '../plan/schema';
import {
  exchangeLightsOut,
  leaveOut,
  letWin,
  networkBackdrop,
  putOnHold,
  remove,
  silence,
  toFront,
  withoutMusic,
  type Fix,
} from './fixes';
import { abilitiesIn, cantPlayWords } from '../profiles';
import { soundsAtOnce } from './sounds';
import { screensMatching, selectorOf } from '../selector';
import { promisedTooMuch } from './weaves';
import { emptyZones, inputTimes, unusedCues } from './zones';
import {
  clockChanges,
  describeWhen,
  followsHours,
  followsSun,
  formatDate,
  instantsOf,
  intersect,
  occurrences,
  parseDate,
  setsOf,
  startOfDate,
  union,
  type Interval,
  type Intervals,
  type LocalDate,
} from '../when';

export type FindingKind =
  | 'clash'
  | 'gap'
  | 'hidden'
  | 'unreached item'
  | 'no screen'
  | 'nothing for this screen'
  | 'expired'
  | 'not yet begun'
  | 'unknown to the site'
  | 'lights-out hides'
  | 'on and off swapped'
  | 'change of clocks'
  | 'meets no loop'
  | 'promised too much'
  | 'two sounds at once'
  | 'can’t play it'
  | 'empty zone'
  | 'no such input'
  | 'cue without a booking';

/** Something in a plan that an operator would want to know before it is on the wall. */
export interface Finding {
  readonly kind: FindingKind;
  /** `error` is what shows something wrong or nothing at all; `notice` is worth a look. */
  readonly severity: 'error' | 'warning' | 'notice';
  /** Plan ids of what it is about: bookings, a media file for an item. */
  readonly about: readonly string[];
  readonly screens: readonly string[];
  /** When it shows, within what was asked for: disjoint, ascending; none where it is about no time. */
  readonly times: Intervals;
  /** The first of these times; null for none. */
  readonly span: Interval | null;
  readonly sentence: string;
  /** What to do about it, in words. */
  readonly advice: string;
  /** Changes that end it, the likeliest first; empty where only a person can know. */
  readonly fixes: readonly Fix[];
}

const LONGEST_GAP_LISTED = 100;

/** A finding as it is made: its first time follows from its times, which are those of what was asked for. */
type Made = Omit<Finding, 'span'>;

/**
 * Everything worth knowing about a plan in `[from, to)`, the gravest first. The same problem on many screens is one finding. A booking is
 * over if it ended before `now`: one that ends tomorrow isn't over, even if the week after it is asked for.
 */
export function findings(plan: Plan, from: Instant, to: Instant, now = from): Finding[] {
  const bookings = new Map(plan.bookings.map((booking) => [booking.id, booking]));
  const name = (id: string) => (id === 'lights-out' ? 'lights-out' : `“${bookings.get(id)?.name ?? id}”`);
  const clashes = new Gathering();
  const contests = contestsOf(plan, from, to);
  for (const contest of contests)
    gatherClashes(clashes, contest.group.screens, contest.group.segments, contest.candidates(), bookings, name);
  const found = [
    ...clashes.all().map((clash) => withOnlyHere(plan, clash, bookings)),
    ...gaps(plan, contests),
    ...plan.bookings
      .filter((booking) => !booking.onHold)
      .flatMap((booking) => aboutBooking(plan, booking, bookings, contests, { from, to, now }, name)),
    ...unreached(plan, bookings, contests, from, to, name),
    ...promises(bookings, contests, from, to, name),
    ...twoSounds(plan, contests),
    ...exchanged(plan, contests, from, to),
    ...notPlayed(plan, contests),
    ...inLayouts(plan, contests, from, to),
    ...unusedCues(plan).map((cue): Made => ({
      kind: 'cue without a booking',
      severity: 'notice',
      about: [cue.id],
      screens: [],
      times: [],
      sentence: `No booking waits for the cue “${cue.name}”, so firing it shows nothing.`,
      advice: 'Make a booking that waits for it, or delete the cue.',
      fixes: [],
    })),
  ];
  const grave = { error: 0, warning: 1, notice: 2 };
  return found
    .map((one) => withSpan(one, from, to))
    .sort((a, b) => grave[a.severity] - grave[b.severity] || (a.span?.[0] ?? 0) - (b.span?.[0] ?? 0));
}

function withSpan(made: Made, from: Instant, to: Instant): Finding {
  const times = intersect(made.times, [[from, to]]);
  return { ...made, times, span: times[0] ?? null };
}

/** Gathers findings that differ by screens and times only. */
class Gathering {
  private readonly found = new Map<
    string,
    { finding: Omit<Made, 'screens' | 'times'>; groups: Set<readonly string[]>; times: Interval[] }
  >();

  /** `finding` is made when it is found first. */
  add(key: string, screens: readonly string[], times: Intervals, finding: () => Omit<Made, 'screens' | 'times'>): void {
    const known = this.found.get(key) ?? { finding: finding(), groups: new Set(), times: [] };
    this.found.set(key, known);
    known.groups.add(screens);
    known.times.push(...times);
  }

  all(): Made[] {
    return [...this.found.values()].map(({ finding, groups, times }) => ({
      ...finding,
      screens: [...groups].flat(),
      times: union(times),
    }));
  }
}

/** Same class and priority, same time, one hides the other: only their starting times decide, which people can't see in a plan. */
function gatherClashes(
  gathering: Gathering,
  screens: readonly string[],
  shown: readonly Segment[],
  all: readonly Candidate[],
  bookings: ReadonlyMap<string, Booking>,
  name: (id: string) => string,
): void {
  const rivals = all.filter((one) => one.source !== 'backdrop').sort((a, b) => a.since - b.since);
  let next = 0;
  let present: Candidate[] = [];
  for (const segment of shown) {
    for (let rival = rivals[next]; rival && rival.since < segment.to; rival = rivals[++next]) present.push(rival);
    present = present.filter((one) => one.until > segment.from);
    if (segment.source !== 'booking' && segment.source !== 'takeover') continue;
    const winner = present.find((one) => one.id === segment.id && one.since === segment.since);
    if (!winner) continue;
    for (const loser of present) {
      if (loser.id === winner.id || loser.source !== winner.source || loser.priority !== winner.priority) continue;
      const times = intersect(loser.counts, [[segment.from, segment.to]]);
      const [one, other] = [bookings.get(winner.id), bookings.get(loser.id)];
      if (times.length === 0 || !one || !other) continue;
      gathering.add(`${winner.id} ${loser.id}`, screens, times, () => ({
        kind: 'clash',
        severity: 'warning',
        about: [winner.id, loser.id],
        sentence: `${name(winner.id)} and ${name(loser.id)} have the same priority at the same time. ${name(winner.id)} shows, because it ${winner.since > loser.since ? 'begins later' : 'was made later'}.`,
        advice: `Give the more important one a higher priority, or give them different times or screens.`,
        fixes: [letWin(other, one), letWin(one, other)],
      }));
    }
  }
}

/** Where the booking that loses a clash has other screens too, it can be taken off those of the clash alone. */
function withOnlyHere(plan: Plan, clash: Made, bookings: ReadonlyMap<string, Booking>): Made {
  const hidden = bookings.get(clash.about[1] ?? '');
  if (!hidden || screensMatching(plan, selectorOf(hidden.where)).length <= clash.screens.length) return clash;
  const off = `Remove “${hidden.name}” from ${clash.screens.length > 1 ? 'these screens' : 'this screen'}`;
  return { ...clash, fixes: [...clash.fixes, ...leaveOut(hidden, clash.screens, off)] };
}

function gaps(plan: Plan, contests: readonly Contest[]): Made[] {
  const gathering = new Gathering();
  for (const { group } of contests)
    for (const { source, from, to } of group.segments.slice(0, LONGEST_GAP_LISTED))
      if (source === 'nothing')
        gathering.add(`${from} ${to}`, group.screens, [[from, to]], () => ({
          kind: 'gap',
          severity: 'error',
          about: [],
          sentence: 'Nothing is booked, and no backdrop has anything to show. The screen shows its name and the time.',
          advice: 'Give the screen, its site or the network a backdrop that always has something to show.',
          fixes: networkBackdrop(plan),
        }));
  return gathering.all();
}

/** The span that is asked for, and what is now. */
interface FindingSpan {
  readonly from: Instant;
  readonly to: Instant;
  readonly now: Instant;
}

function aboutBooking(
  plan: Plan,
  booking: Booking,
  bookings: ReadonlyMap<string, Booking>,
  contests: readonly Contest[],
  asked: FindingSpan,
  name: (id: string) => string,
): Made[] {
  const { id } = booking;
  const base = { about: [id], times: [] };
  const selected = new Set(screensMatching(plan, selectorOf(booking.where)).map((screen) => screen.id));
  if (selected.size === 0)
    return [
      {
        ...base,
        kind: 'no screen',
        severity: 'error',
        screens: [],
        sentence: `${name(id)} reaches no screen, because nothing matches “${booking.where}”.`,
        advice: 'Change where it shows, or give screens these tags.',
        fixes: [putOnHold(booking), remove(booking)],
      },
    ];
  const reached = contests.filter(({ group }) => selected.has(group.screens[0] ?? ''));
  const states = new Map(reached.map((one) => [one, one.stateOf(id)]));
  const inState = (state: BookingState) => reached.filter((one) => states.get(one) === state);
  const screensOf = (list: readonly Contest[]) => list.flatMap(({ group }) => group.screens);
  const timesOf = (list: readonly Contest[]) =>
    union(list.flatMap((one) => one.waiting(id).flatMap(({ counts }) => counts)));
  const found: Made[] = [];
  const empty = inState('not here');
  if (empty.length > 0)
    found.push({
      ...base,
      kind: 'nothing for this screen',
      severity: 'warning',
      screens: screensOf(empty),
      sentence: `${name(id)} is booked on screens for which its content has no item.`,
      advice: 'Add an item that is for these screens, or leave them out of where it shows.',
      fixes: leaveOut(booking, screensOf(empty)),
    });
  const unknown = unknownToSites(plan, booking, selected, name);
  found.push(...unknown);
  const willing = reached.filter((one) => !empty.includes(one) && states.get(one) !== 'waits for its cue');
  // What waits for its cue has no time by the clock.
  if (willing.length === 0 && booking.cue !== undefined) return found;
  if (willing[0] && inState('no time').length === willing.length)
    return unknown.length > 0 ? found : [...found, ...outOfTime(booking, willing[0], asked, name)];
  const off = inState('off');
  if (off.length > 0)
    found.push({
      ...base,
      kind: 'lights-out hides',
      severity: 'warning',
      screens: screensOf(off),
      times: timesOf(off),
      sentence: `${name(id)} is booked only in hours when these displays are off.`,
      advice: 'Change its hours or the lights-out hours; only a takeover can switch a display on.',
      fixes: [putOnHold(booking)],
    });
  const hidden = inState('hidden');
  if (booking.weave) {
    if (hidden.length > 0)
      found.push({
        ...base,
        kind: 'meets no loop',
        severity: 'warning',
        screens: screensOf(hidden),
        sentence: `${name(id)} is woven in but never gets a turn: no loop is playing while it is on, or its first turn would come too late.`,
        advice: 'Give it a larger share or more time, or book it when something other than a takeover shows.',
        fixes: [putOnHold(booking)],
      });
    return found;
  }
  if (hidden.length > 0 && inState('shows').length === 0) {
    const [first] = hidersOf(id, hidden);
    const hider = bookings.get(first ?? '');
    found.push({
      ...base,
      kind: 'hidden',
      severity: 'warning',
      screens: screensOf(hidden),
      times: timesOf(hidden),
      about: first === undefined || first === 'lights-out' ? [id] : [id, first],
      sentence: `${name(id)} never shows, because ${first === undefined ? 'something' : name(first)} goes ahead of it all the time.`,
      advice: 'Raise its priority, give it times of its own, or delete it.',
      fixes: [
        ...(hider && Boolean(hider.takeover) === Boolean(booking.takeover) ? [letWin(booking, hider)] : []),
        putOnHold(booking),
        remove(booking),
      ],
    });
  }
  return [...found, ...clocks(booking, willing, asked, name)];
}

const MOST_NAMED_SITES = 3;

/** Opening hours or the sun, where a booking follows them and some of its sites have no hours or no place: windows by them do not exist there. */
function unknownToSites(
  plan: Plan,
  booking: Booking,
  selected: ReadonlySet<string>,
  name: (id: string) => string,
): Made[] {
  const told = (what: string, missing: string, advice: string, lacks: (site: Site) => boolean): Made[] => {
    const lacking = new Map(plan.sites.filter(lacks).map((site) => [site.id, site.name]));
    const screens = plan.screens.filter(({ id, site }) => selected.has(id) && lacking.has(site));
    if (screens.length === 0) return [];
    const sites = [...new Set(screens.map(({ site }) => lacking.get(site) ?? site))];
    const more = sites.length - MOST_NAMED_SITES;
    const named = `${sites.slice(0, MOST_NAMED_SITES).join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
    return [
      {
        kind: 'unknown to the site',
        severity: 'warning',
        about: [booking.id],
        screens: screens.map(({ id }) => id),
        times: [],
        sentence: `${name(booking.id)} follows ${what}, and ${named} ${sites.length === 1 ? 'has' : 'have'} no ${missing}, so these hours are left out there.`,
        advice,
        fixes: [],
      },
    ];
  };
  const hours = 'Write the opening hours of the site on Screens, or give the booking other times.';
  const location = 'Choose the town of the site on Screens, or give the booking other times.';
  return [
    ...(followsHours(booking.when) ? told('opening hours', 'opening hours', hours, (site) => !site.hours) : []),
    ...(followsSun(booking.when) ? told('the sun', 'place', location, (site) => !site.location) : []),
  ];
}

function outOfTime(
  booking: Booking,
  contest: Contest,
  { from, to, now }: FindingSpan,
  name: (id: string) => string,
): Made[] {
  const { place } = contest.group;
  const year = 366 * DAY;
  const written = setsOf(booking.when)
    .flatMap(({ from: begins, also = [] }) => [...(begins === undefined ? [] : [begins]), ...also])
    .map((date) => startOfDate(parseDate(date) as LocalDate));
  const hasTime = (since: Instant, until: Instant) => occurrences(booking.when, place, since, until).length > 0;
  // What shows between now and the span is neither over nor late.
  if (now < from && hasTime(now, from)) return [];
  const later = [to, ...written.filter((at) => at > to)].some((at) => hasTime(Math.max(to, at - 2 * DAY), at + year));
  const earlier = !later && hasTime(Math.min(from, now) - year, from);
  const base = { about: [booking.id], screens: [], times: [], severity: 'notice' as const };
  if (later)
    return [
      {
        ...base,
        kind: 'not yet begun',
        sentence: `${name(booking.id)} doesn’t show in these days, but later (${describeWhen(booking.when)}).`,
        advice: 'If this is on purpose, do nothing. Otherwise change its dates.',
        fixes: [],
      },
    ];
  const words = earlier ? 'is over' : 'has no time at all';
  return [
    {
      ...base,
      kind: 'expired',
      sentence: `${name(booking.id)} ${words} (${describeWhen(booking.when)}).`,
      advice: 'Delete it, or give it new dates.',
      fixes: [remove(booking)],
    },
  ];
}

function clocks(
  booking: Booking,
  contests: readonly Contest[],
  { from, to }: FindingSpan,
  name: (id: string) => string,
): Made[] {
  const gathering = new Gathering();
  for (const {
    group: { screens, place },
  } of contests) {
    for (const { date, writtenMs, lastsMs } of clockChanges(booking.when, place, from, to)) {
      // A whole day is longer or shorter for everything, so only windows with chosen times are reported.
      if (writtenMs >= DAY) continue;
      const what = lastsMs === 0 ? 'does not happen' : `lasts ${spoken(lastsMs)} instead of ${spoken(writtenMs)}`;
      gathering.add(`${date} ${writtenMs} ${lastsMs}`, screens, [], () => ({
        kind: 'change of clocks',
        severity: lastsMs === 0 ? 'warning' : 'notice',
        about: [booking.id],
        sentence: `${name(booking.id)} ${what} on ${formatDate(date)}, when the clocks change.`,
        advice: 'If that is right, do nothing. Otherwise give that day its own hours.',
        fixes: [],
      }));
    }
  }
  return gathering.all();
}

function spoken(ms: number): string {
  const [hours, minutes] = [Math.floor(ms / HOUR), Math.round((ms % HOUR) / MINUTE)];
  return [hours > 0 ? `${hours} h` : '', minutes > 0 ? `${minutes} min` : ''].filter((part) => part !== '').join(' ');
}

/** Items of a booking's loop that have their time but never come up, since each window ends before their turn. */
function unreached(
  plan: Plan,
  bookings: ReadonlyMap<string, Booking>,
  contests: readonly Contest[],
  from: Instant,
  to: Instant,
  name: (id: string) => string,
): Made[] {
  const gathering = new Gathering();
  const files = new Map(plan.media.map((file) => [file.id, file.name]));
  for (const contest of contests) {
    const { screens, program, place } = contest.group;
    const long = program.bookings.filter(({ id, loop }) => {
      const round = (program.loops[loop] ?? []).reduce((sum, item) => sum + item.durationMs, 0);
      const shown = contest.shown(id);
      return shown.length > 0 && shown.every((segment) => segment.to - (segment.since ?? segment.from) < round);
    });
    for (const { id, loop } of long) {
      const played = contest.shown(id).flatMap((segment) => segmentPlays(program, place, segment));
      const seen = new Set(played.flatMap((play) => (play.weave === null ? (play.media ?? []) : [])));
      for (const item of program.loops[loop] ?? []) {
        const available =
          item.when.length === 0 || item.when.every((when) => instantsOf(when, place, from, to).length > 0);
        const booking = bookings.get(id);
        const { media } = item;
        if (media === undefined || seen.has(media) || !available || !booking) continue;
        gathering.add(`${id} ${media}`, screens, [], () => ({
          kind: 'unreached item',
          severity: 'warning',
          about: [id, media],
          sentence: `“${files.get(media) ?? media}” never comes up in ${name(id)}, because each of its windows ends before its turn.`,
          advice: 'Shorten the loop, lengthen the window, or move the item to the front.',
          fixes: toFront(plan, booking, media),
        }));
      }
    }
  }
  return gathering.all();
}

/** Weaves that together ask for more than all of the time. */
function promises(
  bookings: ReadonlyMap<string, Booking>,
  contests: readonly Contest[],
  from: Instant,
  to: Instant,
  name: (id: string) => string,
): Made[] {
  const gathering = new Gathering();
  for (const contest of contests) {
    const found = promisedTooMuch(contest, from, to);
    if (!found) continue;
    const { weaves, screens, times, share } = found;
    gathering.add(weaves.join(' '), screens, times, () => ({
      kind: 'promised too much',
      severity: 'warning',
      about: weaves,
      sentence: `${weaves.map(name).join(' and ')} are woven in at the same time and add up to ${Math.round(share * 100)} %. Some get less than their share, and other items hardly show.`,
      advice: 'Lower a share, repeat one less often, or give them different times or screens.',
      fixes: weaves.flatMap((id) => bookings.get(id) ?? []).map((one) => putOnHold(one)),
    }));
  }
  return gathering.all();
}

/** Music beside films that sound. */
function twoSounds(plan: Plan, contests: readonly Contest[]): Made[] {
  const gathering = new Gathering();
  const files = new Map(plan.media.map((file) => [file.id, file.name]));
  const lists = new Map(plan.playlists.map((list) => [list.id, list]));
  for (const contest of contests)
    for (const { playlist, film, times } of soundsAtOnce(contest)) {
      const list = lists.get(playlist);
      if (!list) continue;
      gathering.add(`${playlist} ${film}`, contest.group.screens, times, () => ({
        kind: 'two sounds at once',
        severity: 'warning',
        about: [film],
        sentence: `“${files.get(film) ?? film}” sounds while the music of “${list.name}” plays, so both are heard at once.`,
        advice: 'Silence the video, or remove the playlist’s music.',
        fixes: [...silence(list, film, files.get(film) ?? film), withoutMusic(list)],
      }));
    }
  return gathering.all();
}

/** Zones that are empty while their layout is seen, and inputs that displays don't have by their profiles. */
function inLayouts(plan: Plan, contests: readonly Contest[], from: Instant, to: Instant): Made[] {
  const gathering = new Gathering();
  const instead =
    plan.network.withoutInput === 'backdrop'
      ? 'They show their backdrop instead, and leave zones for it empty.'
      : 'They show a card instead that says so.';
  const names = new Map(plan.layouts.map((layout) => [layout.id, layout.name]));
  const profiles = new Map(plan.profiles.map((profile) => [profile.id, profile]));
  const profileOf = new Map(plan.screens.map((screen) => [screen.id, profiles.get(screen.profile ?? '')]));
  for (const contest of contests) {
    const { screens } = contest.group;
    for (const { layout, zone, times } of emptyZones(contest, from, to))
      gathering.add(`${layout} ${zone}`, screens, times, () => ({
        kind: 'empty zone',
        severity: 'warning',
        about: [layout],
        sentence: `The zone “${zone}” of the layout “${names.get(layout) ?? layout}” is empty on these screens for a time.`,
        advice: 'Give the zone content for that time, or take the zone out there.',
        fixes: [],
      }));
    for (const [input, times] of inputTimes(contest, from, to)) {
      const lacking = screens.filter((id) => {
        const inputs = profileOf.get(id)?.inputs;
        return inputs !== undefined && !inputs.some((one) => one.id === input);
      });
      if (lacking.length === 0 || times.length === 0) continue;
      gathering.add(`input ${input}`, lacking, times, () => ({
        kind: 'no such input',
        severity: 'warning',
        about: [input],
        sentence: `These displays are to show the input “${input}”, and by their profile they have none of that name. ${instead}`,
        advice: 'Add the input to the profile, or leave these screens out.',
        fixes: [],
      }));
    }
  }
  return gathering.all();
}

/** What screens show and can't play, by their profiles: they pass it over. */
function notPlayed(plan: Plan, contests: readonly Contest[]): Made[] {
  const gathering = new Gathering();
  const files = new Map(plan.media.map((file) => [file.id, file]));
  for (const { media, reason, screens } of unplayable(plan, abilitiesIn(plan))) {
    const meant = new Set(screens);
    const file = files.get(media);
    for (const { group } of contests) {
      const here = group.screens.filter((id) => meant.has(id));
      const times = here.length > 0 ? timesOf(media, group) : [];
      if (times.length === 0) continue;
      gathering.add(`${media} ${reason}`, here, times, () => ({
        kind: 'can’t play it',
        severity: 'warning',
        about: [media],
        sentence: `“${file?.name ?? media}” is passed over on displays that don’t play it: by its profile, each ${cantPlayWords(reason, file)}.`,
        advice:
          reason === 'kind'
            ? 'Keep it off these screens, or correct their profile.'
            : 'Replace the file by one that they can play, keep it off these screens, or correct their profile.',
        fixes: [],
      }));
    }
  }
  return gathering.all();
}

/** When a file is in the loop that shows, woven into it, or in the music beside it. */
function timesOf(media: string, { program, place, segments }: Contest['group']): Interval[] {
  const { music = [] } = program;
  const isIn = (loop: number) =>
    [...drawnItems(program, loop), ...(music[loop]?.loop ?? [])].some((item) => item.media === media);
  return segments.flatMap((segment): Interval[] =>
    loopsIn(program, place, segment).some(({ loop }) => isIn(loop)) ? [[segment.from, segment.to]] : [],
  );
}

/** Lights-out hours that cover most of a site's opening hours were most likely entered the wrong way round. */
function exchanged(plan: Plan, contests: readonly Contest[], from: Instant, to: Instant): Made[] {
  const gathering = new Gathering();
  const sites = new Map(plan.sites.map((site) => [site.id, site]));
  const byId = new Map(plan.screens.map((screen) => [screen.id, screen]));
  // Where it is just half of the opening hours, it would be half of them the other way round too.
  const half = new Set<string>();
  for (const contest of contests) {
    const { screens, place } = contest.group;
    const dark = contest.lightsOut();
    const alike = screens.flatMap((id) => byId.get(id) ?? []);
    const hours = sites.get(alike[0]?.site ?? '')?.hours;
    if (dark.length === 0 || !hours) continue;
    const open = instantsOf({ windows: [['opens', 'closes']] }, { ...place, hours }, from, to);
    const length = (set: Intervals) => set.reduce((sum, [begin, end]) => sum + end - begin, 0);
    const clipped = intersect(open, [[from, to]]);
    const covered = intersect(clipped, dark);
    if (length(clipped) === 0 || length(covered) < 0.5 * length(clipped)) continue;
    if (length(covered) === 0.5 * length(clipped)) for (const id of screens) half.add(id);
    gathering.add(`exchanged ${alike[0]?.site} ${JSON.stringify(alike[0]?.lightsOut)}`, screens, covered, () => ({
      kind: 'on and off swapped',
      severity: 'error',
      about: [],
      sentence: 'Lights-out covers the site’s opening hours. Its start and end may be swapped.',
      advice: 'Swap the start and the end of the lights-out hours.',
      fixes: [],
    }));
  }
  return gathering.all().map((one) => ({
    ...one,
    fixes: one.screens.some((id) => half.has(id))
      ? []
      : [exchangeLightsOut(one.screens.flatMap((id) => byId.get(id) ?? []))],
  }));
}
