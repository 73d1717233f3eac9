import { knownContent } from '../../plan/contents';
import { orThrow } from '../../refusal';
import { formatInstant, type Instant } from '../../instant';
import { weaveWords } from '../../plan/say';
import type { Booking, Content, Plan, Site } from '../../plan/schema';
import { evaluate, selectorOf, type Selector } from '../../selector';
import {
  addDays,
  calendarDates,
  datesOf,
  followsHours,
  followsSun,
  parseDate,
  parseRule,
  ruleDates,
  setsOf,
  startOfDate,
  toInstant,
  localOccurrences,
  sunAt,
  writeRule,
  zoneTable,
  type LocalDate,
  type LocalTime,
  type LocalOccurrence,
  type Rule,
  type SetOfHours,
} from '../../when';
import { escapeText, fold } from './lines';
import { icalendarPriority } from './priority';
import { timezoneLines } from './timezone';

export interface CalendarOptions {
  /** The calendar's name (RFC 7986 section 5.1). */
  readonly name: string;
  /** Where bookings without a first date begin, and from where on opening hours are written out for a year. */
  readonly from: LocalDate;
  /** When it is written: DTSTAMP. */
  readonly stamp: Instant;
  /**
   * Site-clock bookings are written on this site's clock, and follow its opening hours and its sun. Without it they are floating
   * (section 3.3.5, form 1): the same hour in every zone, as they are; windows on opening hours or the sun are then left out.
   */
  readonly site?: Pick<Site, 'timeZone' | 'hours' | 'location'> | undefined;
}

const WRITTEN_OUT_DAYS = 366;

/**
 * Bookings as an iCalendar file (RFC 5545): an event for each window, that repeats as the booking does. What the standard has no
 * word for is in X-LANTERNPOST- properties; docs/plan-format.md lists them. Bookings that wait for a cue have no time by the clock: they are left out.
 */
export function writeCalendar(plan: Plan, bookings: readonly Booking[], options: CalendarOptions): string {
  const writer = new EventWriter(plan, options);
  const events = bookings.flatMap((booking) => (booking.cue === undefined ? writer.events(booking) : []));
  const zones = [...writer.zones].sort().flatMap((zone) => timezoneLines(zone, options.from));
  return [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Lanternpost//Plan//EN',
    'CALSCALE:GREGORIAN',
    `NAME:${escapeText(options.name)}`,
    ...zones,
    ...events,
    'END:VCALENDAR',
    '',
  ]
    .map(fold)
    .join('\r\n');
}

/** The fields of a set of hours that an event's recurrence can say; with any other its dates are written one by one. */
const SAID = new Set(['clock', 'from', 'to', 'repeat', 'also', 'except', 'only', 'not', 'windows']);

/** The dates on which an event recurs, as the standard writes them. `first` is an instance. */
interface Recurrence {
  readonly first: LocalDate;
  readonly rule: Rule | null;
  readonly added: readonly LocalDate[];
  readonly taken: readonly LocalDate[];
}

/** A window as its first date has it, and the dates on which it comes again. */
interface Written {
  readonly occurrence: LocalOccurrence;
  readonly recurrence: Recurrence;
}

class EventWriter {
  readonly zones = new Set<string>();
  private readonly sets: ReadonlyMap<string, ReadonlySet<LocalDate>>;

  constructor(
    private readonly plan: Plan,
    private readonly options: CalendarOptions,
  ) {
    this.sets = new Map(plan.calendars.map((one) => [one.id, calendarDates(one.dates)]));
  }

  events(booking: Booking): string[] {
    const groups = setsOf(booking.when).flatMap((set) => {
      const isSaid = Object.keys(set).every((field) => SAID.has(field));
      const found = isSaid && !followsHours(set) && !followsSun(set) ? this.recurring(set) : this.writtenOut(set);
      return found.map((one) => ({ ...one, set }));
    });
    return groups.flatMap(({ set, occurrence, recurrence }, i) => this.event(booking, set, occurrence, recurrence, i));
  }

  /** An event a window; all of them recur alike. */
  private recurring(set: SetOfHours): Written[] {
    const recurrence = this.recurrence(set);
    if (!recurrence) return [];
    // Calendars and exceptions may take the first date away: the window is read from the plain times.
    const plain = set.windows ? { windows: set.windows } : {};
    const day = localOccurrences(plain, this.place(), recurrence.first, recurrence.first);
    return day.filter((one) => one.date === recurrence.first).map((occurrence) => ({ occurrence, recurrence }));
  }

