import * as z from 'zod';
import { siteSchema, type Site } from '@/core/plan';
import {
  WEEKDAYS,
  addDays,
  describeWhen,
  formatDate,
  hoursSchema,
  parseDate,
  parseRule,
  readWhen,
  setsOf,
  weeklyDays,
  whenOfSets,
  type OpeningHours,
  type PhraseContext,
  type SetOfHours,
  type When,
  type WrittenWindow,
} from '@/core/when';

/** Hours of sites and displays in the words that bookings are written in. Days that are not named are closed. */

export const HOURS_HINT =
  'E.g. weekdays 05:30-22:00, weekends 8 to 18. Days you don’t mention are closed. Leave empty for no opening hours.';
export const LIGHTS_OUT_HINT =
  'E.g. 23:30 to 04:45, or an hour after closing until half an hour before opening. Leave empty for never.';

const DAYS = WEEKDAYS.map((day) => day.charAt(0) + day.slice(1).toLowerCase());

export function hoursText(hours: OpeningHours | undefined): string {
  const weekly = hours?.weekly ?? {};
  const groups: { first: number; last: number; text: string }[] = [];
  WEEKDAYS.forEach((day, i) => {
    const text = (weekly[day] ?? []).map(([open, close]) => `${open}-${close}`).join(' ');
    const before = groups.at(-1);
    if (text === '') return;
    if (before && before.text === text && before.last === i - 1) before.last = i;
    else groups.push({ first: i, last: i, text });
  });
  return groups
    .map(({ first, last, text }) => `${DAYS[first]}${last > first ? `-${DAYS[last]}` : ''} ${text}`)
    .join(', ');
}

/** On which weekdays, from when to when. */
interface Part {
  readonly days: readonly number[];
  readonly windows: Periods;
}

/** What a part says, for each of its sets of hours. Null where it says anything else, such as a date. */
function readPart(part: string, context: PhraseContext): readonly Part[] | null {
  const read = readWhen(part, context);
  const parts = read.ok ? setsOf(read.value).map(partOf) : [];
  const known = parts.filter((one) => one !== null);
  return known.length === parts.length && known.length > 0 ? known : null;
}

function partOf({ repeat, windows = [], from: _from, ...others }: SetOfHours): Part | null {
  if (Object.keys(others).length > 0) return null;
  const rule = repeat === undefined ? null : parseRule(repeat);
  if (rule?.ok === false) return null;
  // Opening hours are the same every week.
  if (rule && rule.value.interval !== 1) return null;
  const days = rule === null ? EVERY_DAY : weeklyDays(rule.value);
  const periods = periodsOf(windows);
  return days && periods && { days, windows: periods };
}

/** Opening hours end on their day or in the night after it. */
const periodsOf = (windows: readonly WrittenWindow[]): Periods | null =>
  windows.some(([, , days]) => days !== undefined)
    ? null
    : windows.map(([start, end]): [string, string] => [start, end]);

type Periods = [string, string][];
const EVERY_DAY = [0, 1, 2, 3, 4, 5, 6];
/** Times without a day before them: they are of the days that were named last. */
const TIMES_ALONE = /^\d[\d:.\s–-]*$/;

/** Reads the hours, or tells the part that is not understood. */
function readHours(text: string, context: PhraseContext): Pick<OpeningHours, 'weekly'> | { wrong: string } {
  const weekly = new Map<(typeof WEEKDAYS)[number], Periods>();
  let days: readonly number[] = EVERY_DAY;
  for (const part of partsOf(text)) {
    const closed = /^closed\s+(?:on\s+)?(.+)$|^(.+?)\s+closed$/i.exec(part);
    const found = readPart(closed?.[1] ?? closed?.[2] ?? part, context);
    if (!found || found.some(({ windows }) => (windows.length === 0) !== (closed !== null))) return { wrong: part };
    const more = TIMES_ALONE.test(part);
    for (const read of found) {
      if (!more) days = read.days;
      for (const day of days) {
        const key = WEEKDAYS[day];
        if (key && closed) weekly.delete(key);
        else if (key) weekly.set(key, more ? [...(weekly.get(key) ?? []), ...read.windows] : read.windows);
      }
    }
  }
  return { weekly: Object.fromEntries(weekly) as NonNullable<OpeningHours['weekly']> };
}

const partsOf = (text: string) =>
  text
    .split(/[,;\n]/)
    .map((part) => part.trim())
    .filter((part) => part !== '');

/** Opening hours as they are said: weekdays 05:30 to 22:00, weekends 8-18, closed on Sundays. */
export const hoursTextSchema = (context: PhraseContext) =>
  z
    .string()
    .transform((text, check): OpeningHours | undefined => {
      if (text.trim() === '') return undefined;
      const read = readHours(text, context);
      if (!('wrong' in read)) return read;
      check.addIssue({ code: 'custom', message: `“${read.wrong}” isn’t understood. Write it like Mo-Fr 05:30-22:00.` });
      return z.NEVER;
    })
    .pipe(hoursSchema.optional());

