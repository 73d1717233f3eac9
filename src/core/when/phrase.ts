import { done, misread, type Result } from '../refusal';
import type { When } from './schema';
import { WEEKDAYS, addDays, civil, dateOf, daysInMonth, formatDate, parseDate, type LocalDate } from './dates';
import { parseRule } from './rule';
import { parseEdge } from './windows';
import { isZone } from './zone';

/** What a phrase is read against: what "today" is, and the names that it may call. */
export interface PhraseContext {
  readonly today: LocalDate;
  readonly calendars: readonly { readonly id: string; readonly name: string }[];
  /** IANA zones that may be called by their last name, as "Oslo time". */
  readonly zones?: readonly string[];
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const MONTH =
  '(jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)\\b';
const DAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
export const DAY =
  '(?:mon(?:day)?|tue(?:s(?:day)?)?|wed(?:nesday)?|thu(?:r(?:s(?:day)?)?)?|fri(?:day)?|sat(?:urday)?|sun(?:day)?)s?\\b';
const TO = '\\s*(?:–|—|-|\\bto\\b|\\buntil\\b|\\btill\\b)\\s*';
export const EDGE =
  '(?:(?:opens|opening|closes|closing)(?:\\s*[+-]\\s*\\d{1,2}:\\d{2}(?::\\d{2})?)?|noon|midnight|\\d{1,2}(?:[:.]\\d{2}(?::\\d{2})?)?\\s*(?:am|pm)\\b|\\d{1,2}[:.]\\d{2}(?::\\d{2})?)';
const HOUR = `(?:${EDGE}|\\d{1,2}(?![\\d:.]|\\s*(?:st|nd|rd|th)\\b)(?!\\s+${MONTH}))`;
const NTH: Record<string, number> = {
  first: 1,
  '1st': 1,
  second: 2,
  '2nd': 2,
  third: 3,
  '3rd': 3,
  fourth: 4,
  '4th': 4,
  fifth: 5,
  '5th': 5,
  last: -1,
};
const NTH_WORD = `(?:${Object.keys(NTH).join('|')})`;

/** Collects what the clauses say; a phrase becomes a `When` only as a whole. */
interface Draft {
  from?: LocalDate;
  to?: LocalDate;
  days: Set<number>;
  everyWeeks: number;
  months: number[];
  rule?: string;
  also: string[];
  except: string[];
  only: string[];
  not: string[];
  windows: [string, string][];
  clock?: string;
}

/**
 * Reads a time as one says it: "weekdays 05:30–10:00 until 28 Feb, not on storm-days". Reads all that `describeWhen` writes.
 * A date without a year is the next one. Refuses what it does not understand.
 */
export function readWhen(text: string, context: PhraseContext): Result<When> {
  const draft: Draft = {
    days: new Set(),
    everyWeeks: 1,
    months: [],
    also: [],
    except: [],
    only: [],
    not: [],
    windows: [],
  };
  if (text.length > LONGEST) return misread(`A time is said in at most ${LONGEST} characters: say less of it here.`);
  const reader = new Reader(text, context);
  for (;;) {
    reader.skip(/(?:[\s,;]|\band\b|\bbut\b)+/);
    if (reader.done) break;
    const clause = CLAUSES.some((read) => read(reader, draft));
    if (!clause) return misread(`"${reader.rest()}" is not understood: write it as ${EXAMPLE}.`, reader.at);
    if (reader.error) return misread(reader.error, reader.at);
  }
  return finish(draft, context);
}

/** Enough for every date that a booking may name; what is longer is no time. */
const LONGEST = 60_000;
const EXAMPLE = '"weekdays 05:30–10:00, 1 Dec to 28 Feb, not on storm-days"';

export class Reader {
  at = 0;
  error: string | null = null;
  constructor(
    private readonly text: string,
    readonly context: PhraseContext,
  ) {}

  get done(): boolean {
    return this.at >= this.text.length;
  }

  rest(): string {
    const rest = this.text.slice(this.at);
    return rest.length > 40 ? `${rest.slice(0, 40)}…` : rest;
  }

  skip(pattern: RegExp): void {
    this.take(pattern.source);
  }

