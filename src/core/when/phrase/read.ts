import { done, misread, type Result } from '../../refusal';
import { WEEKDAYS, addDays, civil, formatDate, weekdayIndex, type LocalDate } from '../dates';
import { parseRule } from '../rule';
import type { When } from '../schema';
import { parseClock } from '../windows';
import { edgeWords, weeksFrom } from '../words';
import { nowEdge, otherWeekday } from './clause';
import { CLAUSES } from './clauses';
import { newDraft, type Draft } from './draft';
import { laterEdge } from './edges';
import { nearestWord } from './nearest';
import { Reader, Ways, later, type PhraseContext } from './reader';
import { HOUR_NUMBER, numberOf } from './vocabulary';

/** Enough for every date that a booking may name; what is longer is no time. */
const LONGEST = 60_000;
const EXAMPLE = '"weekdays 05:30–10:00, 1 Dec to 28 Feb, not on storm-days"';

/**
 * Reads a time as one says it: "weekdays 05:30–10:00 until 28 Feb, not on storm-days". Reads all that `describeWhen` writes. A date
 * without a year is the next one; what says nothing of its beginning begins today. Refuses what it does not understand, by the word.
 */
export function readWhen(text: string, context: PhraseContext): Result<When> {
  return readIn(text, context, new Ways());
}

/** Most readings that are told: more is no help. */
const MOST_READINGS = 4;

/** The ways in which a phrase can be meant, the likeliest first; none where it is not understood. */
export function readingsOf(text: string, context: PhraseContext): When[] {
  const ways = new Ways();
  const first = readIn(text, context, ways);
  if (!first.ok) return [];
  const found = [first.value];
  for (const [name, count] of ways.met)
    for (let way = 1; way < count; way++) {
      const other = readIn(text, context, new Ways(new Map([[name, way]])));
      if (other.ok && !found.some((one) => JSON.stringify(one) === JSON.stringify(other.value)))
        found.push(other.value);
    }
  return found.slice(0, MOST_READINGS);
}

/** "half eight", which is 8:30 to some and 7:30 to others. */
const HALF = new RegExp(`\\bhalf (${HOUR_NUMBER})\\b(?! (?:hours?|minutes?))`, 'gi');
const halfTo = (_: string, hour: string) => `half past ${numberOf(hour) === 1 ? 12 : numberOf(hour) - 1}`;

function readIn(text: string, context: PhraseContext, ways: Ways): Result<When> {
  const draft = newDraft();
  if (text.length > LONGEST) return misread(`A time is said in at most ${LONGEST} characters: say less of it here.`);
  // However much room is left between words, it is one space.
  const plain = text.replace(/\s+/g, ' ');
  const half = plain.search(HALF) >= 0 && ways.of('half to', 2) === 1;
  const reader = new Reader(half ? plain.replace(HALF, halfTo) : plain, context, ways);
  const place = () => placeIn(text, reader.at);
  for (;;) {
    reader.skip(/(?:[\s,;:.()&/]|\b(?:and|runs?|running|valid)\b)+/);
    if (reader.done) break;
    const before = { ...draft };
    if (!CLAUSES.some((read) => read(reader, draft))) return misread(notUnderstood(reader), place());
    const error = reader.error ?? saidTwice(before, draft);
    if (error !== null) return misread(error, place());
  }
  return finish(draft, reader);
}

/** What a booking has one of: said again, one of the two would be passed over. */
const ONE_OF = {
  rule: 'how often it comes',
  count: 'how many times it comes',
  parity: 'in which weeks it comes',
  length: 'for how many days it is',
  lasts: 'how long it lasts',
  ends: 'until when it is',
  clock: "whose clock's time it is",
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

/** Names the word that is not understood, and what it may have been; else how a time can be written. */
function notUnderstood(reader: Reader): string {
  const word = reader.word();
  const nearest = nearestWord(word);
  if (nearest !== null) return `"${word}" is not understood: did you mean "${nearest}"?`;
  return `"${reader.rest()}" is not understood: write it as ${EXAMPLE}.`;
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
    return misread('Say the last day, or for how long: not both.');
  if (draft.length && from !== undefined) to = addDays(later(from, draft.length.count, draft.length.unit), -1);
  if (from !== undefined && to !== undefined && to < from) return misread('The last day comes before the first.');
  const list = <T>(key: string, values: readonly T[]) => (values.length > 0 ? { [key]: [...new Set(values)] } : {});
  return done({
    ...(draft.clock === undefined ? {} : { clock: draft.clock }),
    ...(from === undefined ? {} : { from: formatDate(from) }),
    ...(to === undefined ? {} : { to: formatDate(to) }),
    ...(repeat.value === undefined ? {} : { repeat: repeat.value }),
    ...list('also', draft.also),
    ...list('except', draft.except),
    ...list('only', draft.only),
    ...list('not', draft.not),
    ...list('windows', draft.windows),
  });
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
      `${[begins, ...draft.alsoBegins].join(' and ')} begin something: say for how long, as "for 20 minutes".`,
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
  const before = /^(opens|closes)-/.exec(begins)?.[1];
  // "an hour before closing": up to it.
  if (before !== undefined) draft.windows.push([begins, before]);
  else
    return misread(
      `${edgeWords(begins)} begins something: say until when, as "${edgeWords(begins)} to ${later1h(begins)}", or for how long, as "${edgeWords(begins)} for 20 minutes".`,
    );
  return done(undefined);
}

/** Where a part of the day begins of which only the end is said: of an evening or a night also where that is on the next day. */
function beginOfPart({ partHours: [begins] = ['00:00', '24:00'] }: Draft, ends: string): string {
  return begins < ends || begins >= '18:00' ? begins : '00:00';
}

const endOfDay = (edge: string) => (edge === '00:00' ? '24:00' : edge);

function later1h(begins: string): string {
  if (begins.startsWith('closes')) return '24:00';
  return parseClock(begins) === null ? 'closing' : endOfDay(laterEdge(begins, 60));
}

function repeatOf(
  { rule: said, days, notDays, everyWeeks, months, notMonths, from, to, ...draft }: Draft,
  reader: Reader,
): Result<string | undefined> {
  if (notMonths.size > 0) {
    const left = Array.from({ length: 12 }, (_, i) => i + 1).filter((month) => !notMonths.has(month));
    months = months.length > 0 ? months.filter((month) => !notMonths.has(month)) : left;
    if (!anyWithin(months, from, to)) return misread('No month is left: take one of the exceptions out.');
  }
  const byMonth = months.length > 0 ? `;BYMONTH=${[...new Set(months)].join()}` : '';
  const times = draft.count === undefined ? '' : `;COUNT=${draft.count}`;
  // Every day but some weekdays is the others.
  const rule = said === 'FREQ=DAILY' && notDays.size > 0 ? undefined : said;
  const ofWeeks = days.size > 0 || everyWeeks > 1 || draft.weekly;
  if ((rule !== undefined && (ofWeeks || draft.parity !== undefined)) || (draft.parity !== undefined && everyWeeks > 1))
    return misread('Days of the week and days by another rule are two bookings: say one of them here.');
  if (rule !== undefined) {
    if (notDays.size > 0)
      return misread('Weekdays can be left out of days of the week alone: write which dates, as "except 24 Dec".');
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
  if (base.size > 0 && left.length === 0) return misread('No weekday is left: take one of the exceptions out.');
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
