import { done, misread, type Result } from '../../refusal';
import { WEEKDAYS, addDays, civil, formatDate, weekdayIndex, type LocalDate } from '../dates';
import { parseRule } from '../rule';
import { MOST_SETS, type SetOfHours, type When } from '../schema';
import { setsOf, whenOfSets } from '../sets-of-hours';
import { parseClock, type WrittenWindow } from '../written';
import { edgeWords, weeksFrom } from '../words';
import { nowEdge, otherWeekday } from './clause';
import { CLAUSES } from './clauses';
import { newDraft, type Draft } from './draft';
import { laterEdge } from './edges';
import { lostWords } from './kept-words';
import { nearestWord } from './nearest';
import { instead } from './instead';
import { Reader, Ways, later, type PhraseContext } from './reader';
import { BETWEEN, partsOf } from './sets';
import { HOUR_NUMBER, numberOf } from './vocabulary';

/** Enough for every date that a booking may have; a longer text can't be a time. */
const LONGEST = 60_000;
const EXAMPLE = '“weekdays 05:30–10:00, 1 Dec to 28 Feb, not on storm-days”';

/**
 * Reads a time in words: "weekdays 05:30–10:00 until 28 Feb, not on storm-days". Reads all that `describeWhen` writes. A date
 * without a year is the next one; what says nothing of its beginning begins today. Refuses what it does not understand, by the word.
 */
export function readWhen(text: string, context: PhraseContext): Result<When> {
  return readAny(text, context, new Ways());
}

/** The most readings that are offered: more would be no help. */
const MOST_READINGS = 4;

/** The ways in which a phrase can be meant, the likeliest first; none where it is not understood. */
export function readingsOf(text: string, context: PhraseContext): When[] {
  const ways = new Ways();
  const first = readAny(text, context, ways);
  if (!first.ok) return [];
  const found = [first.value];
  for (const [name, count] of ways.met)
    for (let way = 1; way < count; way++) {
      const other = readAny(text, context, new Ways(new Map([[name, way]])));
      if (other.ok && !found.some((one) => JSON.stringify(one) === JSON.stringify(other.value)))
        found.push(other.value);
    }
  return found.slice(0, MOST_READINGS);
}

/** "half eight", which is 8:30 to some and 7:30 to others. */
const HALF = new RegExp(`\\bhalf (${HOUR_NUMBER})\\b(?! (?:hours?|minutes?))`, 'gi');
const halfTo = (_: string, hour: string) => `half past ${numberOf(hour) === 1 ? 12 : numberOf(hour) - 1}`;

function readAny(text: string, context: PhraseContext, ways: Ways): Result<When> {
  if (text.length > LONGEST) return misread(`A time has at most ${LONGEST} characters. Shorten it.`);
  const parts = partsOf(text.replace(/\s+/g, ' '), context);
  if (parts.length === 1) return readIn(text, context, ways);
  if (parts.length > MOST_SETS)
    return misread(`A booking has at most ${MOST_SETS} sets of hours. Make another booking for the rest.`);
  const sets: SetOfHours[] = [];
  for (const part of parts) {
    const read = readIn(part, context, ways);
    if (!read.ok) return misread(read.message);
    const found = setsOf(read.value);
    const open = found.map((set) => oneSided(part, set)).find((one) => one !== null);
    if (open != null) return misread(open);
    sets.push(...found);
  }
  return done(whenOfSets(instead(sets, (count) => ways.of('instead', count))));
}

/** "daily 8–18, Fridays until 20" leaves open from when on Fridays: what is said of one of several sets of hours has two ends. */
function oneSided(part: string, { windows = [] }: SetOfHours): string | null {
  const open = /\b0?0[:.]?00|\b0\s*[-–]|midnight|all day/i.test(part)
    ? null
    : windows.find(([start]) => start === '00:00');
  return open ? `“${part}” has no start. Write it like “08:00 to ${edgeWords(open[1])}”.` : null;
}

function readIn(text: string, context: PhraseContext, ways: Ways): Result<When> {
  const draft = newDraft();
  // However much room is left between words, it is one space.
  const plain = text.replace(/\s+/g, ' ');
  const half = plain.search(HALF) >= 0 && ways.of('half to', 2) === 1;
  const reader = new Reader(half ? plain.replace(HALF, halfTo) : plain, context, ways);
  const place = () => placeIn(text, reader.at);
  for (;;) {
    reader.skip(BETWEEN);
    if (reader.done) break;
    const before = { ...draft };
    if (!CLAUSES.some((read) => read(reader, draft))) return misread(notUnderstood(reader), place());
    const error = reader.error ?? saidTwice(before, draft);
    if (error !== null) return misread(error, place());
  }
  const read = finish(draft, reader);
  const lost = read.ok ? lostWords(plain, read.value) : null;
  return lost === null ? read : misread(lost);
}