  /** Takes a pattern that stands here, whatever its case. */
  take(pattern: string): RegExpExecArray | null {
    const regex = new RegExp(pattern, 'iyu');
    regex.lastIndex = this.at;
    const match = regex.exec(this.text);
    if (!match) return null;
    this.at = regex.lastIndex;
    return match;
  }

  /** Tries a reading; what it took is given back where it fails. */
  attempt<T>(read: () => T | null): T | null {
    const before = this.at;
    const result = read();
    if (result === null) this.at = before;
    return result;
  }

  /** A date; without a year the first on or after `near`. */
  date(near: LocalDate = this.context.today): LocalDate | null {
    const { today } = this.context;
    if (this.take('today\\b')) return today;
    if (this.take('tomorrow\\b')) return addDays(today, 1);
    return this.attempt(() => {
      const iso = this.take('\\d{4}-\\d{2}-\\d{2}\\b');
      if (iso) return this.checked(parseDate(iso[0]), iso[0]);
      const dayFirst = this.take(`(\\d{1,2})(?:st|nd|rd|th)?\\.?\\s*(?:of\\s+)?${MONTH}\\.?(?:\\s+(\\d{4})\\b)?`);
      if (dayFirst) return this.civilDate(dayFirst[1], dayFirst[2], dayFirst[3], near, dayFirst[0]);
      const monthFirst = this.take(`${MONTH}\\.?\\s+(\\d{1,2})(?:st|nd|rd|th)?\\b(?!:)(?:,?\\s+(\\d{4})\\b)?`);
      if (monthFirst) return this.civilDate(monthFirst[2], monthFirst[1], monthFirst[3], near, monthFirst[0]);
      return null;
    });
  }

  private civilDate(
    day: string | undefined,
    monthName: string | undefined,
    year: string | undefined,
    near: LocalDate,
    written: string,
  ): LocalDate | null {
    const month = monthNumber(monthName ?? '');
    const make = (y: number) =>
      Number(day) >= 1 && Number(day) <= daysInMonth(y, month) ? dateOf(y, month, Number(day)) : null;
    if (year) return this.checked(make(Number(year)), written);
    const start = civil(near).year;
    // 29 February comes at most eight years later.
    for (let y = start; y < start + 9; y++) {
      const found = make(y);
      if (found !== null && found >= near) return found;
    }
    return this.checked(null, written);
  }

  private checked(date: LocalDate | null, written: string): LocalDate | null {
    if (date === null) this.error = `There is no ${written}: write a date that exists.`;
    return date ?? (0 as LocalDate);
  }

  /** One or more of something, with commas and "and" between. */
  list<T>(read: () => T | null): T[] {
    const found: T[] = [];
    for (
      let one = read();
      one !== null;
      one = this.attempt(() => (this.take('\\s*(?:,\\s*(?:and\\b)?|\\band\\b|\\s)\\s*') ? read() : null))
    )
      found.push(one);
    return found;
  }