export const EXCEPTIONS_HINT = 'Dates with other hours: 25 Dec closed, New Year’s Eve 08:00-14:00';

/** Dates with hours of their own: "25 Dec 2026 closed, 31 Dec 2026 08:00-14:00". */
export function exceptionsText(hours: OpeningHours | undefined): string {
  return Object.entries(hours?.dates ?? {})
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([date, periods]) => {
      const said = describeWhen({ from: date, to: date });
      return periods.length === 0
        ? `${said} closed`
        : `${said} ${periods.map(([open, close]) => `${open}-${close}`).join(' ')}`;
    })
    .join(', ');
}

/** So many days in a row may have hours of their own by one phrase. */
const MOST_DAYS = 366;

/** What is said of one date, of some in a row, or of several with hours of their own; null where it is not understood. */
function readException(part: string, context: PhraseContext): NonNullable<OpeningHours['dates']> | null {
  const closed = /^(.+?)\s+closed$|^closed\s+(?:on\s+)?(.+)$/i.exec(part);
  const read = readWhen(closed?.[1] ?? closed?.[2] ?? part, context);
  const parts = read.ok ? setsOf(read.value).map((set) => datesOf(set, closed !== null)) : [null];
  const known = parts.filter((one) => one !== null);
  return known.length === parts.length ? Object.assign({}, ...known) : null;
}

function datesOf(set: SetOfHours, closed: boolean): NonNullable<OpeningHours['dates']> | null {
  const { from, to, windows = [], ...others } = set;
  const [first, last] = [parseDate(from ?? ''), parseDate(to ?? '')];
  const periods = periodsOf(windows);
  if (first === null || last === null || !periods || Object.keys(others).length > 0) return null;
  if ((windows.length === 0) !== closed || last - first >= MOST_DAYS) return null;
  return Object.fromEntries(
    Array.from({ length: last - first + 1 }, (_, i) => [formatDate(addDays(first, i)), periods]),
  );
}

export const exceptionsTextSchema = (context: PhraseContext) =>
  z
    .string()
    .transform((text, check): OpeningHours['dates'] => {
      const dates: NonNullable<OpeningHours['dates']> = {};
      for (const part of partsOf(text)) {
        const read = readException(part, context);
        if (read) Object.assign(dates, read);
        else {
          const message = `“${part}” isn’t understood. Write it like 25 Dec closed, or 31 Dec 08:00-14:00.`;
          check.addIssue({ code: 'custom', message });
          return z.NEVER;
        }
      }
      return Object.keys(dates).length === 0 ? undefined : dates;
    })
    .pipe(hoursSchema.shape.dates);

/** When a display is off, as it is said: "23:30 to 04:45; Saturdays 22:00 to 06:00". Empty for never. */
export const lightsOutText = (list: readonly When[] | undefined): string =>
  (list ?? []).map((when) => describeWhen(when)).join('; ');

export const lightsOutTextSchema = (context: PhraseContext) =>
  z.string().transform((text, check): When[] | undefined => {
    const list: When[] = [];
    for (const part of text.split(/[;\n]/).filter((one) => one.trim() !== '')) {
      const read = readWhen(part, context);
      if (!read.ok) {
        check.addIssue({ code: 'custom', message: read.message });
        return z.NEVER;
      }
      list.push(withoutToday(part, read.value, context));
    }
    return list.length === 0 ? undefined : list;
  });

/** Nights have no beginning, unless one was said: what is read begins on the day that it is read on. */
function withoutToday(text: string, when: When, context: PhraseContext): When {
  const next = addDays(context.today, 1);
  const tomorrow = readWhen(text, { ...context, today: next });
  const theirs = tomorrow.ok ? setsOf(tomorrow.value) : [];
  const sets = setsOf(when).map((set, i): SetOfHours => {
    const { from, ...others } = set;
    if (from !== formatDate(context.today) || set.repeat !== undefined || set.to !== undefined) return set;
    return theirs[i]?.from === formatDate(next) ? others : set;
  });
  return whenOfSets(sets);
}

/** A place as latitude and longitude in degrees: "62.1, 5.4". */
export const placeText = (location: Site['location']) =>
  location === undefined ? '' : `${location.latitude}, ${location.longitude}`;

export const placeTextSchema = z.string().transform((text, context): Site['location'] => {
  if (text.trim() === '') return undefined;
  const match = /^\s*(-?\d+(?:\.\d+)?)\s*[,;\s]\s*(-?\d+(?:\.\d+)?)\s*$/.exec(text);
  const location = { latitude: Number(match?.[1]), longitude: Number(match?.[2]) };
  if (match && siteSchema.shape.location.safeParse(location).success) return location;
  const message =
    'Choose a town from the list, or write latitude and longitude in degrees: 62.1, 5.4 (south and west are negative).';
  context.addIssue({ code: 'custom', message });
  return z.NEVER;
});
