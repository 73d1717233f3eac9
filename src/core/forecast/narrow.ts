import { contentKey } from '../plan/contents';
import type { Firing as PlanFiring } from '../cues';
import type { Booking, Content, Plan, Screen, Site } from '../plan/schema';
import { matches, namedTerms, screenTerms, selectorOf } from '../selector';
import { calendarsOf, followsHours, followsSun } from '../when';
import { Flattener, type Flat } from './flatten';
import { conditionsOf, type Loop } from './loop';
import { selectorsIn } from './screen-groups';
import type {
  BackdropLevel,
  Firing,
  ProgramBooking,
  ProgramKey,
  ProgramLayout,
  ProgramOverlay,
  ProgramWeave,
  ProgramZone,
  ScreenProgram,
} from './program';

/** Narrows a checked plan to one of its screens (domain sections 4 and 6). Throws RangeError for an unknown screen, a Refusal for a loop past all measure. */
export function screenProgram(plan: Plan, screenId: string, firings: readonly PlanFiring[] = []): ScreenProgram {
  return programMaker(plan, firings)(screenId);
}

/**
 * The same for many screens of one plan: what they share is looked up once, and those that nothing tells apart have one program. `selected`
 * are the bookings that reach the screen, where known. Programs carry those of the `firings` that reach their screens.
 */
export function programMaker(
  plan: Plan,
  firings: readonly PlanFiring[] = [],
): (screenId: string, selected?: readonly Booking[]) => ScreenProgram {
  const [sites, screens] = [byId(plan.sites), byId(plan.screens)];
  const narrowing = new Narrowing(plan, firings);
  /** What screens that nothing tells apart have in common, and their programs: by zone too, and by hours and location where something asks for them. */
  const bodies = new Map<string, { readonly body: Body; readonly programs: Map<string, ScreenProgram> }>();
  return (screenId, selected) => {
    const screen = screens.get(screenId);
    const site = screen && sites.get(screen.site);
    if (!screen || !site) throw new RangeError(`The plan has no screen “${screenId}”.`);
    const terms = screenTerms(screen, site.tags);
    if (selected) return inZone(narrowing.body(screen, site, terms, selected), site);
    const { backdrop, lightsOut, keysOff, stepRestMs } = screen;
    const match = narrowing.matchKeyOf(terms);
    const own = [backdrop, site.backdrop, lightsOut, keysOff, stepRestMs];
    const key = JSON.stringify([match, ...own.map((one) => one ?? null)]);
    const known = bodies.get(key) ?? { body: narrowing.body(screen, site, terms), programs: new Map() };
    bodies.set(key, known);
    const { usesHours, usesSun } = known.body;
    const place = JSON.stringify([site.timeZone, usesHours && site.hours, usesSun && site.location]);
    const program = known.programs.get(place) ?? inZone(known.body, site);
    known.programs.set(place, program);
    return program;
  };
}

const byId = <T extends { readonly id: string }>(list: readonly T[]) => new Map(list.map((entry) => [entry.id, entry]));

/** What a program says whatever clock it goes by, and whether it asks for opening hours and for the sun. */
interface Body extends Omit<ScreenProgram, 'zone' | 'hours' | 'location' | 'zones'> {
  readonly usesHours: boolean;
  readonly usesSun: boolean;
}

function inZone(
  { usesHours, usesSun, ...body }: Body,
  { timeZone, hours, location }: Pick<Site, 'timeZone' | 'hours' | 'location'>,
): ScreenProgram {
  return {
    zone: timeZone,
    ...(usesHours && hours ? { hours } : {}),
    ...(usesSun && location ? { location } : {}),
    ...body,
  };
}

/** What is asked of a plan for every screen, looked up once. */
class Narrowing {
  private readonly calendars: ReadonlyMap<string, Plan['calendars'][number]>;
  private readonly keys: readonly ProgramKey[];
  private readonly prepared: readonly Booking[];
  private readonly named: ReadonlySet<string>;
  private readonly flattener: Flattener;
  /** Loops by what tells screens apart, then by content: screens of one kind share them. */
  private readonly flats = new Map<string, Map<string, Flat>>();