  /** A calendar by its id or its name: the longest that stands here. */
  calendar(): string | null {
    const names = this.context.calendars
      .flatMap(
        ({ id, name }) =>
          [
            [id, id],
            [name, id],
          ] as const,
      )
      .sort((a, b) => b[0].length - a[0].length);
    for (const [name, id] of names)
      if (this.take(`(?:the\\s+)?${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\p{L}\\p{Nd}_-])`)) return id;
    return null;
  }
}

const monthNumber = (name: string) => MONTHS.indexOf(name.slice(0, 3).toLowerCase()) + 1;
export const weekdayNumber = (name: string) => DAYS.indexOf(name.slice(0, 3).toLowerCase());

/** Time of day as a window's edge; null where it is none. */
export function edgeOf(written: string, end: boolean): string | null {
  const text = written.toLowerCase().replace(/\s+/g, '').replace('opening', 'opens').replace('closing', 'closes');
  if (text === 'noon') return '12:00';
  if (text === 'midnight') return end ? '24:00' : '00:00';
  const named = /^(opens|closes)(?:([+-])(\d{1,2}):(.+))?$/.exec(text);
  if (named) {
    const edge = named[2]
      ? `${named[1] ?? ''}${named[2]}${(named[3] ?? '').padStart(2, '0')}:${named[4] ?? ''}`
      : (named[1] ?? '');
    return parseEdge(edge, end) ? edge : null;
  }
  const match = /^(\d{1,2})(?:[:.](\d{2}))?(?::(\d{2}))?(am|pm)?$/.exec(text);
  if (!match) return null;
  let hour = Number(match[1]);
  if (match[4]) {
    if (hour < 1 || hour > 12) return null;
    hour = (hour % 12) + (match[4].toLowerCase() === 'pm' ? 12 : 0);
  }
  const edge = `${String(hour).padStart(2, '0')}:${match[2] ?? '00'}${match[3] ? `:${match[3]}` : ''}`;
  return parseEdge(edge, end) ? edge : null;
}

type Clause = (reader: Reader, draft: Draft) => boolean;

const always: Clause = (reader) =>
  reader.take('(?:always|all the time|all day(?: long)?|daily|(?:every|each)\\s*day)\\b') !== null;

/** Weekdays, alone or every so many weeks. */
const weekdays: Clause = (reader, draft) =>
  reader.attempt(() => {
    const every = reader.take(
      'every\\s+(?:(\\d{1,2})|other|second)\\s*(?:weeks?\\b)?\\s*(?:on\\s+)?(?=(?:the\\s+)?[a-z])',
    );
    if (!every) reader.take('(?:on|every|each)\\s+');
    const days = reader.list(() => {
      if (reader.take('(?:weekdays|workdays|working days)\\b')) return [0, 1, 2, 3, 4];
      if (reader.take('weekends?\\b')) return [5, 6];
      const day = reader.take(DAY);
      if (!day) return null;
      const last = reader.attempt(() => (reader.take(TO) ? reader.take(DAY) : null));
      const first = weekdayNumber(day[0]);
      const count = last ? (weekdayNumber(last[0]) - first + 7) % 7 : 0;
      return Array.from({ length: count + 1 }, (_, i) => (first + i) % 7);
    });
    if (days.length === 0) return null;
    if (every) draft.everyWeeks = every[1] ? Number(every[1]) : 2;
    for (const day of days.flat()) draft.days.add(day);
    return true;
  }) ?? false;

/** Days of a month, in order or by number; and every so many days. */
const monthly: Clause = (reader, draft) =>
  reader.attempt(() => {
    const step = reader.take('every\\s+(\\d{1,3})\\s+days\\b');
    if (step) {
      draft.rule = `FREQ=DAILY;INTERVAL=${step[1] ?? '1'}`;
      return true;
    }
    reader.take('(?:monthly\\s+)?(?:on\\s+)?(?:the\\s+)?');
    const ofMonth = '\\s+of\\s+(?:the|every|each|a)\\s+month\\b';
    const byWeekday = reader.attempt(() => {
      const nth = reader.list(() => reader.take(`${NTH_WORD}(?=\\s+(?:${DAY}|and\\b)|,)`));
      const day = nth.length > 0 && reader.take(`\\s+${DAY}`);
      if (!day || !reader.take(ofMonth)) return null;
      const code = WEEKDAYS[weekdayNumber(day[0].trim())] ?? 'MO';
      return nth.map((word) => `${NTH[word[0].toLowerCase()] ?? 1}${code}`).join();
    });
    if (byWeekday !== null) {
      draft.rule = `FREQ=MONTHLY;BYDAY=${byWeekday}`;
      return true;
    }
    if (reader.take(`last day${ofMonth}`)) draft.rule = 'FREQ=MONTHLY;BYMONTHDAY=-1';
    else {
      const numbers = reader.list(() => reader.take('(?:the\\s+)?(\\d{1,2})(?:st|nd|rd|th)\\b'));
      if (numbers.length === 0 || !reader.take(ofMonth)) return null;
      draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${numbers.map((one) => one[1]).join()}`;
    }
    return true;
  }) ?? false;

const byRule: Clause = (reader, draft) =>
  reader.attempt(() => {
    const written = reader.take('by the rule\\s+(\\S+)')?.[1] ?? '';
    let end = written.length;
    while (end > 0 && ',;'.includes(written[end - 1] ?? '')) end--;
    if (end === 0) return null;
    draft.rule = written.slice(0, end);
    return true;
  }) ?? false;

const inMonths: Clause = (reader, draft) =>
  reader.attempt(() => {
    if (!reader.take('in\\s+')) return null;
    const months = reader.list(() => reader.take(MONTH));
    draft.months = months.map((match) => monthNumber(match[0]));
    return months.length > 0 || null;
  }) ?? false;

/** Times of day, from one edge to another, or up to or from one. */
const windows: Clause = (reader, draft) =>
  reader.attempt(() => {
    const word = reader.take('(?:from|between|at)\\s+')?.[0].trim().toLowerCase();
    const start = reader.take(HOUR);
    const to = start && (reader.take(TO) ?? (word === 'between' ? reader.take('\\s+and\\s+') : null));
    const end = to && reader.take(HOUR);
    if (!start || !end) return null;
    const either = [start[0], end[0]].some((one) => !/^\d+$/.test(one.trim())) || Number(end[0]) <= 24;
    return either ? addWindow(reader, draft, withHalf(start[0], end[0]), end[0]) : null;
  }) ??
  reader.attempt(() => {
    const open = reader.take('(from|after|until|till|before)\\s+');
    const edge = open && reader.take(EDGE);
    if (!open || !edge) return null;
    const starts = /^(from|after)/i.test(open[0]);
    return starts ? addWindow(reader, draft, edge[0], '24:00') : addWindow(reader, draft, '00:00', edge[0]);
  }) ??
  false;

/** "6 to 10 pm" begins in the evening too, "10 to 2 pm" does not. */
function withHalf(start: string, end: string): string {
  const half = /(am|pm)\s*$/i.exec(end)?.[1];
  if (!half || !/^\d{1,2}([:.]\d{2})?$/.test(start.trim())) return start;
  const same = `${start.trim()}${half}`;
  const [a, b] = [edgeOf(same, false), edgeOf(end, true)];
  return a && b && a < b ? same : `${start.trim()}${half.toLowerCase() === 'pm' ? 'am' : 'pm'}`;
}

function addWindow(reader: Reader, draft: Draft, start: string, end: string): true {
  const [first, last] = [edgeOf(start, false), edgeOf(end, true)];
  if (first && last) draft.windows.push([first, last]);
  else reader.error = `${first ? end.trim() : start.trim()} is no time of day: write HH:MM, or opens and closes.`;
  return true;
}

const exceptions: Clause = (reader, draft) =>
  reader.attempt(() => {
    const word = reader.take(
      '(?:(?:except|excluding|without|not)(?:\\s+(?:on|for|in))?|also(?:\\s+on)?|plus|only(?:\\s+on)?)\\s+',
    );
    if (!word) return null;
    const kind = /^(also|plus)/i.test(word[0]) ? 'also' : /^only/i.test(word[0]) ? 'only' : 'not';
    const named = reader.list(() => {
      const calendar = reader.calendar();
      if (calendar !== null) return { calendar };
      const date = reader.date();
      return date === null ? null : { date };
    });
    for (const one of named) {
      if (one.calendar !== undefined) {
        if (kind === 'also') reader.error = 'A calendar can be asked for by "only on" or "not on": "also" takes dates.';
        else draft[kind].push(one.calendar);
      } else if (kind === 'only') addDate(reader, draft, one.date);
      else draft[kind === 'also' ? 'also' : 'except'].push(formatDate(one.date));
    }
    if (named.length === 0) {
      const known = reader.context.calendars.map(({ id }) => id).join(', ') || 'none yet';
      reader.error = `"${reader.rest()}" is no date and no calendar: calendars are ${known}.`;
    }
    return true;
  }) ?? false;

/** First and last dates, a range, or single dates. */
const dates: Clause = (reader, draft) =>
  reader.attempt(() => {
    const short = reader.take(
      `(?:from\\s+|on\\s+)?(?:the\\s+)?(\\d{1,2})(?:st|nd|rd|th)?${TO}(?=\\d{1,2}(?:st|nd|rd|th)?\\s+${MONTH})`,
    );
    if (short) {
      const to = reader.date();
      if (to === null) return null;
      const { year, month } = civil(to);
      return setRange(reader, draft, dateOf(year, month, Number(short[1])), to);
    }
    const word =
      reader
        .take('(?:from|since|starting(?:\\s+on)?|beginning|until|till|to|up to|on|the)\\s+')?.[0]
        .trim()
        .toLowerCase() ?? '';
    const first = reader.date(/^(until|till|to|up to)$/.test(word) ? (draft.from ?? reader.context.today) : undefined);
    if (first === null) return null;
    if (/^(until|till|to|up to)$/.test(word)) {
      draft.to = first;
      return true;
    }
    const last = reader.attempt(() => (reader.take(TO) ? reader.date(first) : null));
    if (last !== null) return setRange(reader, draft, first, last);
    if (/^(from|since|starting|beginning)/.test(word)) {
      draft.from = first;
      return true;
    }
    return addDate(reader, draft, first);
  }) ?? false;

/** A single date: the first is the whole range, more of them are added. */
function addDate(reader: Reader, draft: Draft, date: LocalDate): true {
  if (draft.from === undefined && draft.to === undefined) return setRange(reader, draft, date, date);
  draft.also.push(formatDate(date));
  return true;
}

function setRange(reader: Reader, draft: Draft, from: LocalDate, to: LocalDate): true {
  if (to < from) reader.error = 'The last day comes before the first.';
  draft.from = from;
  draft.to = to;
  return true;
}

const clock: Clause = (reader, draft) =>
  reader.attempt(() => {
    if (reader.take("(?:on\\s+)?(?:each\\s+|the\\s+)?site(?:'s|’s)?(?:\\s+own)?\\s+(?:time|clock)\\b")) return true;
    const match = reader.take(
      '(?:in\\s+|on\\s+)?([a-z][a-z0-9_+/-]*(?:\\s+[a-z][a-z0-9_+/-]*){0,3}?)\\s+(?:time|clock)\\b',
    );
    if (!match) return null;
    const name = (match[1] ?? '').replaceAll(' ', '_').toLowerCase();
    const known = (reader.context.zones ?? []).find(
      (zone) => zone.toLowerCase() === name || zone.toLowerCase().endsWith(`/${name}`),
    );
    const written = (match[1] ?? '').replaceAll(' ', '_');
    const zone = known ?? (isZone(written) ? written : null);
    if (zone === null) return null;
    draft.clock = zone;
    return true;
  }) ?? false;

/** In this order: what could be read in two ways is read by the first. */
const CLAUSES: readonly Clause[] = [always, byRule, monthly, weekdays, exceptions, inMonths, windows, dates, clock];

function finish(draft: Draft, { today }: PhraseContext): Result<When> {
  const repeat = repeatOf(draft);
  if (repeat !== undefined) {
    const rule = parseRule(repeat);
    if (!rule.ok) return rule;
  }
  let { from } = draft;
  if (repeat !== undefined && from === undefined) from = Math.min(today, draft.to ?? today) as LocalDate;
  if (from !== undefined && draft.to !== undefined && draft.to < from)
    return misread('The last day comes before the first.');
  const list = <T>(key: string, values: readonly T[]) => (values.length > 0 ? { [key]: [...new Set(values)] } : {});
  return done({
    ...(draft.clock === undefined ? {} : { clock: draft.clock }),
    ...(from === undefined ? {} : { from: formatDate(from) }),
    ...(draft.to === undefined ? {} : { to: formatDate(draft.to) }),
    ...(repeat === undefined ? {} : { repeat }),
    ...list('also', draft.also),
    ...list('except', draft.except),
    ...list('only', draft.only),
    ...list('not', draft.not),
    ...list('windows', draft.windows),
  });
}

function repeatOf({ rule, days, everyWeeks, months }: Draft): string | undefined {
  const byDay = [...days]
    .sort((a, b) => a - b)
    .map((day) => WEEKDAYS[day] ?? 'MO')
    .join();
  const byMonth = months.length > 0 ? `;BYMONTH=${months.join()}` : '';
  if (rule !== undefined) return `${rule}${byMonth}`;
  if (days.size > 0 && (days.size < 7 || everyWeeks > 1))
    return `FREQ=WEEKLY${everyWeeks > 1 ? `;INTERVAL=${everyWeeks}` : ''};BYDAY=${byDay}${byMonth}`;
  return byMonth === '' ? undefined : `FREQ=DAILY${byMonth}`;
}
