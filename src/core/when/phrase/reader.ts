import { addDays, civil, dateOf, daysInMonth, parseDate, weekdayIndex, type LocalDate } from '../dates';
import { FEAST, feastIn } from './feasts';
import { DAY, MONTH, NTH_WORD, NUMBER, ORDINALS, monthNumber, nthNumber, numberOf, weekdayNumber } from './vocabulary';

/** A year of four digits, which two times of day without a colon are not: 0630-0800. */
export const YEAR = '((?:19|2[01])\\d{2})\\b(?!\\s*[-–]\\s*\\d{4}\\b)';

/** What stands between two numbers of one list. */
export const ALSO = '\\s{0,3}(?:,|&|/|and\\b|or\\b)\\s{0,3}(?:(?:and|or)\\s{1,3})?(?:the\\s{1,3})?';

/** What a phrase is read against: what "today" is, and the names that it may call. */
export interface PhraseContext {
  readonly today: LocalDate;
  /** What a clock reads now, in milliseconds after midnight: for "now", "for 10 minutes". */
  readonly time?: number;
  readonly calendars: readonly { readonly id: string; readonly name: string }[];
  /** IANA zones that may be called by their last name, as "Oslo time". */
  readonly zones?: readonly string[];
}

/** Where something can be meant in several ways: which way is taken, by name; and which were met. */
export class Ways {
  readonly met = new Map<string, number>();
  constructor(private readonly wanted: ReadonlyMap<string, number> = new Map()) {}

  /** Which of so many ways is to be taken. */
  of(name: string, count: number): number {
    this.met.set(name, count);
    return this.wanted.get(name) ?? 0;
  }
}

const known = new Map<string, RegExp>();
const MOST_KNOWN = 5000;

/** Patterns are few and asked for at each place of a phrase: made once, they take most of the time. */
function compiled(pattern: string): RegExp {
  let regex = known.get(pattern);
  // Calendars' names are among them: whoever makes thousands does not fill the memory.
  if (known.size > MOST_KNOWN) known.clear();
  if (!regex) known.set(pattern, (regex = new RegExp(pattern, 'iyu')));
  return regex;
}

/** Reads a phrase from its beginning to its end, piece by piece. */
export class Reader {
  at = 0;
  error: string | null = null;
  constructor(
    private readonly text: string,
    readonly context: PhraseContext,
    readonly ways = new Ways(),
  ) {}

  get done(): boolean {
    return this.at >= this.text.length;
  }

  rest(): string {
    const rest = this.text.slice(this.at);
    return rest.length > 40 ? `${rest.slice(0, 40)}…` : rest;
  }

  /** What was read so far. */
  read(): string {
    return this.text.slice(0, this.at);
  }