/** What a booking has one of: said again, one of the two would be passed over. */
const ONE_OF = {
  rule: 'how often it comes',
  count: 'how many times it comes',
  parity: 'in which weeks it comes',
  length: 'for how many days it is',
  lasts: 'how long it lasts',
  ends: 'until when it is',
  clock: 'whose clock’s time it is',
  from: 'its first day',
  to: 'its last day',
} as const satisfies Partial<Record<keyof Draft, string>>;

/** What was said before and is now said otherwise; null for nothing. */
function saidTwice(before: Draft, after: Draft): string | null {
  // "1 Mar until 5 Mar", and "1 Mar onwards": what was a date begins a range.
  const wasDate = before.onDate !== undefined && before.to === before.onDate;
  const said = (Object.keys(ONE_OF) as (keyof typeof ONE_OF)[]).find(
    (one) => before[one] !== undefined && before[one] !== after[one] && !(one === 'to' && wasDate),
  );
  if (said !== undefined) return `Said twice: ${ONE_OF[said]}. Keep one, the other is a booking of its own.`;
  const monthsTwice = after.rule?.includes('BYMONTH=') === true && after.months.length > 0;
  const monthsLost = before.months.some((month, i) => after.months[i] !== month);
  return monthsLost || monthsTwice ? 'Said twice: in which months it comes. Name all of them in one list.' : null;
}

/** Where a place of the text with single spaces is in the text as it was written. */
function placeIn(text: string, at: number): number {
  let place = 0;
  for (const piece of text.match(/\s+|\S/g) ?? []) {
    if (at-- === 0) break;
    place += piece.length;
  }
  return place;
}

const TWILIGHT = /^(?:\w+ ){0,3}(?:dusk|dawn|nightfall|daybreak|twilight|dark)\b/i;

/** Names the word that is not understood, and what it may have been; else how a time can be written. */
function notUnderstood(reader: Reader): string {
  const word = reader.word();
  if (TWILIGHT.test(reader.rest()))
    return 'Dusk and dawn have no set time. Write “sunset” or “sunrise”, or “30 min after sunset”.';
  const nearest = nearestWord(word);
  if (nearest !== null) return `“${word}” isn’t understood. Did you mean “${nearest}”?`;
  return `“${reader.rest()}” isn’t understood. Write it like ${EXAMPLE}.`;
}

function finish(draft: Draft, reader: Reader): Result<When> {
  const { today } = reader.context;
  const repeat = repeatOf(draft, reader);
  if (!repeat.ok) return repeat;
  const timed = withTimes(draft, reader, repeat.value !== undefined);
  if (!timed.ok) return timed;
  let { from, to } = draft;
  const says =
    from !== undefined ||
    to !== undefined ||
    repeat.value !== undefined ||
    draft.length !== undefined ||
    draft.daily ||
    [draft.also, draft.except, draft.only, draft.not, draft.windows].some((list) => list.length > 0) ||
    draft.clock !== undefined;
  if (from === undefined && says && !(draft.endless && repeat.value === undefined && draft.length === undefined)) {
    const first = draft.everyWeeks > 1 && draft.parity === undefined ? nextOf(draft.days, today) : today;
    from = Math.min(first, to ?? first) as LocalDate;
  }
  if (draft.now && from === undefined) from = today;
  if (draft.length && draft.to !== undefined && draft.to !== draft.from)
    return misread('Write the last day or a duration, not both.');
  if (draft.length && from !== undefined) to = addDays(later(from, draft.length.count, draft.length.unit), -1);
  if (from !== undefined && to !== undefined && to < from) return misread('The last day comes before the first.');
  const list = <T>(key: string, values: readonly T[]) => (values.length > 0 ? { [key]: [...new Set(values)] } : {});
  const set: SetOfHours = {
    ...(draft.clock === undefined ? {} : { clock: draft.clock }),
    ...(from === undefined ? {} : { from: formatDate(from) }),
    ...(to === undefined ? {} : { to: formatDate(to) }),
    ...(repeat.value === undefined ? {} : { repeat: repeat.value }),
    ...list('also', draft.also),
    ...list('except', draft.except),
    ...list('only', draft.only),
    ...list('not', draft.not),
    ...list('windows', draft.windows),
  };
  return draft.long ? overDays(draft.long, draft, set) : done(set);
}

