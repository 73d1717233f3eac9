import { addDays, type LocalDate } from '../dates';
import { MOST_DAYS, parseClock, type WrittenWindow } from '../written';
import { addDate, clause, setRange, type Clause } from './clause';
import type { Draft } from './draft';
import { seesDays } from './dates';
import { clockOf, edgeOf, inPart, isBare, laterEdge, withHalf } from './edges';
import { ALSO, type Reader } from './reader';
import {
  COMPACT,
  EDGE,
  HOUR,
  LENGTH,
  MONTH,
  NUMBER,
  OVERNIGHT,
  PARTS,
  TO,
  TONIGHT,
  minutesOf,
  numberOf,
} from './vocabulary';

/** "now", "from now on", "now until 20:30", "for 10 minutes", "in half an hour". */
export const now = clause((reader, draft) => {
  if (
    reader.take(
      '(?:(?:starting\\s+|from\\s+|beginning\\s+)?(?:right\\s+)?now(?:\\s+on)?|(?:effective\\s+)?immediately|with\\s+immediate\\s+effect)\\b',
    )
  ) {
    draft.now = true;
    const to = reader.attempt(() => (reader.take(TO) ? reader.take(EDGE) : null));
    if (to) setEnd(reader, draft, to[0]);
    return true;
  }
  const soon = reader.take(`(?:(?:starting|beginning|from)\\s+)?in\\s+(${LENGTH})`);
  if (soon) {
    const at = (reader.context.time ?? 0) + minutesOf(soon[1] ?? '') * 60_000;
    draft.begins = clockOf(at % DAY_MS);
    return addDate(reader, draft, addDays(reader.context.today, Math.floor(at / DAY_MS)));
  }
  const lasts =
    reader.take(
      `(?:for\\s+|(?:(?:for|in|over|during|within)\\s+)?(?:the\\s+)?next\\s+|\\+\\s*)(${LENGTH}|hour\\b)(?!\\s+(?:before|after)\\b)`,
    ) ??
    reader.take(`(${LENGTH})(?=\\s+(?:at|from|starting)\\b)`) ??
    (draft.begins === undefined ? null : reader.take(`(${LENGTH})(?!\\s+(?:before|after)\\b)`));
  if (!lasts) return null;
  closeOpen(draft);
  const length = (lasts[1] ?? '').toLowerCase();
  draft.lasts = length === 'hour' ? 60 : minutesOf(length);
  return true;
});

const DAY_MS = 86_400_000;

/** What began and had no end yet lasts no longer to the end of the day: its end is said now. */
function closeOpen(draft: Draft): void {
  const last = draft.windows.at(-1);
  if (last && last[0] === draft.begins && last[1] === '24:00') draft.windows.pop();
}

/** "tonight", "this morning", "tomorrow evening", "overnight", "mornings", and "at 8 tonight". */
export const parts = clause((reader, draft) => {
  if (reader.take('tonight\\b')) {
    addPartOf(reader, draft, reader.context.today);
    return hoursUnlessSaid(reader, draft, 'night', TONIGHT);
  }
  if (reader.take('week\\s?nights?\\b')) {
    for (const day of [0, 1, 2, 3, 4]) draft.days.add(day);
    return hoursUnlessSaid(reader, draft, 'night', TONIGHT);
  }
  if (reader.take('overnight\\b')) return hoursUnlessSaid(reader, draft, 'night', OVERNIGHT);
  const found = reader.take(
    `(this\\s+|all\\s+|(?:in|at|on|during|over|every|each)\\s+(?:the\\s+)?|the\\s+)?(lunch|${Object.keys(PARTS).join('|')})(?:[ -]?time)?s?\\b(?:\\s+(of)(?=\\s+(?:the\\s+)?(?:\\d|[a-z]+\\s+\\d)))?`,
  );
  const word = found?.[2]?.toLowerCase() ?? '';
  const part = word.startsWith('lunch') ? 'lunchtime' : word;
  const hours = PARTS[part];
  if (!found || !hours) return null;
  if (/^(?:every|each)/i.test(found[1] ?? '') || /s$/i.test(found[0])) draft.daily = true;
  if (/^this/i.test(found[1] ?? '')) addPartOf(reader, draft, reader.context.today);
  if (found[3] === undefined) return hoursUnlessSaid(reader, draft, part, hours);
  // "the morning of 24 December": a date follows, no hour.
  draft.windows.push([...hours]);
  return true;
});

