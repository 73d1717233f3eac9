import type { Booking, Content, Media, OpeningHours, Plan, When } from '../plan/schema';
import { contentKey, knownContent, knownItem } from '../plan/known';
import { Refusal, never } from '../refusal';
import { matches, mediaTerms, namedTerms, screenTerms, selectorOf } from '../selector';
import { calendarDates, isAlways, zoneTable, type LocalDate, type Place, type ZoneTable } from '../when';

/** One file's turn in a loop. It is available when all of `when` hold; an empty list is always. */
export interface LoopItem {
  readonly media: string;
  readonly durationMs: number;
  readonly when: readonly When[];
  /**
   * The playlists that it came through, the outermost first; empty for a file that is booked alone. Known only of programs that
   * were narrowed from a plan here: what is sent to players leaves it out, since they have no use for it.
   */
  readonly through?: readonly string[] | undefined;
}

export type Loop = readonly LoopItem[];

/** A booking as one screen sees it: `loop` is an index into the program's loops. */
export interface ProgramBooking {
  readonly id: string;
  readonly priority: number;
  readonly takeover?: true | undefined;
  readonly wake?: true | undefined;
  readonly created: number;
  readonly when: When;
  readonly loop: number;
}

export type BackdropLevel = 'screen' | 'site' | 'network';

/** The plan as narrowed to one screen: selectors, nesting, collecting rules and names are resolved away. */
export interface ScreenProgram {
  readonly zone: string;
  readonly hours?: OpeningHours | undefined;
  readonly calendars: Readonly<Record<string, readonly (string | readonly [string, string])[]>>;
  readonly loops: readonly Loop[];
  readonly bookings: readonly ProgramBooking[];
  readonly backdrops: readonly { readonly level: BackdropLevel; readonly loop: number }[];
  readonly lightsOut: readonly When[];
  /** The clocks' changes that it is read by; absent: the runtime's own. A player's own zone data may be old. */
  readonly zones?: Readonly<Record<string, ZoneTable>> | undefined;
}

const DEFAULT_DURATION_MS = 10_000;
/** Files of one loop, at most: what rules collect grows with the library, and no screen shows so many. */
const MOST_ITEMS = 50_000;

const tooLong = (name: string) => {
  const message = `The playlist "${name}" comes to more than ${MOST_ITEMS} files on one screen: nest less, or give its collecting rules a limit.`;
  return new Refusal(422, message, [{ path: '', message }]);
};

/** An item without where it came from: what a player needs of it. */
export const withoutProvenance = ({ through: _through, ...item }: LoopItem): LoopItem => item;

/** Narrows a checked plan to one of its screens (domain sections 4 and 6). Throws RangeError for an unknown screen, a Refusal for a loop past all measure. */
export function screenProgram(plan: Plan, screenId: string): ScreenProgram {
  return programMaker(plan)(screenId);
}

