import { DateTime } from 'luxon';
import { RRule } from 'rrule';
import { getTimes } from 'suncalc';
import type { Booking, Content, Media, Plan, Screen, Site } from '../plan';
import type { SetOfHours, When } from '../when';

/**
 * The rules of the forecast read a second time, the slow and literal way: one instant after another, dates by the `rrule`
 * package, clocks by `luxon`, and nothing shared with the core but the types. For small plans in tests.
 */
export interface Showing {
  readonly source: string;
  readonly id: string | null;
  readonly since: number | null;
  readonly media: string | null;
}

interface Span {
  readonly from: number;
  readonly to: number;
}

interface Item {
  readonly media: string;
  readonly durationMs: number;
  readonly whens: readonly When[];
}

interface Candidate {
  readonly source: string;
  readonly id: string;
  readonly span: Span;
  readonly items: readonly Item[];
  readonly rank: readonly [kind: number, priority: number, since: number, created: number];
  readonly wakes: boolean;
}

interface Loop {
  at: number;
  next: number;
  edges: number[];
  readonly turns: (Span & { readonly media: string })[];
}

const DAY = 86_400_000;
const EVERY_DAY: When = {};
const edgesOf = ({ from, to }: Span) => [from, to];

/** Answers for one screen of a plan, for instants in `[from, to)`. */
export class SecondReading {
  private readonly screen: Screen;
  private readonly site: Site;
  private readonly spans = new Map<When, readonly Span[]>();
  private readonly loops = new Map<string, Loop>();

  constructor(
    private readonly plan: Plan,
    screen: string,
    private readonly from: number,
    private readonly to: number,
  ) {
    this.screen = found(plan.screens, screen);
    this.site = found(plan.sites, this.screen.site);
  }

  /** Section 5, and section 6 for what plays. */
  at(instant: number): Showing {
    const all = this.candidates(instant).filter(({ items }) => items.some((item) => this.available(item, instant)));
    const dark = (this.screen.lightsOut ?? []).some((when) => this.holds(when, instant));
    const [winner] = all
      .filter(({ wakes }) => !dark || wakes)
      .sort((a, b) => {
        const differing = a.rank.findIndex((value, i) => value !== b.rank[i]);
        return differing < 0 ? (a.id < b.id ? 1 : -1) : (b.rank[differing] ?? 0) - (a.rank[differing] ?? 0);
      });
    if (!winner) return { source: dark ? 'lights-out' : 'nothing', id: null, since: null, media: null };
    const { source, id, span, items } = winner;
    return { source, id, since: span.from, media: this.playing(`${id} ${span.from}`, items, span.from, instant) };
  }

  private candidates(instant: number): Candidate[] {
    const kinds = { takeover: 2, booking: 1 };
    const booked = this.plan.bookings
      .filter((one) => !one.onHold && selects(one.where, this.terms()))
      .flatMap((one: Booking) =>
        this.covering(one.when, instant).map((span): Candidate => {
          const source = one.takeover ? 'takeover' : 'booking';
          const rank = [kinds[source], one.priority, span.from, Date.parse(one.created)] as const;
          const items = this.flat(one.content);
          return { source, id: one.id, span, items, rank, wakes: one.takeover === true && one.wake === true };
        }),
      );
    const levels = [this.plan.network.backdrop, this.site.backdrop, this.screen.backdrop];
    const backdrops = levels.flatMap((content, level) =>
      content
        ? this.covering(EVERY_DAY, instant).map((span): Candidate => {
            const id = ['network', 'site', 'screen'][level] ?? '';
            const rank = [0, level, 0, 0] as const;
            return { source: 'backdrop', id, span, items: this.flat(content), rank, wakes: false };
          })
        : [],
    );
    return [...booked, ...backdrops];
  }

  private terms(): ReadonlySet<string> {
    const { width, height } = this.screen;
    const shape = width > height ? 'is:landscape' : width < height ? 'is:portrait' : 'is:square';
    const tags = [...(this.screen.tags ?? []), ...(this.site.tags ?? [])];
    return new Set([...tags, shape, `screen:${this.screen.id}`, `site:${this.site.id}`]);
  }

  /** The loop, step by step from its occurrence's start; remembered as far as it was run. */
  private playing(key: string, items: readonly Item[], since: number, instant: number): string {
    let loop = this.loops.get(key);
    if (!loop) {
      const edges = items.flatMap(({ whens }) => whens.flatMap((when) => this.occurrences(when).flatMap(edgesOf)));
      this.loops.set(key, (loop = { at: since, next: 0, edges: [...new Set(edges)].sort((a, b) => a - b), turns: [] }));
    }
    while (loop.at <= instant) {
      const { at, next } = loop;
      loop.edges = loop.edges.filter((edge) => edge > at);
      const turn = items.findIndex((_, i) => this.available(items[(next + i) % items.length] as Item, at));
      if (turn < 0) {
        loop.at = loop.edges[0] ?? this.to;
        continue;
      }
      const index = (next + turn) % items.length;
      const item = items[index] as Item;
      const end = loop.edges.find((edge) => edge >= at + item.durationMs || !this.available(item, edge)) ?? Infinity;
      loop.at = Math.min(at + item.durationMs, end);
      loop.next = (index + 1) % items.length;
      loop.turns.push({ from: at, to: loop.at, media: item.media });
    }
    return loop.turns.find(({ from, to }) => from <= instant && instant < to)?.media ?? 'none';
  }