/** The day of a part of it: hours that were said before are meant by it too, not those of another day. */
function addPartOf(reader: Reader, draft: Draft, date: LocalDate): void {
  if (draft.from === undefined && draft.to === undefined) setRange(reader, draft, date, date);
}

/** What a part of the day is, unless its hours follow or were said: "overnight 22:00 to 06:00", "8 to 10 this evening". */
function hoursUnlessSaid(reader: Reader, draft: Draft, part: string, [start, end]: readonly [string, string]): true {
  const last = draft.windows.at(-1);
  if (last && draft.bare) {
    const moved = inPart(part, [last[0], last[1]], draft.bare);
    draft.windows[draft.windows.length - 1] = moved;
    // "from 8 tonight": what began goes with its window.
    if (draft.begins === last[0]) draft.begins = moved[0];
    return true;
  }
  if (draft.begins === '12:00' && start > '12:00') return midnightError(reader);
  if (draft.begins !== undefined && draft.bare?.[0])
    draft.begins = inPart(part, [draft.begins, '24:00'], draft.bare)[0];
  if (
    draft.begins === undefined &&
    !reader.sees(`\\s*,?\\s*(?:from\\s+|between\\s+|after\\s+|until\\s+|till\\s+|to\\s+|before\\s+|at\\s+)?${EDGE}`) &&
    !reader.sees(`\\s*,?\\s*(?:from|after|until|till|to|before|at)\\s+${HOUR}`) &&
    !reader.sees(`\\s*,?\\s*(?:from\\s+|between\\s+)?${HOUR}(?:${TO}|\\s+and\\s+)`)
  )
    draft.windows.push([start, end]);
  else {
    draft.part = part;
    draft.partHours = [start, end];
  }
  return true;
}

const HOURS_OF_OPENING = '(?:open(?:ing)?|business|working|office|trading)\\s+(?:hours|times?)';

/** "opening hours", "outside opening hours", "the last hour before closing". */
export const opening = clause((reader, draft) => {
  if (
    reader.take(
      `(?:outside(?:\\s+of)?\\s+(?:the\\s+)?${HOURS_OF_OPENING}|(?:out\\s+of|after)\\s+hours|(?:when|while)\\s+(?:it\\s+is\\s+|we\\s+are\\s+)?closed)\\b`,
    )
  )
    draft.windows.push(['00:00', 'opens'], ['closes', '24:00']);
  else if (
    reader.take(
      `(?:during\\s+|in\\s+|within\\s+)?(?:the\\s+)?(?:${HOURS_OF_OPENING}|hours\\s+of\\s+opening)\\b|(?:when|while)\\s+(?:it\\s+is\\s+|we\\s+are\\s+)?open\\b`,
    )
  )
    draft.windows.push(['opens', 'closes']);
  else if (reader.take('(?:(?:in|during|by|at)\\s+)?(?:the\\s+)?(?:daylight|hours\\s+of\\s+daylight)(?:\\s+hours)?\\b'))
    draft.windows.push(['sunrise', 'sunset']);
  else return edgeHours(reader, draft);
  return true;
});

