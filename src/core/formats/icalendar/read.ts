import ICAL from 'ical.js';
import { DAY } from '../../instant';
import { contentFrom, isContentKind } from '../../plan/contents';
import { MOST_OF_NAME } from '../../plan/fields';
import type { Content } from '../../plan/schema';
import { readWeave } from '../../plan/weave';
import { Refusal } from '../../refusal';
import { isTag, parseSelector } from '../../selector';
import { isSeen, lineOf as oneLine } from '../../text';
import {
  addDays,
  dateOfLocalTime,
  formatDate,
  isZone,
  parseRule,
  ruleDates,
  startOfDate,
  toInstant,
  toLocalTime,
  writeRule,
  zoneTable,
  type LocalDate,
  type LocalTime,
  type SetOfHours,
} from '../../when';
import type { CalendarEvent, LineProblem, RawEvent } from './event';
import { componentsOf, namesFalseTime, unescapeText, unfold, type Block } from './lines';
import { planPriority } from './priority';
import { joinSiblings, spread, withInstances } from './spread';

/** Events of one file, and single dates of one event, at most: more is a mistake, or meant as harm. */
const MOST_EVENTS = 5000;
const MOST_DATES = 4000;

export interface CalendarFile {
  readonly events: readonly CalendarEvent[];
  readonly problems: readonly LineProblem[];
}

/**
 * Reads an iCalendar file (RFC 5545): events with recurrences, all-day events, foreign zones, and single instances that were
 * changed or cancelled (RECURRENCE-ID). An event that can't be taken over whole is left out and told, by line; the rest is read.
 * `progress` hears the share that is read, 0 to 1.
 */
export function readCalendar(file: string, progress: (share: number) => void = () => {}): CalendarFile {
  const found = componentsOf(unfold(file));
  if ('message' in found) return { events: [], problems: [found] };
  const problems: LineProblem[] = [];
  const spare = found.filter((block) => block.name === 'VEVENT').slice(MOST_EVENTS);
  const [first] = spare;
  if (first)
    problems.push({
      line: firstLine(first),
      message: `The file has more than ${MOST_EVENTS} events. The rest is left out.`,
    });
  const left = new Set(spare);
  const blocks = found.filter((block) => !left.has(block));
  const zones = new Zones(blocks.filter((block) => block.name === 'VTIMEZONE'));
  const written = blocks.filter((block) => block.name === 'VEVENT');
  const read = written.flatMap((block, i) => {
    progress(i / written.length);
    try {
      return [readEvent(block, zones)];
    } catch (error) {
      const {
        message,
        problems: [at],
      } = error instanceof Refusal ? error : unreadable(firstLine(block), sentenceOf(error));
      problems.push({ line: Number(at?.path.slice(1)), message });
      return [];
    }
  });
  if (written.length === 0) problems.push({ line: 1, message: 'The file has no events.' });
  const events = joinSiblings(withInstances(read, problems));
  return { events: events.flatMap((one) => spread(one, problems)), problems: problems.sort((a, b) => a.line - b.line) };
}

/** What can't be taken over of an event, and where: its path is the line. */
const unreadable = (line: number, message: string) => new Refusal(422, message, [{ path: `/${line}`, message }]);

const sentenceOf = (error: unknown) =>
  `This event can’t be read (${error instanceof Error ? error.message : String(error)}), so it is left out.`;

const firstLine = (block: Block) => block.lines[0]?.line ?? 1;