  private available(item: Item, instant: number): boolean {
    return item.whens.every((when) => this.holds(when, instant));
  }

  private flat(content: Content | { readonly playlist?: string; readonly media?: string }): Item[] {
    const usual = this.plan.network.defaultDurationMs ?? 10_000;
    const one = (file: Media, durationMs: number | undefined, whens: readonly When[]): Item => ({
      media: file.id,
      durationMs: durationMs ?? file.durationMs ?? usual,
      whens: file.when ? [...whens, file.when] : whens,
    });
    const list = (id: string, whens: readonly When[]): Item[] =>
      found(this.plan.playlists, id)
        .items.filter(({ where }) => where === undefined || selects(where, this.terms()))
        .flatMap((item) => {
          const all = item.when ? [...whens, item.when] : whens;
          if (item.playlist !== undefined) return list(item.playlist, all);
          if (item.collect !== undefined)
            return this.collected(item.collect, item.order ?? 'name', item.limit).map((file) =>
              one(file, item.durationMs, all),
            );
          return [one(found(this.plan.media, item.media ?? ''), item.durationMs, all)];
        });
    if (content.playlist !== undefined) return list(content.playlist, []);
    return [
      one(found(this.plan.media, content.media ?? ''), 'durationMs' in content ? content.durationMs : undefined, []),
    ];
  }

  private collected(rule: string, order: string, limit: number | undefined): Media[] {
    const key = (file: Media) => (order === 'name' ? file.name : file.added);
    const sign = order === 'newest' ? -1 : 1;
    return this.plan.media
      .filter((file) => selects(rule, new Set([...(file.tags ?? []), `kind:${file.kind}`])))
      .sort((a, b) => (key(a) === key(b) ? (a.id < b.id ? -1 : 1) : key(a) < key(b) ? -sign : sign))
      .slice(0, limit);
  }

  private holds(when: When, instant: number): boolean {
    return this.covering(when, instant).length > 0;
  }

  private covering(when: When, instant: number): Span[] {
    return this.occurrences(when).filter(({ from, to }) => from <= instant && instant < to);
  }

  /** Section 3, all of it, for dates a week around the range. */
  private occurrences(when: When): readonly Span[] {
    let spans = this.spans.get(when);
    if (!spans) this.spans.set(when, (spans = this.findOccurrences(when)));
    return spans;
  }

  private findOccurrences(when: When): Span[] {
    const longest = new Map<number, number>();
    for (const set of when.any ?? [when])
      for (const { from, to } of this.spansOf(set)) longest.set(from, Math.max(to, longest.get(from) ?? to));
    return [...longest].map(([from, to]) => ({ from, to }));
  }

  private spansOf(set: SetOfHours): Span[] {
    const zone = set.clock === undefined || set.clock === 'site' ? this.site.timeZone : set.clock;
    const spans: Span[] = [];
    const dateAt = (day: number) => new Date(day * DAY).toISOString().slice(0, 10);
    for (let day = Math.floor(this.from / DAY) - 12; day <= Math.floor(this.to / DAY) + 3; day++) {
      const date = dateAt(day);
      if (!this.hasDate(set, date)) continue;
      for (const [first, second, days] of set.windows ?? [['00:00', '24:00']]) {
        const last = dateAt(day + (days ?? 0));
        const [start, end] = [this.edge(first, date), this.edge(second, last)];
        if (start === null || end === null) continue;
        const from = instantOf(date, start, zone);
        let to = instantOf(last, end, zone);
        if (days === undefined && end <= start && overMidnight(first, second))
          to = second.startsWith('sun')
            ? instantOf(dateAt(day + 1), this.edge(second, dateAt(day + 1)) ?? 0, zone)
            : instantOf(last, end + 24 * 3600, zone);
        if (to > from) spans.push({ from, to });
      }
    }
    return spans;
  }

  /** Seconds after the date's midnight, as the clock reads; null where the site does not open. */
  private edge(text: string, date: string): number | null {
    const seconds = (clock: string) => clock.split(':').reduce((sum, part, i) => sum + Number(part) * 60 ** (2 - i), 0);
    const named = /^(opens|closes|sunrise|sunset)(?:([+-])(.+))?$/.exec(text);
    if (!named) return seconds(text);
    const offset = named[3] === undefined ? 0 : seconds(named[3]) * (named[2] === '-' ? -1 : 1);
    if (text.startsWith('sun')) {
      const sun = sunOf(this.site, date, named[1] as 'sunrise');
      return sun === null ? null : sun + offset;
    }
    const day = DateTime.fromISO(date, { zone: 'utc' }).weekday;
    const weekday = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'][day - 1] as 'MO';
    const periods = this.site.hours?.dates?.[date] ?? this.site.hours?.weekly?.[weekday] ?? [];
    if (periods.length === 0) return null;
    const opens = Math.min(...periods.map(([start]) => seconds(start)));
    const closes = Math.max(
      ...periods.map(([start, end]) => seconds(end) + (seconds(end) <= seconds(start) ? 24 * 3600 : 0)),
    );
    return (named[1] === 'opens' ? opens : closes) + offset;
  }