/** "the first hour after opening", "the last two hours", "the first hour after sunset". */
function edgeHours(reader: Reader, draft: Draft): true | null {
  const found = reader.take(
    `(?:the\\s+|in\\s+the\\s+)?(first|last)\\s+(${LENGTH}|hour|half[- ]hour)(?:\\s+(?:after|before|of)\\s+(?:the\\s+)?(opening|closing|sunrise|sunset|daylight)(?:\\s+(?:time|hours))?)?\\b`,
  );
  if (!found) return null;
  const [, side = '', length = '', named] = found;
  const minutes = /^hour$/i.test(length) ? 60 : minutesOf(length);
  const isFirst = side.toLowerCase() === 'first';
  // "the last hour of opening" is before closing, and that of daylight before sunset.
  const whole = /daylight/i.test(named ?? '') ? ['sunrise', 'sunset'] : ['opens', 'closes'];
  const edge = (/ of /i.test(found[0]) ? null : edgeOf(named ?? '', false)) ?? whole[isFirst ? 0 : 1] ?? '';
  draft.windows.push(isFirst ? [edge, laterEdge(edge, minutes)] : [laterEdge(edge, -minutes), edge]);
  return true;
}

/** Times of day, from one edge to another, or up to or from one. */
export const windows: Clause = (reader, draft) =>
  reader.attempt(() => {
    if (seesDays(reader)) return null;
    const before = draft.windows.length;
    const found = compact(reader, draft) ?? between(reader, draft);
    if (found) daysLater(reader, draft, before);
    return found ?? oneSided(reader, draft);
  }) ?? false;

/** "18:00–06:00 3 days later", "18:00–20:00 the next day": on which date a window ends. */
function daysLater(reader: Reader, draft: Draft, at: number): void {
  const found = reader.take(`\\s+(?:(?:the\\s+)?next\\s+day|(${NUMBER})\\s+days?\\s+(?:later|after))\\b`);
  const window = draft.windows[at];
  if (!found || !window) return;
  const days = found[1] === undefined ? 1 : numberOf(found[1]);
  if (days < 1 || days > MOST_DAYS) reader.error = `A window ends at most ${MOST_DAYS} days later.`;
  draft.windows[at] = [window[0], window[1], days];
}

/** "0630-0800", and "0630 to 8 a.m.", where the other side is surely a time. */
function compact(reader: Reader, draft: Draft): true | null {
  return reader.attempt(() => {
    reader.take('(?:from|between|at)\\s+');
    const first = reader.take(COMPACT);
    const start = first ?? reader.take(EDGE);
    const end =
      start &&
      reader.take(`(?:${TO}|\\s+and\\s+)`) &&
      (reader.take(`${COMPACT}(?!-)`) ?? (first ? reader.take(EDGE) : null));
    return start && end ? addWindow(reader, draft, start[0], end[0]) : null;
  });
}

