import type { Fit, Transition } from '../plan/kinds/playlist';
import type { Booking, Content, Item, Media, OpeningHours, Plan, Screen, Site, When } from '../plan/schema';
import { contentKey, knownContent, type KnownContent } from '../plan/contents';
import { isShown, knownItem } from '../plan/known';
import { Refusal, never } from '../refusal';
import { matches, mediaTerms, namedTerms, screenTerms, selectorOf } from '../selector';
import { isShuffled, type Order } from './rounds';
import {
  calendarDates,
  calendarsOf,
  clocksOf,
  followsHours,
  followsSun,
  isAlways,
  sunAt,
  zoneTable,
  type Coordinates,
  type LocalDate,
  type Place,
  type ZoneTable,
} from '../when';

/** One file's turn in a loop. It is available when all of `when` hold; an empty list is always. */
export interface LoopItem {
  readonly media: string;
  readonly durationMs: number;
  /** How far into its film it begins, in milliseconds; absent: at its beginning. */
  readonly fromMs?: number | undefined;
  readonly when: readonly When[];
  /** How the picture before gives way to this one, within this one's time, at most half of it; absent: a cut. */
  readonly transition?: Transition | undefined;
  /** Absent: whole. */
  readonly fit?: Fit | undefined;
  /** Of its film's own sound, over 0 to 1; absent: silent. */
  readonly volume?: number | undefined;
  /**
   * The playlists that it came through, the outermost first; empty for a file that is booked alone. Known only of programs that
   * were narrowed from a plan here: what is sent to players leaves it out, since they have no use for it.
   */
  readonly through?: readonly string[] | undefined;
  /** The place of the item of the outermost playlist that it came by; known as `through` is. */
  readonly place?: number | undefined;
}

/** Whether an item's turn shows a content: its file, or what it came through. Known as `through` is. */
export const comesFrom = (item: LoopItem, { kind, id }: Pick<KnownContent, 'kind' | 'id'>): boolean =>
  kind === 'media' ? item.media === id : item.through?.includes(id) === true;

export type Loop = readonly LoopItem[];

/** Sound beside a loop, from 0 to 1 of its loudness: a loop of its own, whose passes go from the occurrence's start. */
export interface ProgramMusic {
  readonly loop: Loop;
  readonly order?: Order | undefined;
  readonly volume: number;
}

/** A booking as one screen sees it: `loop` is an index into the program's loops. */
export interface ProgramBooking {
  readonly id: string;
  readonly priority: number;
  readonly takeover?: true | undefined;
  readonly wake?: true | undefined;
  /** What is seen is marked as a drill. */
  readonly drill?: true | undefined;
  readonly created: number;
  readonly when: When;
  readonly loop: number;
}

/** A booking that is mixed into the loop of whatever wins (domain section 9): a share of its time, or one turn every so long. */
export interface ProgramWeave {
  readonly id: string;
  readonly priority: number;
  readonly when: When;
  readonly loop: number;
  /** From 0.001 to 0.9. */
  readonly share?: number | undefined;
  /** In milliseconds. */
  readonly every?: number | undefined;
}

export type BackdropLevel = 'screen' | 'site' | 'network';

/** The plan as narrowed to one screen: selectors, nesting, collecting rules and names are resolved away. */
export interface ScreenProgram {
  readonly zone: string;
  readonly hours?: OpeningHours | undefined;
  /** Where the site is; absent where nothing of it follows the sun. */
  readonly location?: Coordinates | undefined;
  readonly calendars: Readonly<Record<string, readonly (string | readonly [string, string])[]>>;
  readonly loops: readonly Loop[];
  /** For each loop how its passes are put in order, null where they are as listed; absent where all are. */
  readonly orders?: readonly (Order | null)[] | undefined;
  /** For each loop the sound beside it, null where there is none; absent where no loop has any. */
  readonly music?: readonly (ProgramMusic | null)[] | undefined;
  readonly bookings: readonly ProgramBooking[];
  /** Absent where there are none. */
  readonly weaves?: readonly ProgramWeave[] | undefined;
  readonly backdrops: readonly { readonly level: BackdropLevel; readonly loop: number }[];
  readonly lightsOut: readonly When[];
  /** The clocks' changes that it is read by; absent: the runtime's own. A player's own zone data may be old. */
  readonly zones?: Readonly<Record<string, ZoneTable>> | undefined;
}