function readEvent(block: Block, zones: Zones): RawEvent {
  const unreal = block.lines.find((one) => namesFalseTime(one.text));
  if (unreal) throw unreadable(unreal.line, 'This time doesn’t exist, so the event is left out.');
  const text = block.lines.map((one) => one.text).join('\r\n');
  const event = new ICAL.Component(ICAL.parse(text) as unknown[]);
  const lineOf = (name: string) =>
    block.lines.find((one) => new RegExp(`^${name}[;:]`, 'i').test(one.text))?.line ?? firstLine(block);
  const value = (name: string) => event.getFirstPropertyValue(name);
  const plain = (name: string) => {
    const found = value(name);
    return found === null || found === undefined ? null : String(found);
  };
  const begins = event.getFirstProperty('dtstart');
  if (!begins) throw unreadable(firstLine(block), 'This event has no DTSTART, so it is left out.');
  const clock = zones.clockOf(begins, lineOf('DTSTART'));
  const start = wallOf(begins.getFirstValue() as ICAL.Time, lineOf('DTSTART'));
  const end = endOf(event, start, clock, zones, lineOf);
  if (end <= start)
    throw unreadable(
      lineOf('DTEND'),
      'This event has no duration, so it is left out. Give it an end (DTEND or DURATION).',
    );
  const onClock = (property: ICAL.Property, one: ICAL.Time, line = lineOf(property.name.toUpperCase())) => {
    const own = zones.clockOf(property, line, one);
    const wall = wallOf(one, line);
    return own === null || clock === null || own === clock || one.isDate
      ? wall
      : toLocalTime(zoneTable(clock), toInstant(zoneTable(own), wall));
  };
  const timeOfDay = start - startOfDate(dateOfLocalTime(start));
  const also: LocalDate[] = [];
  const others: { start: LocalTime; end: LocalTime }[] = [];
  for (const name of ['rdate', 'exdate']) {
    const count = event.getAllProperties(name).reduce((sum, property) => sum + property.getValues().length, 0);
    if (count > MOST_DATES)
      throw unreadable(
        lineOf(name.toUpperCase()),
        `This event has more than ${MOST_DATES} single dates (${name.toUpperCase()}), so it is left out. Make it a calendar of dates.`,
      );
  }
  for (const property of event.getAllProperties('rdate')) {
    const line = lineOf('RDATE');
    for (const one of property.getValues() as (ICAL.Time | ICAL.Period)[]) {
      const period = one instanceof ICAL.Period ? one : null;
      const begin = onClock(property, period ? period.start : (one as ICAL.Time), line);
      const length = period ? period.getDuration().toSeconds() * 1000 : end - start;
      const date = dateOfLocalTime(begin);
      if (begin - startOfDate(date) === timeOfDay && length === end - start) also.push(date);
      else others.push({ start: begin, end: (begin + length) as LocalTime });
    }
  }
  const except = event.getAllProperties('exdate').flatMap((property) => {
    const line = lineOf('EXDATE');
    return (property.getValues() as ICAL.Time[]).map((one) => dateOfLocalTime(onClock(property, one, line)));
  });
  const related = event.getAllProperties('related-to').find((one) => one.getParameter('reltype') === 'SIBLING');
  const instance = event.getFirstProperty('recurrence-id');
  if (instance?.getParameter('range'))
    throw unreadable(
      lineOf('RECURRENCE-ID'),
      'A change of this and all later instances can’t be read, so it is left out.',
    );
  /** The value of a property that the reader does not know is as it is written. */
  const own = (name: string) => unescapeText(plain(`x-lanternpost-${name}`) ?? '') || null;
  const where = own('where');
  const siteClock = own('clock')?.toUpperCase() === 'SITE';
  const takeover = own('takeover')?.toUpperCase();
  const weave = takeover === undefined ? readWeave(own('weave') ?? '') : null;
  return {
    line: firstLine(block),
    uid: plain('uid') ?? `line-${firstLine(block)}`,
    sibling: related ? String(related.getFirstValue()) : null,
    cancelled: plain('status')?.toUpperCase() === 'CANCELLED',
    instance: instance ? dateOfLocalTime(onClock(instance, instance.getFirstValue() as ICAL.Time)) : null,
    clock: siteClock ? null : clock,
    start,
    end,
    summary: nameOf(plain('summary')),
    priority: planPriority(Number(plain('priority') ?? 0)),
    tags: event
      .getAllProperties('categories')
      .flatMap((one) => one.getValues().map((tag) => String(tag).trim().toLowerCase().replace(/\s+/g, '-')))
      .filter(isTag),
    where: where !== null && parseSelector(where).ok ? where : null,
    content: contentIn(own('content')),
    takeover: takeover !== undefined,
    wake: takeover === 'WAKE',
    ...(weave?.ok && weave.value ? { weave: weave.value } : {}),
    onHold: plain('status')?.toUpperCase() === 'TENTATIVE',
    when: dated(event, start, clock, also, except, lineOf),
    others,
  };
}

function nameOf(summary: string | null): string {
  const name = oneLine(summary ?? '', MOST_OF_NAME);
  return isSeen(name) ? name : 'Untitled event';
}

/** The dates of an event, without its times. */
function dated(
  event: ICAL.Component,
  start: LocalTime,
  clock: string | null,
  also: readonly LocalDate[],
  except: readonly LocalDate[],
  lineOf: (name: string) => number,
): SetOfHours {
  const first = dateOfLocalTime(start);
  const rules = event.getAllProperties('rrule');
  if (rules.length > 1) throw unreadable(lineOf('RRULE'), 'An event with two rules can’t be read, so it is left out.');
  if (event.getFirstProperty('exrule'))
    throw unreadable(
      lineOf('EXRULE'),
      'EXRULE is no longer part of the standard, so the event is left out. Write its dates as EXDATE.',
    );
  const lists = (dates: readonly LocalDate[], key: 'also' | 'except') =>
    dates.length > 0 ? { [key]: [...new Set(dates)].sort((a, b) => a - b).map(formatDate) } : {};
  const day = formatDate(first);
  const [property] = rules;
  if (!property)
    return {
      from: day,
      to: day,
      ...lists(
        also.filter((date) => date !== first),
        'also',
      ),
      ...lists(except, 'except'),
    };
  const written = String(property.getFirstValue());
  const rule = parseRule(written.replace(/;?UNTIL=[^;]*/i, '').replace(/^;/, ''));
  if (!rule.ok) throw unreadable(lineOf('RRULE'), `${rule.message} The event is left out.`);
  const until = untilOf((property.getFirstValue() as ICAL.Recur).until, start, clock);
  const whole = { ...rule.value, ...(until === null ? {} : { until }) };
  // Section 3.8.5.3: the first instance counts whatever the rule generates.
  const generated = ruleDates(whole, first, first, first).length > 0;
  return {
    from: day,
    repeat: writeRule(whole),
    ...lists(generated ? also : [...also, first], 'also'),
    ...lists(except, 'except'),
  };
}