  /** Windows that follow opening hours or the sun, and dates that no recurrence says: an event for each pair of times, with its dates of a year. */
  private writtenOut(set: SetOfHours): Written[] {
    const { from, site } = this.options;
    const until = addDays(from, WRITTEN_OUT_DAYS);
    const sun = site?.location && sunAt(site.location, zoneTable(site.timeZone));
    const found = localOccurrences(set, { ...this.place(), hours: site?.hours, sun }, from, until);
    const groups = new Map<string, LocalOccurrence[]>();
    for (const one of found) {
      if (one.date < from || one.date >= until) continue;
      const times = `${one.window} ${one.start - startOfDate(one.date)} ${one.end - startOfDate(one.date)}`;
      groups.set(times, [...(groups.get(times) ?? []), one]);
    }
    return [...groups.values()].flatMap(([occurrence, ...rest]) =>
      occurrence
        ? [
            {
              occurrence,
              recurrence: { first: occurrence.date, rule: null, added: rest.map((one) => one.date), taken: [] },
            },
          ]
        : [],
    );
  }

  private recurrence(when: SetOfHours): Recurrence | null {
    const { from } = this.options;
    const parse = (text: string) => parseDate(text) as LocalDate;
    // What began before and is still on is written too.
    const longest = Math.max(0, ...(when.windows ?? []).map(([, , days = 0]) => days));
    const begin = when.from === undefined ? addDays(from, -longest) : parse(when.from);
    const to = when.to === undefined ? null : parse(when.to);
    const also = (when.also ?? []).map(parse);
    const rule = this.boundedRule(when.repeat, begin, to);
    if (when.only !== undefined) {
      // A calendar has an end: its dates are written one by one.
      const dates = [...new Set(when.only.flatMap((id) => [...(this.sets.get(id) ?? [])]))].sort((a, b) => a - b);
      const [low, high] = [dates[0], dates.at(-1)];
      const held = low === undefined || high === undefined ? [] : datesOf(when, this.place(), low, high);
      const [first, ...added] = held;
      return first === undefined ? null : { first, rule: null, added, taken: [] };
    }
    const last = to ?? addDays(begin, SEARCH_DAYS);
    const [generated] = rule ? ruleDates(rule, begin, begin, last) : begin <= last ? [begin] : [];
    const isGenerated = (date: LocalDate) =>
      generated !== undefined &&
      date >= begin &&
      (to === null || date <= to) &&
      (!rule || ruleDates(rule, begin, date, date).length > 0);
    const added = also.filter((date) => !isGenerated(date));
    const kept = [...(when.not ?? [])].flatMap((id) => [...(this.sets.get(id) ?? [])]);
    const taken = [...new Set([...(when.except ?? []).map(parse), ...kept])].sort((a, b) => a - b);
    const present = (date: LocalDate) => isGenerated(date) || also.includes(date);
    if (generated === undefined) {
      const [first, ...rest] = added.filter((date) => !taken.includes(date)).sort((a, b) => a - b);
      return first === undefined ? null : { first, rule: null, added: rest, taken: [] };
    }
    return { first: generated, rule, added, taken: taken.filter(present) };
  }

  /** The rule with `to` as its end; daily where there is none and more than one date, null for a single date. */
  private boundedRule(repeat: string | undefined, begin: LocalDate, to: LocalDate | null): Rule | null {
    if (repeat === undefined) {
      if (to === begin) return null;
      return { freq: 'DAILY', interval: 1, weekStart: 0, ...(to === null ? {} : { until: to }) };
    }
    const rule = orThrow(parseRule(repeat));
    if (to === null) return rule;
    if (rule.count === undefined) return { ...rule, until: Math.min(rule.until ?? Infinity, to) as LocalDate };
    // COUNT and UNTIL exclude each other: as many as there are up to the last date.
    return { ...rule, count: Math.max(1, ruleDates(rule, begin, begin, to).length) };
  }

  private place() {
    return { calendar: (id: string) => this.sets.get(id) ?? new Set<LocalDate>() };
  }