/** From a time of one date to a time of another that is more than a window can be away: the first day's hours, the days between, the last day's. */
function overDays(
  { first, start, last, end }: NonNullable<Draft['long']>,
  draft: Draft,
  set: SetOfHours,
): Result<When> {
  const { from: _from, to: _to, ...rest } = set;
  if (set.repeat !== undefined || draft.windows.length > 0)
    return misread(
      'This lasts more than a week, and can’t have other days or hours as well. Make another booking for those.',
    );
  const on = (from: LocalDate, to: LocalDate, windows: WrittenWindow[]): SetOfHours => ({
    ...rest,
    ...{ from: formatDate(from), to: formatDate(to) },
    ...(windows.length > 0 ? { windows } : {}),
  });
  return done(
    whenOfSets([
      start === '00:00' ? on(first, addDays(last, -1), []) : on(first, first, [[start, '24:00']]),
      ...(start === '00:00' ? [] : [on(addDays(first, 1), end === '24:00' ? last : addDays(last, -1), [])]),
      ...(end === '24:00' ? [] : [on(last, last, [['00:00', end]])]),
    ]),
  );
}

/** The next of some weekdays, that day among them: of every other one this is the first. */
function nextOf(days: ReadonlySet<number>, from: LocalDate): LocalDate {
  const week = Array.from({ length: 7 }, (_, i) => addDays(from, i));
  return week.find((date) => days.has(weekdayIndex(date))) ?? from;
}

/** Whether any of some months, 1 to 12, has a day from one date to another; where both are not known, whether there are any. */
function anyWithin(months: readonly number[], from: LocalDate | undefined, to: LocalDate | undefined): boolean {
  if (from === undefined || to === undefined) return months.length > 0;
  const last = Math.min(to, addDays(from, 366));
  for (let date = from; date <= last; date = addDays(date, 1)) if (months.includes(civil(date).month)) return true;
  return false;
}

/** Makes windows of what began, ended or lasted without the other side; refuses what is not enough to know. */
function withTimes(draft: Draft, reader: Reader, repeats: boolean): Result<void> {
  const { today } = reader.context;
  const { begins, ends, lasts } = draft;
  const dated =
    draft.from !== undefined ||
    draft.to !== undefined ||
    repeats ||
    draft.only.length > 0 ||
    draft.daily ||
    draft.length !== undefined;
  const onlyToday = () => {
    if (dated) return;
    draft.from = draft.to = today;
  };
  if (lasts !== undefined) {
    if (lasts <= 0 || lasts >= 24 * 60) return misread('Write a length of less than a day, as for 10 minutes.');
    const start = begins ?? nowEdge(reader);
    const at = parseClock(start);
    if (begins === undefined || draft.now) onlyToday();
    else if (at !== null && !dated && reader.ways.of('each day', 2) === 0) {
      // "14:00 for 20 minutes", and no more: the next time that it is 14:00.
      const over = at < (reader.context.time ?? 0);
      draft.from = draft.to = addDays(today, over ? 1 : 0);
    }
    for (const first of [start, ...draft.alsoBegins]) draft.windows.push([first, endOfDay(laterEdge(first, lasts))]);
    return done(undefined);
  }
  if (draft.alsoBegins.length > 0)
    return misread(
      `${[begins, ...draft.alsoBegins].join(' and ')} need an end. Add a duration, e.g. “for 20 minutes”.`,
    );
  if (ends !== undefined) {
    if (draft.now || begins !== undefined) {
      draft.windows.push([begins ?? nowEdge(reader), ends]);
      if (draft.now) onlyToday();
    } else if (
      !dated &&
      !draft.endless &&
      draft.windows.length === 0 &&
      draft.partHours === undefined &&
      reader.context.time !== undefined &&
      reader.ways.of('until', 2) === 0
    ) {
      // "until 20:00", and no more: today, from now on; or each day from midnight.
      draft.windows.push([nowEdge(reader), ends]);
      onlyToday();
    } else draft.windows.push([beginOfPart(draft, ends), ends]);
    return done(undefined);
  }
  if (begins === undefined || draft.windows.some(([start]) => start === begins)) return done(undefined);
  const before = /^([a-z]+)-/.exec(begins)?.[1];
  // "an hour before closing": up to it.
  if (before !== undefined) draft.windows.push([begins, before]);
  else
    return misread(
      `${NO_END}, e.g. “${edgeWords(begins)} to ${later1h(begins)}”, or a duration, e.g. “${edgeWords(begins)} for 20 minutes”.`,
    );
  return done(undefined);
}