  constructor(
    private readonly plan: Plan,
    private readonly firings: readonly PlanFiring[],
  ) {
    this.calendars = byId(plan.calendars);
    this.keys = plan.cues
      .flatMap(({ id, name, key }) => (key === undefined ? [] : [{ key, cue: id, name }]))
      .sort((a, b) => a.key - b.key || (a.cue < b.cue ? -1 : 1));
    this.prepared = plan.bookings.filter(({ takeover, onHold }) => takeover && onHold);
    this.flattener = new Flattener(plan);
    const where = new Set([...selectorsIn(plan), ...firings.flatMap((firing) => firing.where ?? [])]);
    const selectors = [...where].map(selectorOf);
    this.named = new Set(
      ['screen:', 'site:'].flatMap((kind) =>
        selectors.flatMap((one) => namedTerms(one, kind).map((name) => `${kind}${name}`)),
      ),
    );
  }

  /** What tells screens apart for selectors: what they bear, and their names where those are called. */
  matchKeyOf(terms: ReadonlySet<string>): string {
    return [...terms].filter((term) => this.named.has(term) || !/^(screen|site):/.test(term)).join();
  }

  /** What a screen's program says whatever clock it goes by. */
  body(screen: Screen, site: Site, terms: ReadonlySet<string>, selected?: readonly Booking[]): Body {
    const { plan } = this;
    const numbers = this.numbering(terms);
    const reaching =
      selected ?? plan.bookings.filter((booking) => !booking.onHold && matches(selectorOf(booking.where), terms));
    const bookings = reaching
      .filter(({ weave, overlay }) => !weave && !overlay)
      .map((booking) => bookingFor(booking, numbers.of(booking.content)))
      .filter((booking) => booking.loop >= 0);
    const weaves = reaching
      .flatMap(({ weave, id, priority, when, content }): ProgramWeave[] =>
        weave ? [{ id, priority, when, loop: numbers.of(content), ...weave }] : [],
      )
      .filter((weave) => weave.loop >= 0);
    const levels: [BackdropLevel, Content | undefined][] = [
      ['screen', screen.backdrop],
      ['site', site.backdrop],
      ['network', plan.network.backdrop],
    ];
    const backdrops = levels
      .map(([level, content]) => ({ level, loop: content ? numbers.of(content) : -1 }))
      .filter((backdrop) => backdrop.loop >= 0);
    // A prepared takeover is in no forecast, but its files must be on the player when it is fired.
    if (!selected)
      for (const { content, where } of this.prepared) if (matches(selectorOf(where), terms)) numbers.of(content);
    const overlays = reaching.flatMap((booking) => overlayFor(booking, numbers) ?? []);
    const lightsOut = screen.lightsOut ?? [];
    const { flats, layouts } = numbers;
    const loops = flats.map(({ loop }) => loop);
    const heard = flats.flatMap(({ music }) => (music ? [music.loop] : []));
    const bulletins = this.bulletinsIn(loops);
    const cues = new Set(bookings.map(({ cue }) => cue));
    const fired = this.firings.filter(
      ({ cue, where }) => cues.has(cue) && (where === undefined || matches(selectorOf(where), terms)),
    );
    const keys = screen.keysOff || !this.keys.some(({ cue }) => cues.has(cue)) ? [] : this.keys;
    const used = [
      ...[...bookings, ...weaves, ...overlays].map((one) => one.when),
      ...[...lightsOut, ...[...loops, ...heard].flatMap(conditionsOf)],
    ];
    const calendarIds = new Set(used.flatMap(calendarsOf));
    return {
      usesHours: used.some(followsHours),
      usesSun: used.some(followsSun),
      calendars: Object.fromEntries([...calendarIds].map((id) => [id, this.calendars.get(id)?.dates ?? []])),
      loops,
      ...(flats.some(({ order }) => order !== null) ? { orders: flats.map(({ order }) => order) } : {}),
      ...(heard.length > 0 ? { music: flats.map(({ music }) => music) } : {}),
      bookings,
      ...(weaves.length > 0 ? { weaves } : {}),
      ...(layouts.size > 0 ? { layouts: Object.fromEntries(layouts) } : {}),
      ...(bulletins ? { bulletins } : {}),
      ...(overlays.length > 0 ? { overlays } : {}),
      ...(keys.length > 0 ? { keys } : {}),
      ...(plan.network.withoutInput && loops.some((loop) => loop.some(({ input }) => input !== undefined))
        ? { withoutInput: plan.network.withoutInput }
        : {}),
      ...(screen.stepRestMs === undefined ? {} : { stepRestMs: screen.stepRestMs }),
      ...(fired.length > 0 ? { firings: fired.map(firingFor).sort((a, b) => a.at - b.at) } : {}),
      backdrops,
      lightsOut,
    };
  }