const DEFAULT_DURATION_MS = 10_000;
/** Files of one loop, at most: what rules collect grows with the library, and no screen shows so many. */
const MOST_ITEMS = 50_000;

const tooLong = (name: string) => {
  const message = `The playlist “${name}” comes to more than ${MOST_ITEMS} files on one screen. Nest less, or give its collecting rules a limit.`;
  return new Refusal(422, message, [{ path: '', message }]);
};

/** What an item says of its files' turns. */
type Turn = Pick<Item, 'durationMs' | 'clip' | 'transition' | 'fit' | 'volume'>;

/** How a file looks in its turn: what is said of it, without what is usual. */
function lookOf({ transition, fit, volume }: Omit<Turn, 'durationMs' | 'clip'>, durationMs: number) {
  const ms = Math.min(transition?.ms ?? 0, Math.floor(durationMs / 2));
  return {
    ...(transition && transition.kind !== 'cut' && ms > 0 ? { transition: { kind: transition.kind, ms } } : {}),
    ...(fit !== undefined && fit !== 'whole' ? { fit } : {}),
    ...(volume ? { volume } : {}),
  };
}

/** A content as the items of one kind of screen. */
interface Flat {
  readonly loop: Loop;
  readonly order: Order | null;
  readonly music?: ProgramMusic | null;
}

/** An item without where it came from: what a player needs of it. */
export const withoutProvenance = ({ through: _through, place: _place, ...item }: LoopItem): LoopItem => item;

/** Narrows a checked plan to one of its screens (domain sections 4 and 6). Throws RangeError for an unknown screen, a Refusal for a loop past all measure. */
export function screenProgram(plan: Plan, screenId: string): ScreenProgram {
  return programMaker(plan)(screenId);
}