function between(reader: Reader, draft: Draft): true | null {
  return reader.attempt(() => {
    const word = reader.take('(?:from|between|at)\\s+')?.[0].trim().toLowerCase();
    const start = reader.take(HOUR);
    const to = start && (reader.take(TO) ?? (word === 'between' ? reader.take('\\s+and\\s+') : null));
    const end = to && reader.take(HOUR);
    if (!start || !end || reader.sees('-\\d{4}')) return null;
    const [first, last] = [edgeOf(start[0], false), edgeOf(end[0], true)];
    const plain = [start[0], end[0]].every(
      (one) => /^(?:\d+|[a-z]+)$/i.test(one.trim()) && !/noon|midday|midnight|open|clos|^sun/i.test(one.trim()),
    );
    if (plain && last === null) return null;
    // "1 to 5 and 10 to 15 December" are dates.
    if (plain && reader.sees(`\\s+(?:and|&)\\s+\\d{1,2}${TO}\\d{1,2}(?:st|nd|rd|th)?\\s+(?:of\\s+)?${MONTH}`))
      return null;
    if (reader.sees(`${TO}${HOUR}`)) {
      reader.error = 'Write a time before the hour with its minutes, as “5 minutes to 9” or “8:55”.';
      return true;
    }
    // 9 to 5 ends in the afternoon, unless it is meant over night.
    const startsByNoon = isBare(start[0]) || /^12/.test(first ?? '');
    // "11:00–10:30" is how a window over night is written down.
    const isExact = to?.[0].includes('–') && [start, end].every(([one]) => /^\d\d:\d\d/.test(one.trim()));
    const overNight = !isExact && startsByNoon && isBare(end[0]) && first !== null && last !== null && last <= first;
    // Of today, what is still to come: "today from 3 to 5".
    const { time: now, today } = reader.context;
    const isToday = (draft.from === today && draft.to === today) || reader.sees('\\s*,?\\s*today\\b');
    const isOver = first !== null && last !== null && first < last && (parseClock(last) ?? 0) <= (now ?? -1);
    if (isToday && isOver && isBare(start[0]) && isBare(end[0]) && draft.part === undefined && !saysPart(reader))
      return addWindow(reader, draft, laterEdge(first, 12 * 60), laterEdge(last, 12 * 60));
    if (overNight && draft.part === undefined && !saysPart(reader) && reader.ways.of('over night', 2) === 0)
      return addWindow(reader, draft, start[0], laterEdge(last, 12 * 60));
    addWindow(reader, draft, withHalf(start[0], end[0]), end[0]);
    if (!to?.[0].includes('–')) endOnNextDate(draft.windows);
    return true;
  });
}

/** By itself a window with the sun in it ends on the next date from late to early alone: "sunrise to 2am", "sunset to sunset" say so. */
function endOnNextDate(windows: WrittenWindow[]): void {
  const [start = '', end = ''] = windows.at(-1) ?? [];
  if ((start.startsWith('sunrise') && end < '04:00') || (/^sun/.test(start) && start === end))
    windows.splice(-1, 1, [start, end, 1]);
}

/** Whether a part of the day follows: "10 to 2 tonight". */
const saysPart = (reader: Reader) =>
  reader.sees(`\\s*,?\\s*(?:(?:this|tomorrow|in\\s+the|at)\\s+)?(?:${Object.keys(PARTS).join('|')}|tonight)\\b`);

function oneSided(reader: Reader, draft: Draft): true | null {
  return reader.attempt(() => {
    reader.take(`for\\s+(?:the\\s+)?(?=${LENGTH}\\s+(?:before|after)\\b)`);
    const bound = reader.take(
      '(?:but\\s+)?not?\\s+(before|earlier\\s+than|sooner\\s+than|after|later\\s+than)\\s+',
    )?.[1];
    const open = bound
      ? /^(?:after|later)/i.test(bound)
        ? 'up to'
        : 'from'
      : reader.take('(from|after|starting(?:\\s+at)?|until|till|before|up\\s+to|by|to|at|@)\\s*')?.[1]?.toLowerCase();
    const edge = reader.take(EDGE) ?? (open === undefined ? partHour(reader) : reader.take(HOUR));
    if (!edge) return null;
    const upTo = open !== undefined && /^(until|till|before|up|by|to)/.test(open);
    if (upTo)
      return /^(until|till|to)/.test(open)
        ? setEnd(reader, draft, edge[0])
        : addWindow(reader, draft, '00:00', edge[0]);
    const begins = eitherHalf(reader, draft, edge[0], false);
    if (begins === null) return timeError(reader, edge[0]);
    if (begins === '12:00' && (draft.partHours?.[0] ?? begins) > begins) return midnightError(reader);
    const last = draft.windows.at(-1);
    if (draft.begins !== undefined && last?.[0] === draft.begins && last[1] === '24:00') {
      reader.error = `There are two starts, ${draft.begins} and ${begins}. Write when the first one ends.`;
      return true;
    }
    // "weekdays at 7:30 and 16:30 for half an hour"
    if (draft.begins !== undefined && draft.windows.length === 0) draft.alsoBegins.push(begins);
    else draft.begins = begins;
    draft.bare = [isBare(edge[0]), false];
    const onward = reader.take('\\s+(?:and\\s+)?(?:onwards?\\b|on\\s*$)') !== null;
    const goesOn = onward || (open !== undefined && open !== 'at' && open !== '@');
    const another = () => reader.take(`${ALSO}(${HOUR})(?!${TO})`)?.[1] ?? null;
    for (let more = goesOn ? null : reader.attempt(another); more !== null; more = reader.attempt(another)) {
      const also = edgeOf(more, false);
      if (also === null) return timeError(reader, more);
      draft.alsoBegins.push(also);
    }
    if (goesOn && draft.lasts === undefined && !reader.sees('\\s*,?\\s*(?:for\\s|\\+)'))
      draft.windows.push([begins, onward ? '24:00' : endOfPart(draft, begins)]);
    return true;
  });
}