/** The last date that UNTIL lets in: where it is a time, an instance must begin by then. */
function untilOf(until: ICAL.Time | null, start: LocalTime, clock: string | null): LocalDate | null {
  if (!until) return null;
  const wall = wallOf(until, 0);
  if (until.isDate) return dateOfLocalTime(wall);
  const own = until.zone === ICAL.Timezone.utcTimezone && clock !== null ? toLocalTime(zoneTable(clock), wall) : wall;
  const date = dateOfLocalTime(own);
  const timeOfDay = start - startOfDate(dateOfLocalTime(start));
  return own - startOfDate(date) >= timeOfDay ? date : addDays(date, -1);
}

/** What a time's own clock reads. */
function wallOf(time: ICAL.Time, line: number): LocalTime {
  const { year, month, day, hour, minute, second } = time;
  const wall = Date.UTC(year, month - 1, day, hour, minute, second);
  if (Number.isNaN(wall)) throw unreadable(line, 'This time doesn’t exist, so the event is left out.');
  return wall as LocalTime;
}

function endOf(
  event: ICAL.Component,
  start: LocalTime,
  clock: string | null,
  zones: Zones,
  lineOf: (name: string) => number,
): LocalTime {
  const ends = event.getFirstProperty('dtend');
  if (ends) {
    const own = zones.clockOf(ends, lineOf('DTEND'));
    const wall = wallOf(ends.getFirstValue() as ICAL.Time, lineOf('DTEND'));
    if (own === null || clock === null || own === clock) return wall;
    return toLocalTime(zoneTable(clock), toInstant(zoneTable(own), wall));
  }
  const duration = event.getFirstPropertyValue('duration') as ICAL.Duration | null;
  if (duration) return (start + duration.toSeconds() * 1000) as LocalTime;
  // Section 3.6.1: a date alone lasts that day, a time alone no time.
  const isDate = (event.getFirstPropertyValue('dtstart') as ICAL.Time).isDate;
  return (isDate ? start + DAY : start) as LocalTime;
}

/** Zones as the file names them. */
class Zones {
  private readonly known = new Map<string, string | null>();

  constructor(private readonly definitions: readonly Block[]) {}

  /** The IANA zone of a property's time, null for a floating one or a date. Throws Refusal for a zone that can't be told. */
  clockOf(property: ICAL.Property, line: number, time?: ICAL.Time): string | null {
    const one = time ?? (property.getFirstValue() as ICAL.Time);
    if (one.isDate) return null;
    if (one.zone === ICAL.Timezone.utcTimezone) return 'UTC';
    const name = property.getParameter('tzid') as string | undefined;
    if (!name) return null;
    if (!this.known.has(name)) this.known.set(name, this.find(name));
    const zone = this.known.get(name);
    if (!zone)
      throw unreadable(
        line,
        `The time zone “${name}” is unknown and not defined in the file, so the event is left out.`,
      );
    return zone;
  }

  private find(name: string): string | null {
    const own = name.replace(/^\//, '');
    if (isZone(own)) return own;
    const block = this.definitions.find((one) => one.lines.some(({ text }) => text.trim() === `TZID:${name}`));
    if (!block) return null;
    const component = new ICAL.Component(ICAL.parse(block.lines.map((one) => one.text).join('\r\n')) as unknown[]);
    const told = String(component.getFirstPropertyValue('x-lic-location') ?? '');
    if (isZone(told)) return told;
    return zoneLike(new ICAL.Timezone({ component, tzid: name }));
  }
}

const COMPARED_YEARS = [2024, 2025, 2026, 2027, 2028];

/** An IANA zone whose clocks read the same as a definition's on every first of a month of some years. */
function zoneLike(definition: ICAL.Timezone): string | null {
  const days = COMPARED_YEARS.flatMap((year) => Array.from({ length: 12 }, (_, month) => ({ year, month: month + 1 })));
  const offsets = days.map(({ year, month }) =>
    definition.utcOffset(
      new ICAL.Time(
        { year, month, day: 1, hour: 12, minute: 0, second: 0, isDate: false },
        ICAL.Timezone.localTimezone,
      ),
    ),
  );
  const fits = (zone: string) => {
    const table = zoneTable(zone);
    return days.every(({ year, month }, i) => {
      const wall = Date.UTC(year, month - 1, 1, 12) as LocalTime;
      return wall - toInstant(table, wall) === (offsets[i] ?? 0) * 1000;
    });
  };
  return Intl.supportedValuesOf('timeZone').find(fits) ?? null;
}

function contentIn(text: string | null): Content | null {
  const match = /^([a-z]+):([a-z0-9][a-z0-9_-]*)(?:;(\d+))?$/.exec(text ?? '');
  const [, kind = '', id = '', durationMs] = match ?? [];
  if (!isContentKind(kind)) return null;
  return contentFrom({ kind, id, durationMs: durationMs ? Number(durationMs) : undefined });
}