/** The same for many screens of one plan: what they share is looked up once, and those that nothing tells apart have one program. `selected` are the bookings that reach the screen, where known. */
export function programMaker(plan: Plan): (screenId: string, selected?: readonly Booking[]) => ScreenProgram {
  const index = <T extends { id: string }>(list: readonly T[]) => new Map(list.map((entry) => [entry.id, entry]));
  const [sites, screens, media] = [index(plan.sites), index(plan.screens), index(plan.media)];
  const [playlists, calendars] = [index(plan.playlists), index(plan.calendars)];
  const collected = new Map<string, Media[]>();

  const collect = (rule: string, order: 'name' | 'newest' | 'oldest', limit: number, heard: boolean): Media[] => {
    const key = `${heard}\n${order}\n${rule}`;
    let found = collected.get(key);
    if (!found) {
      const selector = selectorOf(rule);
      found = plan.media
        .filter((file) => !file.archived && isShown(file) !== heard && matches(selector, mediaTerms(file)))
        .sort(mediaOrder(order));
      collected.set(key, found);
    }
    return found.slice(0, limit);
  };

  const fileItem = (file: Media, { durationMs: own, clip, ...look }: Turn, conditions: readonly When[]): LoopItem => {
    const durationMs =
      (clip && clip[1] - clip[0]) ?? own ?? file.durationMs ?? plan.network.defaultDurationMs ?? DEFAULT_DURATION_MS;
    return {
      media: file.id,
      ...(clip && clip[0] > 0 ? { fromMs: clip[0] } : {}),
      durationMs,
      when: file.when && !isAlways(file.when) ? [...conditions, file.when] : conditions,
      ...(isShown(file) ? lookOf(look, durationMs) : {}),
    };
  };

  /** The pictures and films of a content as some screens see them; or the sounds of a playlist, as they hear them. */
  const flatten = (content: Content, terms: ReadonlySet<string>, heard = false): Flat => {
    const loop: LoopItem[] = [];
    const wanted = (file: Media | undefined): file is Media =>
      file !== undefined && !file.archived && isShown(file) !== heard;
    const expand = (
      playlistId: string,
      conditions: readonly When[],
      path: readonly string[],
      outer?: number,
    ): Order => {
      const { items: all = [], order, archived } = playlists.get(playlistId) ?? {};
      const items = archived ? [] : all;
      const entries: [string, number | Order][] = [];
      for (const [place, item] of items.entries()) {
        if (item.where !== undefined && !matches(selectorOf(item.where), terms)) continue;
        const needed = item.when && !isAlways(item.when) ? [...conditions, item.when] : conditions;
        const what = knownItem(item);
        const through = (files: readonly Media[], nameOf: (i: number) => string) => {
          for (const [i, file] of files.entries()) {
            if (!wanted(file)) continue;
            const turn = fileItem(file, heard ? {} : item, needed);
            entries.push([nameOf(i), loop.push({ ...turn, through: path, place: outer ?? place }) - 1]);
          }
          if (loop.length > MOST_ITEMS) throw tooLong(playlists.get(path[0] ?? '')?.name ?? '');
        };
        switch (what.kind) {
          case 'playlist':
            entries.push([`${place}`, expand(what.id, needed, [...path, what.id], outer ?? place)]);
            break;
          case 'media':
            through([media.get(what.id) as Media], () => `${place}`);
            break;
          case 'collect':
            through(collect(what.rule, what.order, what.limit, heard), (i) => `${place}.${i}`);
            break;
          default:
            never(what);
        }
      }
      return { playlist: playlistId, shuffled: order === 'shuffled', entries };
    };
    const what = knownContent(content);
    switch (what.kind) {
      case 'playlist': {
        const order = expand(what.id, [], [what.id]);
        return { loop, order: isShuffled(order) ? order : null, music: heard ? null : musicOf(what.id, terms) };
      }
      case 'media': {
        const file = media.get(what.id);
        return { loop: wanted(file) ? [fileItem(file, { durationMs: what.durationMs }, [])] : [], order: null };
      }
      default:
        return never(what);
    }
  };

  /** What sounds beside a playlist's loop: nothing where no sound of its music is for these screens. */
  const musicOf = (playlistId: string, terms: ReadonlySet<string>): ProgramMusic | null => {
    const { music } = playlists.get(playlistId) ?? {};
    if (!music || music.volume === 0) return null;
    const { loop, order } = flatten({ playlist: music.playlist }, terms, true);
    return loop.length === 0
      ? null
      : { loop: loop.map(withoutProvenance), ...(order ? { order } : {}), volume: music.volume };
  };

  const where = [
    ...plan.bookings.map((booking) => booking.where),
    ...plan.playlists.flatMap((list) => list.items.flatMap((item) => item.where ?? [])),
  ];
  const selectors = [...new Set(where)].map(selectorOf);
  const named = new Set(
    ['screen:', 'site:'].flatMap((kind) =>
      selectors.flatMap((one) => namedTerms(one, kind).map((name) => `${kind}${name}`)),
    ),
  );
  /** What tells screens apart for selectors: what they bear, and their names where those are called. */
  const matchKeyOf = (terms: ReadonlySet<string>) =>
    [...terms].filter((term) => named.has(term) || !/^(screen|site):/.test(term)).join();
  /** Loops by what tells screens apart, then by content: screens of one kind share them. */
  const loopsByMatch = new Map<string, Map<string, Flat>>();

  const prepared = plan.bookings.filter(({ takeover, onHold }) => takeover && onHold);

  const bodyOf = (screen: Screen, site: Site, terms: ReadonlySet<string>, selected?: readonly Booking[]): Body => {
    const matchKey = matchKeyOf(terms);
    const shared = loopsByMatch.get(matchKey) ?? new Map<string, Flat>();
    loopsByMatch.set(matchKey, shared);
    const loops: Loop[] = [];
    const orders: (Order | null)[] = [];
    const music: (ProgramMusic | null)[] = [];
    const known = new Map<string, number>();
    /** The number of a content's loop, -1 where nothing in it is for this screen. */
    const loopOf = (content: Content): number => {
      const key = contentKey(content);
      let number = known.get(key);
      if (number === undefined) {
        const flat = shared.get(key) ?? flatten(content, terms);
        shared.set(key, flat);
        const { loop, order } = flat;
        number = loop.length === 0 ? -1 : loops.push(loop) - 1;
        if (number >= 0) {
          orders[number] = order;
          music[number] = flat.music ?? null;
        }
        known.set(key, number);
      }
      return number;
    };
    const reaching =
      selected ?? plan.bookings.filter((booking) => !booking.onHold && matches(selectorOf(booking.where), terms));
    const bookings = reaching
      .filter(({ weave }) => !weave)
      .map((booking): ProgramBooking => ({
        id: booking.id,
        priority: booking.priority,
        ...(booking.takeover ? { takeover: true } : {}),
        ...(booking.takeover && booking.wake ? { wake: true } : {}),
        ...(booking.takeover && booking.drill ? { drill: true } : {}),
        created: Date.parse(booking.created),
        when: booking.when,
        loop: loopOf(booking.content),
      }))
      .filter((booking) => booking.loop >= 0);
    const weaves = reaching
      .flatMap(({ weave, id, priority, when, content }): ProgramWeave[] =>
        weave ? [{ id, priority, when, loop: loopOf(content), ...weave }] : [],
      )
      .filter((weave) => weave.loop >= 0);
    const levels: [BackdropLevel, Content | undefined][] = [
      ['screen', screen.backdrop],
      ['site', site.backdrop],
      ['network', plan.network.backdrop],
    ];
    const backdrops = levels
      .map(([level, content]) => ({ level, loop: content ? loopOf(content) : -1 }))
      .filter((backdrop) => backdrop.loop >= 0);
    // A prepared takeover is in no forecast, but its files must be on the player when it is fired.
    if (!selected) for (const { content, where } of prepared) if (matches(selectorOf(where), terms)) loopOf(content);
    const lightsOut = screen.lightsOut ?? [];
    const heard = music.flatMap((one) => (one ? conditionsOf(one.loop) : []));
    const used = [
      ...[...bookings, ...weaves].map((one) => one.when),
      ...[...lightsOut, ...loops.flatMap(conditionsOf), ...heard],
    ];
    const calendarIds = new Set(used.flatMap(calendarsOf));
    return {
      usesHours: used.some(followsHours),
      usesSun: used.some(followsSun),
      calendars: Object.fromEntries([...calendarIds].map((id) => [id, calendars.get(id)?.dates ?? []])),
      loops,
      ...(orders.some((order) => order !== null) ? { orders } : {}),
      ...(music.some((one) => one !== null) ? { music } : {}),
      bookings,
      ...(weaves.length > 0 ? { weaves } : {}),
      backdrops,
      lightsOut,
    };
  };

  const inZone = (
    { usesHours: asksHours, usesSun: asksSun, ...body }: Body,
    { timeZone, hours, location }: Pick<Site, 'timeZone' | 'hours' | 'location'>,
  ): ScreenProgram => ({
    zone: timeZone,
    ...(asksHours && hours ? { hours } : {}),
    ...(asksSun && location ? { location } : {}),
    ...body,
  });

  /** What screens that nothing tells apart have in common, and their programs: by zone too, and by hours and location where something asks for them. */
  const bodies = new Map<string, { readonly body: Body; readonly programs: Map<string, ScreenProgram> }>();
  return (screenId, selected) => {
    const screen = screens.get(screenId);
    const site = screen && sites.get(screen.site);
    if (!screen || !site) throw new RangeError(`The plan has no screen “${screenId}”.`);
    const terms = screenTerms(screen, site.tags);
    if (selected) return inZone(bodyOf(screen, site, terms, selected), site);
    const { backdrop, lightsOut } = screen;
    const key = JSON.stringify([matchKeyOf(terms), backdrop ?? null, site.backdrop ?? null, lightsOut ?? null]);
    const known = bodies.get(key) ?? { body: bodyOf(screen, site, terms), programs: new Map<string, ScreenProgram>() };
    bodies.set(key, known);
    const { usesHours, usesSun } = known.body;
    const place = JSON.stringify([site.timeZone, usesHours && site.hours, usesSun && site.location]);
    const program = known.programs.get(place) ?? inZone(known.body, site);
    known.programs.set(place, program);
    return program;
  };
}

/** What a program says whatever clock it goes by, and whether it asks for opening hours and for the sun. */
interface Body extends Omit<ScreenProgram, 'zone' | 'hours' | 'location' | 'zones'> {
  readonly usesHours: boolean;
  readonly usesSun: boolean;
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

/** Every zone whose clock a program reads. */
export const zonesOf = (program: ScreenProgram): string[] =>
  [...new Set([program.zone, ...namedZones(program)])].sort();

/** The zones that are named in a program, besides its own. */
export function namedZones(program: ScreenProgram): string[] {
  const used = [
    ...[...program.bookings, ...(program.weaves ?? [])].map((one) => one.when),
    ...program.lightsOut,
    ...program.loops.flatMap(conditionsOf),
    ...(program.music ?? []).flatMap((one) => (one ? conditionsOf(one.loop) : [])),
  ];
  return [...new Set(used.flatMap(clocksOf))];
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
      sun: program.location && sunAt(program.location, table(program.zone)),
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