  private hasDate(when: SetOfHours, date: string): boolean {
    const inCalendar = (id: string) =>
      found(this.plan.calendars, id).dates.some((entry) => {
        const [first, last] = typeof entry === 'string' ? [entry, entry] : entry;
        return first <= date && date <= last;
      });
    const within = (when.from ?? '') <= date && date <= (when.to ?? '9999');
    const ruled = within && (when.repeat === undefined || ruleHas(when.repeat, when.from ?? '', date));
    if (!(ruled || when.also?.includes(date)) || when.except?.includes(date)) return false;
    return (when.only?.some(inCalendar) ?? true) && !when.not?.some(inCalendar);
  }
}

function found<T extends { id: string }>(list: readonly T[], id: string): T {
  const one = list.find((entry) => entry.id === id);
  if (!one) throw new Error(`nothing is called ${id}`);
  return one;
}

const ruled = new Map<string, ReadonlySet<string>>();

function ruleHas(rule: string, from: string, date: string): boolean {
  const key = `${rule} ${from}`;
  let dates = ruled.get(key);
  if (!dates) {
    const dtstart = new Date(`${from}T00:00:00Z`);
    const all = new RRule({ ...RRule.parseString(rule), dtstart }).between(
      dtstart,
      new Date(dtstart.getTime() + 90 * DAY),
      true,
    );
    ruled.set(key, (dates = new Set(all.map((one) => one.toISOString().slice(0, 10)))));
  }
  return dates.has(date);
}

/** RFC 5545 section 3.3.5, by luxon: it reads a skipped time with the offset before the gap; of two readings, the first is taken. */
/** Whether a window with an end that is not after its start goes on to the next date: with the sun in it, from late to early alone. */
function overMidnight(start: string, end: string): boolean {
  if (!start.startsWith('sun') && !end.startsWith('sun')) return true;
  const isLate = /^(closes|sunset|1[2-9]|2\d)/.test(start);
  const isEarly = /^(opens|sunrise|0\d|1[01]|12:00(:00)?$)/.test(end);
  return isLate && isEarly;
}

/** Seconds after a date's midnight, as the clock of a site reads, at which the sun rises or sets; null where it lies nowhere. */
function sunOf({ location, timeZone: zone }: Site, date: string, name: 'sunrise' | 'sunset'): number | null {
  if (!location) return null;
  const on = (days: number) => {
    const noon = DateTime.fromISO(date, { zone }).plus({ days }).set({ hour: 12 });
    return getTimes(noon.toJSDate(), location.latitude, location.longitude);
  };
  const { solarNoon, nadir, alwaysUp, ...sun } = on(0);
  const stays = alwaysUp ? (name === 'sunrise' ? nadir : on(1).nadir) : solarNoon;
  const read = DateTime.fromMillis(Math.round((sun[name] ?? stays).getTime() / 60_000) * 60_000, { zone });
  const wall = DateTime.fromISO(read.toFormat("yyyy-MM-dd'T'HH:mm:ss"), { zone: 'utc' });
  return (wall.toMillis() - DateTime.fromISO(date, { zone: 'utc' }).toMillis()) / 1000;
}

function instantOf(date: string, seconds: number, zone: string): number {
  const wall = DateTime.fromISO(date, { zone: 'utc' }).plus({ seconds });
  const { year, month, day, hour, minute, second } = wall;
  const fields = { year, month, day, hour, minute, second };
  const read = DateTime.fromObject(fields, { zone });
  const earlier = [30, 60, 120].map((minutes) => read.minus({ minutes }));
  const same = earlier.filter((one) => one.toFormat('yyyy-MM-dd HH:mm:ss') === wall.toFormat('yyyy-MM-dd HH:mm:ss'));
  return Math.min(read.toMillis(), ...same.map((one) => one.toMillis()));
}

/** Section 4, by turning the text into an expression of its own. */
export function selects(selector: string, terms: ReadonlySet<string>): boolean {
  const words = selector.toLowerCase().match(/[()]|[^\s()]+/g) ?? [];
  const either = (): boolean => {
    let value = both();
    while (words[0] === 'or') {
      words.shift();
      value = both() || value;
    }
    return value;
  };
  const both = (): boolean => {
    let value = one();
    while (words[0] === 'and') {
      words.shift();
      value = one() && value;
    }
    return value;
  };
  const one = (): boolean => {
    const word = words.shift() ?? '';
    if (word === 'not') return !one();
    if (word !== '(') return word === 'all' || terms.has(word);
    const value = either();
    words.shift();
    return value;
  };
  return either();
}