/** The same for many screens of one plan: what they share is looked up once. `selected` are the bookings that reach the screen, where known. */
export function programMaker(plan: Plan): (screenId: string, selected?: readonly Booking[]) => ScreenProgram {
  const index = <T extends { id: string }>(list: readonly T[]) => new Map(list.map((entry) => [entry.id, entry]));
  const [sites, screens, media] = [index(plan.sites), index(plan.screens), index(plan.media)];
  const [playlists, calendars] = [index(plan.playlists), index(plan.calendars)];
  const collected = new Map<string, Media[]>();

  const collect = (rule: string, order: 'name' | 'newest' | 'oldest', limit: number): Media[] => {
    const key = `${order}\n${rule}`;
    let found = collected.get(key);
    if (!found) {
      const selector = selectorOf(rule);
      found = plan.media.filter((file) => matches(selector, mediaTerms(file))).sort(mediaOrder(order));
      collected.set(key, found);
    }
    return found.slice(0, limit);
  };

  const fileItem = (file: Media, durationMs: number | undefined, conditions: readonly When[]): LoopItem => ({
    media: file.id,
    durationMs: durationMs ?? file.durationMs ?? plan.network.defaultDurationMs ?? DEFAULT_DURATION_MS,
    when: file.when && !isAlways(file.when) ? [...conditions, file.when] : conditions,
  });

  const flatten = (content: Content, terms: ReadonlySet<string>): LoopItem[] => {
    const loop: LoopItem[] = [];
    const expand = (playlistId: string, conditions: readonly When[], path: readonly string[]): void => {
      for (const item of playlists.get(playlistId)?.items ?? []) {
        if (item.where !== undefined && !matches(selectorOf(item.where), terms)) continue;
        const all = item.when && !isAlways(item.when) ? [...conditions, item.when] : conditions;
        const what = knownItem(item);
        const through = (files: readonly Media[]) => {
          for (const file of files) loop.push({ ...fileItem(file, item.durationMs, all), through: path });
          if (loop.length > MOST_ITEMS) throw tooLong(playlists.get(path[0] ?? '')?.name ?? '');
        };
        switch (what.kind) {
          case 'playlist':
            expand(what.id, all, [...path, what.id]);
            break;
          case 'media':
            through([media.get(what.id) as Media]);
            break;
          case 'collect':
            through(collect(what.rule, what.order, what.limit));
            break;
          default:
            never(what);
        }
      }
    };
    const what = knownContent(content);
    switch (what.kind) {
      case 'playlist':
        expand(what.id, [], [what.id]);
        return loop;
      case 'media':
        return [fileItem(media.get(what.id) as Media, what.durationMs, [])];
      default:
        return never(what);
    }
  };

  /** Loops by what tells screens apart for items, then by content: screens of one kind share them. */
  const loopsByMatch = new Map<string, Map<string, LoopItem[]>>();
  const conditions = plan.playlists.flatMap((list) => list.items.flatMap((item) => item.where ?? []));
  const personal = [...new Set(conditions)].some((text) =>
    ['screen:', 'site:'].some((name) => namedTerms(selectorOf(text), name).length > 0),
  );
  const matchKeyOf = (terms: ReadonlySet<string>) =>
    [...terms].filter((term) => personal || !/^(screen|site):/.test(term)).join();

  return (screenId, selected) => {
    const screen = screens.get(screenId);
    const site = screen && sites.get(screen.site);
    if (!screen || !site) throw new RangeError(`There is no screen "${screenId}" in the plan.`);
    const terms = screenTerms(screen, site.tags);
    const matchKey = matchKeyOf(terms);
    const shared = loopsByMatch.get(matchKey) ?? new Map<string, LoopItem[]>();
    loopsByMatch.set(matchKey, shared);
    const loops: Loop[] = [];
    const known = new Map<string, number>();
    /** The number of a content's loop, -1 where nothing in it is for this screen. */
    const loopOf = (content: Content): number => {
      const key = contentKey(content);
      let number = known.get(key);
      if (number === undefined) {
        const loop = shared.get(key) ?? flatten(content, terms);
        shared.set(key, loop);
        number = loop.length === 0 ? -1 : loops.push(loop) - 1;
        known.set(key, number);
      }
      return number;
    };
    const reaching =
      selected ?? plan.bookings.filter((booking) => !booking.onHold && matches(selectorOf(booking.where), terms));
    const bookings = reaching
      .map((booking): ProgramBooking => ({
        id: booking.id,
        priority: booking.priority,
        ...(booking.takeover ? { takeover: true } : {}),
        ...(booking.takeover && booking.wake ? { wake: true } : {}),
        created: Date.parse(booking.created),
        when: booking.when,
        loop: loopOf(booking.content),
      }))
      .filter((booking) => booking.loop >= 0);
    const levels: [BackdropLevel, Content | undefined][] = [
      ['screen', screen.backdrop],
      ['site', site.backdrop],
      ['network', plan.network.backdrop],
    ];
    const backdrops = levels
      .map(([level, content]) => ({ level, loop: content ? loopOf(content) : -1 }))
      .filter((backdrop) => backdrop.loop >= 0);
    const lightsOut = screen.lightsOut ?? [];
    const used = [...bookings.map((one) => one.when), ...lightsOut, ...loops.flatMap(conditionsOf)];
    const calendarIds = new Set(used.flatMap((when) => [...(when.only ?? []), ...(when.not ?? [])]));
    return {
      zone: site.timeZone,
      ...(usesHours(used) && site.hours ? { hours: site.hours } : {}),
      calendars: Object.fromEntries([...calendarIds].map((id) => [id, calendars.get(id)?.dates ?? []])),
      loops,
      bookings,
      backdrops,
      lightsOut,
    };
  };
}

/** How a collecting rule puts its files in order. */
export function mediaOrder(order: 'name' | 'newest' | 'oldest'): (a: Media, b: Media) => number {
  const byCodeUnit = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
  return (a, b) => {
    const first =
      order === 'name'
        ? byCodeUnit(a.name, b.name)
        : (Date.parse(a.added) - Date.parse(b.added)) * (order === 'newest' ? -1 : 1);
    return first || byCodeUnit(a.id, b.id);
  };
}

const conditionsKnown = new WeakMap<Loop, readonly When[]>();

/** Every condition of a loop's items. */
function conditionsOf(loop: Loop): readonly When[] {
  let found = conditionsKnown.get(loop);
  if (!found) conditionsKnown.set(loop, (found = loop.flatMap((item) => item.when)));
  return found;
}

function usesHours(list: readonly When[]): boolean {
  return list.some((when) => when.windows?.some((window) => window.some((edge) => /^(opens|closes)/.test(edge))));
}

/** Every zone whose clock a program reads. */
export function zonesOf(program: ScreenProgram): string[] {
  const used = [
    ...program.bookings.map((one) => one.when),
    ...program.lightsOut,
    ...program.loops.flatMap(conditionsOf),
  ];
  const named = used.flatMap((when) => (when.clock && when.clock !== 'site' ? [when.clock] : []));
  return [...new Set([program.zone, ...named])].sort();
}

const places = new WeakMap<ScreenProgram, Place>();

/** Where a program's times are read: by its own zones where it carries them, else by the runtime's. */
export function placeOf(program: ScreenProgram): Place {
  let place = places.get(program);
  if (!place) {
    const table = (name: string) => program.zones?.[name] ?? zoneTable(name);
    const sets = new Map<string, ReadonlySet<LocalDate>>();
    place = {
      zone: table(program.zone),
      hours: program.hours,
      zoneTable: table,
      calendar: (id) => {
        let set = sets.get(id);
        if (!set) sets.set(id, (set = calendarDates(program.calendars[id] ?? [])));
        return set;
      },
    };
    places.set(program, place);
  }
  return place;
}