/** How the error begins for a time that lacks only its end. */
export const NO_END = 'Add an end time';

/** Where a part of the day begins of which only the end is said: of an evening or a night also where that is on the next day. */
function beginOfPart({ partHours: [begins] = ['00:00', '24:00'] }: Draft, ends: string): string {
  return begins < ends || begins >= '18:00' ? begins : '00:00';
}

const endOfDay = (edge: string) => (edge === '00:00' ? '24:00' : edge);

function later1h(begins: string): string {
  if (begins.startsWith('closes') || begins.startsWith('sunset')) return '24:00';
  return parseClock(begins) === null ? 'closing' : endOfDay(laterEdge(begins, 60));
}

function repeatOf(
  { rule: said, days, notDays, everyWeeks, months, notMonths, from, to, ...draft }: Draft,
  reader: Reader,
): Result<string | undefined> {
  if (notMonths.size > 0) {
    const left = Array.from({ length: 12 }, (_, i) => i + 1).filter((month) => !notMonths.has(month));
    months = months.length > 0 ? months.filter((month) => !notMonths.has(month)) : left;
    if (!anyWithin(months, from, to)) return misread('No month is left. Remove one of the exceptions.');
  }
  const byMonth = months.length > 0 ? `;BYMONTH=${[...new Set(months)].join()}` : '';
  const times = draft.count === undefined ? '' : `;COUNT=${draft.count}`;
  // Every day but some weekdays is the others.
  const rule = said === 'FREQ=DAILY' && notDays.size > 0 ? undefined : said;
  const ofWeeks = days.size > 0 || everyWeeks > 1 || draft.weekly;
  if ((rule !== undefined && (ofWeeks || draft.parity !== undefined)) || (draft.parity !== undefined && everyWeeks > 1))
    return misread(
      'Weekdays can’t be combined with another rule in one booking. Keep one of them here and make a second booking for the other.',
    );
  if (rule !== undefined) {
    if (notDays.size > 0) return misread('Here you can only leave out dates. Write them, e.g. “except 24 Dec”.');
    const read = parseRule(`${rule}${byMonth}${times}`);
    return read.ok ? done(`${rule}${byMonth}${times}`) : read;
  }
  const single = from !== undefined && from === to;
  // Of every so many weeks the day that it begins on, or all of each.
  if (
    draft.weekly &&
    days.size === 0 &&
    notDays.size === 0 &&
    (everyWeeks === 1 || reader.ways.of('whole weeks', 2) === 0)
  )
    days.add(weekdayIndex(from ?? reader.context.today));
  const whole = notDays.size > 0 || draft.weekly || draft.parity !== undefined;
  const base = days.size > 0 || !whole || single ? days : new Set([0, 1, 2, 3, 4, 5, 6]);
  const left = [...base].filter((day) => !notDays.has(day)).sort((a, b) => a - b);
  if (base.size > 0 && left.length === 0) return misread('No weekday is left. Remove one of the exceptions.');
  const { onDate } = draft;
  if (single && onDate !== undefined && left.length > 0) {
    const own = weekdayIndex(onDate);
    return left.includes(own) ? done(undefined) : misread(otherWeekday(onDate));
  }
  const byDay = left.map((day) => WEEKDAYS[day] ?? 'MO').join();
  if (draft.parity !== undefined) {
    const weeks = weeksFrom(draft.parity === 'even' ? 2 : 1);
    return done(`FREQ=YEARLY;BYWEEKNO=${weeks.join()};BYDAY=${byDay}${byMonth}${times}`);
  }
  if (left.length > 0 && (left.length < 7 || everyWeeks > 1))
    return done(`FREQ=WEEKLY${everyWeeks > 1 ? `;INTERVAL=${everyWeeks}` : ''};BYDAY=${byDay}${byMonth}${times}`);
  if (byMonth !== '' || times !== '') return done(`FREQ=DAILY${byMonth}${times}`);
  return done(undefined);
}
