import type { Instant } from '../instant';
import type { Booking, Plan } from '../plan/schema';
import { sameButBookings } from '../plan/share';
import { matches, selectorOf } from '../selector';
import { occurrenceMemo, type Place } from '../when';
import { screenGroups, selectedByName, type ScreenGroup } from './screen-groups';
import { placeOf, type ScreenProgram } from './program';
import { programMaker } from './narrow';
import { segments, type Segment } from './segments';

interface Known {
  /** The bookings that reached this group of screens when it was computed: the very objects. */
  readonly bookings: readonly Booking[];
  readonly program: ScreenProgram;
  readonly segments: readonly Segment[];
}

/** Screens that show the same over the whole range, with what they show. */
export interface GroupForecast {
  readonly screens: readonly string[];
  readonly program: ScreenProgram;
  readonly segments: readonly Segment[];
  /** Where its times are read, with what was found over the range: screens of a site share it. */
  readonly place: Place;
}

/**
 * The segments of all screens of a plan over one range of time, kept for the next plan: where a plan differs from the one
 * before in its bookings only, and shares the other objects with it, only screens that a changed booking reaches are
 * computed again. A plan is never altered in place: a changed booking is a new object.
 */
export class NetworkForecast {
  private base: Plan | null = null;
  /** The screens that selectors call by name. */
  private named: ReadonlySet<string> = new Set();
  private kin: ReadonlyMap<string, ScreenGroup> = new Map();
  private keyOf: ReadonlyMap<string, string> = new Map();
  private known = new Map<string, Known>();
  /** What was found of each site's occurrences: its screens share clock and hours. */
  private memos = new Map<string, ReturnType<typeof occurrenceMemo>['memo']>();
  private reached = new WeakMap<Booking, ReadonlySet<string>>();

  constructor(
    private readonly from: Instant,
    private readonly to: Instant,
  ) {}

  /** Segments by screen id. Screens that show the same share one list. */
  segments(plan: Plan): Map<string, readonly Segment[]> {
    this.update(plan);
    return new Map([...this.keyOf].map(([screen, key]) => [screen, this.known.get(key)?.segments ?? []]));
  }

  /** One entry for each kind of screen, in the plan's order of screens: those that no selector can tell apart. */
  outcomes(plan: Plan): GroupForecast[] {
    this.update(plan);
    const screens = new Map<string, string[]>();
    for (const [screen, key] of this.keyOf) {
      const list = screens.get(key);
      if (list) list.push(screen);
      else screens.set(key, [screen]);
    }
    return [...screens].flatMap(([key, list]) => {
      const known = this.known.get(key);
      const site = this.kin.get(key)?.screen.site;
      return known && site !== undefined
        ? [{ screens: list, program: known.program, segments: known.segments, place: this.place(known.program, site) }]
        : [];
    });
  }

  private update(plan: Plan): void {
    if (!this.base || !sameButBookings(this.base, plan) || !selectedByName(plan).every((id) => this.named.has(id)))
      this.begin(plan);
    this.base = plan;
    const narrow = programMaker(plan);
    const bookingsOf = new Map<string, Booking[]>([...this.kin.keys()].map((key) => [key, []]));
    for (const booking of plan.bookings) for (const key of this.reach(booking)) bookingsOf.get(key)?.push(booking);
    const known = new Map<string, Known>();
    for (const [key, { screen }] of this.kin) {
      const bookings = bookingsOf.get(key) ?? [];
      const before = this.known.get(key);
      if (before && sameList(before.bookings, bookings)) known.set(key, before);
      else {
        const program = narrow(screen.id, bookings);
        known.set(key, { bookings, program, segments: this.compute(program, screen.site) });
      }
    }
    this.known = known;
  }

  private begin(plan: Plan): void {
    this.known = new Map();
    this.memos = new Map();
    this.reached = new WeakMap();
    this.named = new Set(selectedByName(plan));
    const [kin, keyOf] = screenGroups(plan, this.named);
    this.kin = kin;
    this.keyOf = keyOf;
  }

  private compute(program: ScreenProgram, site: string): readonly Segment[] {
    return segments(program, this.place(program, site), this.from, this.to);
  }

  private place(program: ScreenProgram, site: string): Place {
    const memo = this.memos.get(site) ?? occurrenceMemo(this.from, this.to).memo;
    this.memos.set(site, memo);
    return { ...placeOf(program), memo };
  }

  /** The groups of screens that a booking reaches. */
  private reach(booking: Booking): ReadonlySet<string> {
    let keys = this.reached.get(booking);
    if (!keys) {
      const selector = selectorOf(booking.where);
      const found = booking.onHold
        ? []
        : [...this.kin].filter(([, { terms }]) => matches(selector, terms)).map(([key]) => key);
      this.reached.set(booking, (keys = new Set(found)));
    }
    return keys;
  }
}

function sameList(a: readonly Booking[], b: readonly Booking[]): boolean {
  return a.length === b.length && a.every((one, i) => one === b[i]);
}