  /** The word at the present position. */
  word(): string {
    return /^[\p{L}\p{Nd}'’:.-]+/u.exec(this.text.slice(this.at))?.[0] ?? this.text.slice(this.at, this.at + 1);
  }

  skip(pattern: RegExp): void {
    this.take(pattern.source);
  }

  /** Reads a pattern at the present position, whatever its case. */
  take(pattern: string): RegExpExecArray | null {
    const regex = compiled(pattern);
    regex.lastIndex = this.at;
    const match = regex.exec(this.text);
    if (!match) return null;
    this.at = regex.lastIndex;
    return match;
  }

  /** Whether a pattern is at the present position. */
  sees(pattern: string): boolean {
    return this.look(pattern) !== null;
  }

  /** The pattern at the present position, without moving on. */
  look(pattern: string): RegExpExecArray | null {
    const before = this.at;
    const found = this.take(pattern);
    this.at = before;
    return found;
  }

  /** Tries a reading; what it took is given back where it fails. */
  attempt<T>(read: () => T | null): T | null {
    const { at, error } = this;
    const result = read();
    if (result === null) Object.assign(this, { at, error });
    return result;
  }

  /** A date; without a year the first on or after `near`. */
  date(near: LocalDate = this.context.today): LocalDate | null {
    const { today } = this.context;
    if (this.take('today\\b')) return today;
    if (this.take('(?:the\\s+)?day\\s+after\\s+tomorrow\\b')) return addDays(today, 2);
    if (this.take('tomorrow\\b')) return addDays(today, 1);
    return this.attempt(
      () =>
        this.written(near) ??
        this.feast(near) ??
        this.nthWeekday(near) ??
        this.end(near) ??
        this.named() ??
        this.away(near) ??
        this.ofMonth(near),
    );
  }

  private written(near: LocalDate): LocalDate | null {
    const iso = this.take('\\d{4}-\\d{2}-\\d{2}(?!\\d)');
    if (iso) return this.checked(parseDate(iso[0]), iso[0]);
    const compact = this.take('((?:19|2[01])\\d{2})(0[1-9]|1[0-2])(0[1-9]|[12]\\d|3[01])(?!\\d)');
    if (compact) return this.numeric(compact[3], compact[2], compact[1], near, compact[0]);
    const ordered = this.take('((?:19|2[01])\\d{2})[/.](\\d{1,2})[/.](\\d{1,2})(?!\\d)');
    if (ordered) return this.numeric(ordered[3], ordered[2], ordered[1], near, ordered[0]);
    const dashed = this.take('(\\d{1,2})-(\\d{1,2})-(\\d{4})(?!\\d)');
    if (dashed) return this.slashed(dashed, near);
    const dotted = this.take('(\\d{1,2})\\.\\s?(\\d{1,2})\\.(?:\\s?(\\d{4}|\\d{2})\\b(?![:.]))?');
    if (dotted) return this.numeric(dotted[1], dotted[2], dotted[3], near, dotted[0]);
    const slashed = this.take(`(\\d{1,2})/(\\d{1,2})(?:/(\\d{4}|\\d{2}))?(?![\\d/]|\\s*${MONTH})`);
    if (slashed) return this.slashed(slashed, near);
    const dayFirst = this.take(`(\\d{1,2})(?:st|nd|rd|th)?\\.?\\s*(?:of\\s+)?${MONTH}\\.?(?:,?\\s+${YEAR})?`);
    if (dayFirst)
      return this.numeric(dayFirst[1], String(monthNumber(dayFirst[2] ?? '')), dayFirst[3], near, dayFirst[0]);
    const spelt = this.take(`(${ORDINALS.join('|')})\\s+(?:day\\s+)?of\\s+${MONTH}(?:,?\\s+${YEAR})?`);
    if (spelt) {
      const day = ORDINALS.indexOf((spelt[1] ?? '').toLowerCase()) + 1;
      return this.numeric(String(day), String(monthNumber(spelt[2] ?? '')), spelt[3], near, spelt[0]);
    }
    // "24 and 25 December": the month stands once, after the last of them.
    const shared = this.take(
      `(\\d{1,2})(?:st|nd|rd|th)?\\.?(?=(?:${ALSO}\\d{1,2}(?:st|nd|rd|th)?\\.?){1,30}\\s{1,3}(?:of\\s)?${MONTH}(?:,?\\s${YEAR})?)`,
    );
    if (shared) return this.numeric(shared[1], String(monthNumber(shared[2] ?? '')), shared[3], near, shared[0]);
    const monthFirst = this.take(
      `${MONTH}\\.?\\s+(?:the\\s+)?(\\d{1,2})(?:st|nd|rd|th)?\\b(?!:|\\s*(?:am|pm|h|hrs?|hours?|mins?|minutes?)\\b)(?:,?\\s+${YEAR})?`,
    );
    if (monthFirst)
      return this.numeric(monthFirst[2], String(monthNumber(monthFirst[1] ?? '')), monthFirst[3], near, monthFirst[0]);
    return null;
  }

  /** Day or month first: where both can be meant, the day. */
  private slashed([whole, a = '', b = '', year]: RegExpExecArray, near: LocalDate): LocalDate | null {
    const both = Number(a) <= 12 && Number(b) <= 12 && a !== b;
    const monthFirst = Number(b) > 12 || (both && this.ways.of('month first', 2) === 1);
    return this.numeric(monthFirst ? b : a, monthFirst ? a : b, year, near, whole);
  }

  private numeric(
    day: string | undefined,
    month: string | undefined,
    year: string | undefined,
    near: LocalDate,
    written: string,
  ): LocalDate | null {
    const make = (y: number) =>
      Number(month) >= 1 && Number(month) <= 12 && Number(day) >= 1 && Number(day) <= daysInMonth(y, Number(month))
        ? dateOf(y, Number(month), Number(day))
        : null;
    return this.yearly(make, year, near, written);
  }

  /** What comes each year, in the year that is written, else the first on or after `near`. */
  private yearly(
    make: (year: number) => LocalDate | null,
    year: string | undefined,
    near: LocalDate,
    written: string,
  ): LocalDate | null {
    if (year) return this.checked(make(Number(year) + (year.length === 2 ? 2000 : 0)), written);
    const start = civil(near).year;
    // 29 February comes at most eight years later.
    for (let y = start; y < start + 9; y++) {
      const found = make(y);
      if (found !== null && found >= near) return found;
    }
    return this.checked(null, written);
  }

  private checked(date: LocalDate | null, written: string): LocalDate | null {
    if (date === null) this.error = `${written.trim()} doesn’t exist. Write another date.`;
    return date ?? (0 as LocalDate);
  }

  private feast(near: LocalDate): LocalDate | null {
    const found = this.take(`${FEAST}(?:\\s+(\\d{4})\\b)?`);
    if (!found) return null;
    return this.yearly((year) => feastIn(found[1] ?? '', year), found[2], near, found[0]);
  }

  /** "the first Monday in December". */
  private nthWeekday(near: LocalDate): LocalDate | null {
    const found = this.take(`(?:the\\s+)?(${NTH_WORD})\\s+(${DAY})\\s+(?:in|of)\\s+${MONTH}(?:\\s+(\\d{4})\\b)?`);
    if (!found) return null;
    const [whole, nth = '', day = '', month = '', year] = found;
    const make = (y: number) => nthOf(y, monthNumber(month), nthNumber(nth), weekdayNumber(day));
    return this.yearly(make, year, near, whole);
  }

  /** "the end of the month", "the end of next week", "the last day of November". */
  private end(near: LocalDate): LocalDate | null {
    const { today } = this.context;
    const of = this.take('(?:the\\s+)?end\\s+of\\s+(?:the\\s+|this\\s+)?(next\\s+)?(week|month|year)\\b');
    if (of) {
      const unit = (of[2] ?? '').toLowerCase() as Unit;
      return endOf(of[1] === undefined ? today : later(startOf(today, unit), 1, unit), unit);
    }
    const month = this.take(`(?:the\\s+)?(?:end|last\\s+day)\\s+of\\s+${MONTH}(?:\\s+(\\d{4})\\b)?`);
    if (!month) return null;
    const number = monthNumber(month[1] ?? '');
    return this.yearly((y) => dateOf(y, number, daysInMonth(y, number)), month[2], near, month[0]);
  }

  /** "this Friday", "next Friday". */
  private named(): LocalDate | null {
    const found = this.take(`(this|next|(?:this\\s+)?coming)\\s+(${DAY})`);
    if (!found) return null;
    const [, word = '', day = ''] = found;
    const { today } = this.context;
    const coming = this.weekday(day, today);
    if (word.toLowerCase() !== 'next') return coming;
    const monday = addDays(today, 7 - weekdayIndex(today));
    const ofNextWeek = addDays(monday, weekdayNumber(day));
    const first = coming === today ? addDays(coming, 7) : coming;
    if (first === ofNextWeek) return first;
    return this.ways.of('next weekday', 2) === 0 ? ofNextWeek : first;
  }

  /** "in 3 days", "two weeks before Christmas", "the day after Easter Monday". */
  private away(near: LocalDate): LocalDate | null {
    const soon = this.take(`in\\s+(${NUMBER})\\s+(day|week|month)s?\\b`);
    if (soon)
      return later(this.context.today, numberOf(soon[1] ?? '1'), (soon[2] ?? 'day').toLowerCase() as Unit | 'day');
    const beside = this.take(`(?:the\\s+)?(${DAY})\\s+(before|after)\\s+`);
    if (beside) {
      const [, name = '', side = ''] = beside;
      const of = this.date(near);
      if (of === null) return null;
      return this.weekday(name, addDays(of, side.toLowerCase() === 'before' ? -7 : 1));
    }
    const far = this.take(`(?:(?:(${NUMBER})|the)\\s+)?(day|week)s?\\s+(before|after|from)\\s+`);
    const date = far && this.date(near);
    if (!far || date === null) return null;
    const days = numberOf(far[1] ?? '1') * (/week/i.test(far[2] ?? '') ? 7 : 1);
    return addDays(date, /before/i.test(far[3] ?? '') ? -days : days);
  }

  /** "the 15th": the next one. */
  private ofMonth(near: LocalDate): LocalDate | null {
    const found = this.take(`(?:the\\s+)?(\\d{1,2})(?:st|nd|rd|th)\\b(?!\\s+(?:of\\s+)?(?:${MONTH}|${DAY}))`);
    if (!found) return null;
    const day = Number(found[1]);
    for (let months = 0; months < 12; months++) {
      const { year, month } = civil(later(dateOf(civil(near).year, civil(near).month, 1), months, 'month'));
      const date = day >= 1 && day <= daysInMonth(year, month) ? dateOf(year, month, day) : null;
      if (date !== null && date >= near) return date;
    }
    return this.checked(null, found[0]);
  }

  /** The first such weekday from a date on. */
  weekday(name: string, from: LocalDate): LocalDate {
    return addDays(from, (weekdayNumber(name) - weekdayIndex(from) + 7) % 7);
  }

  /** One or more of something, with commas and "and" between. */
  list<T>(read: () => T | null): T[] {
    const found: T[] = [];
    for (
      let one = read();
      one !== null;
      one = this.attempt(() =>
        this.take('\\s*(?:,\\s*(?:(?:and|or)\\b)?|\\b(?:and|or)\\b|[&/+]|\\s)\\s*') ? read() : null,
      )
    )
      found.push(one);
    return found;
  }

  /** A calendar by its id or its name, or by the part of its name before a comma: the longest that fits here. */
  calendar(): string | null {
    const { calendars } = this.context;
    const short = (name: string) => name.split(',')[0] ?? name;
    const names = calendars
      .flatMap(({ id, name }) => {
        const own = [id, id.replaceAll('-', ' '), name];
        const alone = calendars.filter((one) => short(one.name) === short(name)).length === 1;
        return [...own, ...(alone ? [short(name)] : [])].map((called) => [called, id] as const);
      })
      .sort((a, b) => b[0].length - a[0].length);
    for (const [name, id] of names)
      if (this.take(`(?:the\\s+)?${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\p{L}\\p{Nd}_-])`)) return id;
    return null;
  }
}

export type Unit = 'week' | 'month' | 'year';

/** The last day of a date's week (its Sunday), month or year. */
export function endOf(date: LocalDate, unit: Unit): LocalDate {
  const { year, month } = civil(date);
  if (unit === 'week') return addDays(date, 6 - weekdayIndex(date));
  return unit === 'month' ? dateOf(year, month, daysInMonth(year, month)) : dateOf(year, 12, 31);
}

/** The first day of a date's week (its Monday), month or year. */
function startOf(date: LocalDate, unit: Unit): LocalDate {
  if (unit === 'week') return addDays(date, -weekdayIndex(date));
  const { year, month } = civil(date);
  return dateOf(year, unit === 'month' ? month : 1, 1);
}

/** A date so many days, weeks, months or years later; where a month has no such day, its last one. */
export function later(date: LocalDate, count: number, unit: 'day' | Unit): LocalDate {
  if (unit === 'day' || unit === 'week') return addDays(date, count * (unit === 'week' ? 7 : 1));
  const { year, month, day } = civil(date);
  const months = year * 12 + month - 1 + count * (unit === 'year' ? 12 : 1);
  const [y, m] = [Math.floor(months / 12), (months % 12) + 1];
  return dateOf(y, m, Math.min(day, daysInMonth(y, m)));
}

/** The nth weekday of a month, from its end where negative; null where there is none. */
export function nthOf(year: number, month: number, nth: number, weekday: number): LocalDate | null {
  const first = dateOf(year, month, 1);
  const last = dateOf(year, month, daysInMonth(year, month));
  const found =
    nth > 0
      ? addDays(first, ((weekday - weekdayIndex(first) + 7) % 7) + 7 * (nth - 1))
      : addDays(last, -((weekdayIndex(last) - weekday + 7) % 7) + 7 * (nth + 1));
  return found >= first && found <= last ? found : null;
}