  private event(
    booking: Booking,
    { clock }: SetOfHours,
    occurrence: LocalOccurrence,
    recurrence: Recurrence,
    n: number,
  ): string[] {
    const pinned = clock !== undefined && clock !== 'site' ? clock : null;
    const zone = pinned ?? this.options.site?.timeZone ?? null;
    const { first, rule, added, taken } = recurrence;
    const [begin, end] = [
      occurrence.start - startOfDate(occurrence.date),
      occurrence.end - startOfDate(occurrence.date),
    ];
    const wholeDay = pinned === null && begin === 0 && end === 86_400_000;
    const time = (date: LocalDate, offset: number) => {
      const wall = (startOfDate(date) + offset) as LocalTime;
      return wholeDay ? compactDate(wall) : compactTime(wall);
    };
    const parameter = wholeDay ? ';VALUE=DATE' : zone === null ? '' : `;TZID=${zone}`;
    if (!wholeDay && zone !== null) this.zones.add(zone);
    const list = (name: string, dates: readonly LocalDate[]) =>
      dates.length === 0 ? [] : [`${name}${parameter}:${dates.map((date) => time(date, begin)).join(',')}`];
    const uid = `${booking.id}-${n}@lanternpost`;
    return [
      'BEGIN:VEVENT',
      `UID:${uid}`,
      `DTSTAMP:${formatInstant(this.options.stamp).replace(/[-:]|\.\d+/g, '')}`,
      `SUMMARY:${escapeText(booking.name)}`,
      `DTSTART${parameter}:${time(first, begin)}`,
      `DTEND${parameter}:${time(first, end)}`,
      ...(rule ? [`RRULE:${ruleText(rule, wholeDay, zone, begin)}`] : []),
      // Some readers ignore DTSTART if there are dates alone. So it is written twice, which counts once (section 3.8.5.2).
      ...list('RDATE', rule || added.length === 0 ? added : [first, ...added]),
      ...list('EXDATE', taken),
      ...(n > 0 ? [`RELATED-TO;RELTYPE=SIBLING:${booking.id}-0@lanternpost`] : []),
      ...categories(selectorOf(booking.where)),
      `PRIORITY:${icalendarPriority(booking.priority)}`,
      `STATUS:${booking.onHold ? 'TENTATIVE' : 'CONFIRMED'}`,
      'TRANSP:TRANSPARENT',
      `X-LANTERNPOST-WHERE:${escapeText(booking.where)}`,
      `X-LANTERNPOST-CONTENT:${escapeText(contentText(booking.content))}`,
      ...(booking.weave ? [`X-LANTERNPOST-WEAVE:${weaveWords(booking.weave)}`] : []),
      ...(booking.takeover ? [`X-LANTERNPOST-TAKEOVER:${booking.wake ? 'WAKE' : 'TRUE'}`] : []),
      ...(pinned === null ? ['X-LANTERNPOST-CLOCK:SITE'] : []),
      'END:VEVENT',
    ];
  }
}

/** Further than two dates of any useful rule lie apart. */
const SEARCH_DAYS = 366 * 9;

const compactDate = (wall: LocalTime) => formatInstant(wall).slice(0, 10).replaceAll('-', '');
const compactTime = (wall: LocalTime) => formatInstant(wall).slice(0, 19).replace(/[-:]/g, '');

/** Section 3.3.10: UNTIL has the type of DTSTART, and is in UTC where that has a zone. */
function ruleText(rule: Rule, wholeDay: boolean, zone: string | null, begin: number): string {
  const { until, ...rest } = rule;
  if (until === undefined) return writeRule(rule);
  const wall = (startOfDate(until) + begin) as LocalTime;
  const end = wholeDay
    ? compactDate(wall)
    : zone === null
      ? compactTime(wall)
      : `${compactTime(toInstant(zoneTable(zone), wall) as number as LocalTime)}Z`;
  return `${writeRule(rest)};UNTIL=${end}`;
}

/** The tags that a selector asks for, at any depth. */
function categories(selector: Selector): string[] {
  const tags = evaluate<string[]>(selector, {
    all: () => [],
    term: (term) => (term.includes(':') ? [] : [term]),
    not: () => [],
    and: (left, right) => [...left, ...right],
    or: (left, right) => [...left, ...right],
  });
  return tags.length === 0 ? [] : [`CATEGORIES:${[...new Set(tags)].map(escapeText).join(',')}`];
}

/** `playlist:house`, or `media:flag` with `;12000` for its milliseconds. */
export function contentText(content: Content): string {
  const { kind, id, durationMs } = knownContent(content);
  return `${kind}:${id}${durationMs === undefined ? '' : `;${durationMs}`}`;
}