  private bulletinsIn(loops: readonly Loop[]): ScreenProgram['bulletins'] {
    const ids = new Set(loops.flatMap((loop) => loop.flatMap(({ bulletin }) => bulletin ?? [])));
    const found = [...ids].flatMap((id) => this.flattener.bulletins.get(id) ?? []);
    if (found.length === 0) return undefined;
    return Object.fromEntries(found.map(({ id, name: _name, durationMs: _ms, ...says }) => [id, says]));
  }

  /** Numbers the loops of a screen as they are asked for, and gathers the layouts that they show. */
  private numbering(terms: ReadonlySet<string>): Numbering {
    const key = this.matchKeyOf(terms);
    const shared = this.flats.get(key) ?? new Map<string, Flat>();
    this.flats.set(key, shared);
    const flats: Flat[] = [];
    const known = new Map<string, number>();
    const layouts = new Map<string, ProgramLayout>();
    const numbered = (key: string, make: () => Flat): number => {
      let number = known.get(key);
      if (number !== undefined) return number;
      const flat = shared.get(key) ?? make();
      shared.set(key, flat);
      number = flat.loop.length === 0 ? -1 : flats.push(flat) - 1;
      known.set(key, number);
      for (const { layout } of flat.loop) if (layout !== undefined) layoutOf(layout);
      return number;
    };
    const isHere = (where: string | undefined) => where === undefined || matches(selectorOf(where), terms);
    const of = (content: Content): number => {
      const number = numbered(contentKey(content), () => this.flattener.flat(content, terms));
      const [first, second] = flats[number]?.loop ?? [];
      const layout = first?.stays && !second && first.layout;
      return layout && !layoutOf(layout) ? -1 : number;
    };
    /** A layout as this screen sees it; undefined where nothing of it is for the screen. */
    const layoutOf = (id: string): ProgramLayout | undefined => {
      const layout = this.flattener.layouts.get(id);
      if (!layout) return undefined;
      let made = layouts.get(id);
      if (!made) {
        const { width, height, background } = layout;
        const zones = layout.zones
          .filter(({ where }) => isHere(where))
          .map((zone): ProgramZone => {
            const loop = numbered(`zone ${id} ${zone.id}`, () => this.flattener.zone(zone, terms));
            const { x, y, goesOn, touch } = zone;
            const place = { id: zone.id, x, y, width: zone.width, height: zone.height };
            const touched = touch && { cue: touch.cue, ...(isHere(touch.where) ? { here: true as const } : {}) };
            return { ...place, loop, ...(goesOn ? { goesOn } : {}), ...(touched ? { touch: touched } : {}) };
          });
        made = { width, height, ...(background === undefined ? {} : { background }), zones };
        layouts.set(id, made);
      }
      return made.zones.some(({ loop }) => loop >= 0) ? made : undefined;
    };
    return { flats, layouts, of, layoutOf };
  }
}

/** The loops of one screen, as they are asked for. */
interface Numbering {
  readonly flats: readonly Flat[];
  readonly layouts: ReadonlyMap<string, ProgramLayout>;
  /** The number of a content's loop: -1 where nothing of it is for the screen. */
  of(content: Content): number;
  layoutOf(id: string): ProgramLayout | undefined;
}

const firingFor = ({ cue, at, end }: PlanFiring): Firing => ({ cue, at: Date.parse(at), ...(end ? { end } : {}) });

function overlayFor(
  { id, priority, created, when, content, overlay }: Booking,
  numbers: Numbering,
): ProgramOverlay | undefined {
  if (!overlay || content.layout === undefined || !numbers.layoutOf(content.layout)) return undefined;
  const over = overlay.overTakeovers ? { overTakeovers: true as const } : {};
  return { id, priority, created: Date.parse(created), when, layout: content.layout, ...over };
}

const bookingFor = (booking: Booking, loop: number): ProgramBooking => ({
  id: booking.id,
  priority: booking.priority,
  ...(booking.takeover ? { takeover: true } : {}),
  ...(booking.takeover && booking.wake ? { wake: true } : {}),
  ...(booking.takeover && booking.drill ? { drill: true } : {}),
  created: Date.parse(booking.created),
  when: booking.when,
  loop,
  ...(booking.cue === undefined ? {} : { cue: booking.cue }),
  ...(booking.forMs === undefined ? {} : { forMs: booking.forMs }),
});