/** Until when what begins in a part of the day goes on: an evening has no end but midnight. */
function endOfPart({ part, partHours }: Draft, begins: string): string {
  if (partHours === undefined || part === 'evening') return '24:00';
  const [start, end] = partHours;
  return end > begins || (end < start && begins >= start) ? end : '24:00';
}

/** "8 tonight": an hour, because a part of the day follows. */
function partHour(reader: Reader): RegExpExecArray | null {
  return reader.attempt(() => {
    const hour = reader.take(HOUR);
    return hour && saysPart(reader) ? hour : null;
  });
}

/** A time that stands alone: "8" is of the part of the day that was said, else in either half of it. Null for none. */
function eitherHalf(reader: Reader, draft: Draft, written: string, end: boolean): string | null {
  const edge = edgeOf(written, end);
  // "tonight until 12"
  if (edge === '12:00' && end && draft.part !== undefined && (draft.partHours?.[0] ?? edge) > edge) return '24:00';
  if (edge === null || !isBare(written)) return edge;
  const second = laterEdge(edge, 12 * 60);
  if (draft.part !== undefined && end)
    return inPart(draft.part, [draft.partHours?.[0] ?? edge, edge], [false, true])[1];
  if (draft.part !== undefined) return inPart(draft.part, [edge, '24:00'], [true, false])[0];
  if (saysPart(reader) || !/^\d{1,2}$|^[a-z]+$/i.test(written.trim())) return edge;
  // Of today, what is still to come.
  const own = reader.context.time;
  const undated = draft.days.size === 0 && !draft.daily && draft.rule === undefined && draft.from === undefined;
  const past = end && undated && own !== undefined && (parseClock(edge) ?? 0) <= own && (parseClock(second) ?? 0) > own;
  return (reader.ways.of('half of the day', 2) === 0) === past ? second : edge;
}

/** The end of what began before it: now, or a time that was said; else the day's beginning. */
export function setEnd(reader: Reader, draft: Draft, written: string): true {
  const end = eitherHalf(reader, draft, written, true);
  if (end === null) return timeError(reader, written);
  closeOpen(draft);
  draft.ends = end;
  return true;
}

function timeError(reader: Reader, written: string): true {
  reader.error = `“${written.trim()}” isn’t a time of day. Write it like 05:30, or write opening, closing, sunrise or sunset.`;
  return true;
}

/** "12 tonight" is of another date than what else is tonight. */
function midnightError(reader: Reader): true {
  reader.error = 'Midnight begins the next day. Write that date, and 00:00.';
  return true;
}

function addWindow(reader: Reader, draft: Draft, start: string, end: string): true {
  const [first, last] = [edgeOf(start, false), edgeOf(end, true)];
  if (!first || !last) return timeError(reader, first ? end : start);
  const bare = [isBare(start), isBare(end)] as const;
  draft.windows.push(draft.part === undefined ? [first, last] : inPart(draft.part, [first, last], bare));
  if (draft.part === undefined) draft.bare = bare;
  return true;
}
