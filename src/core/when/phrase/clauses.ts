import { WEEKDAYS, addDays, civil, dateOf, daysInMonth, formatDate, weekdayIndex, type LocalDate } from '../dates';
import { isZone } from '../zone';
import type { Draft } from './draft';
import { clockOf, edgeOf, withHalf } from './edges';
import { endOf, later, type Reader, type Unit } from './reader';
import {
  DAY,
  EDGE,
  HOUR,
  LENGTH,
  MONTH,
  NTH,
  NTH_WORD,
  NUMBER,
  OVERNIGHT,
  PARTS,
  TO,
  TONIGHT,
  minutesOf,
  monthNumber,
  numberOf,
  weekdayNumber,
} from './vocabulary';

/** One piece of a phrase: whether it stood here, and was taken. */
export type Clause = (reader: Reader, draft: Draft) => boolean;

const clause =
  (read: (reader: Reader, draft: Draft) => true | null): Clause =>
  (reader, draft) =>
    reader.attempt(() => read(reader, draft)) ?? false;

const EVERY_DAY =
  '(?:all\\s+the\\s+time|all\\s+day(?:\\s+long)?|whole\\s+day|a?round\\s+the\\s+clock|24/7|24\\s+hours(?:\\s+a\\s+day)?|(?:seven|7)\\s+days\\s+a\\s+week|daily|(?:every|each)(?:\\s+single)?\\s*day)\\b';

const always = clause((reader, draft) => {
  if (reader.take('always\\b')) draft.endless = true;
  else if (reader.take(EVERY_DAY)) draft.daily = true;
  else return null;
  return true;
});

/** What a booking can't say: it would need one for each. */
const tooOften = clause((reader) => {
  if (!reader.take(`every\\s+(?:${LENGTH}|hour\\b|minute\\b|quarter)|hourly\\b|(?:twice|once)\\s+an\\s+hour\\b`))
    return null;
  reader.error = 'A booking is on air in one piece: what comes again every few minutes is an item of a playlist.';
  return true;
});

/** "now", "from now on", "now until 20:30", "for 10 minutes". */
const now = clause((reader, draft) => {
  if (reader.take('(?:starting\\s+|from\\s+|beginning\\s+)?(?:right\\s+)?now(?:\\s+on)?\\b')) {
    draft.now = true;
    const to = reader.attempt(() => (reader.take(TO) ? reader.take(EDGE) : null));
    if (to) setEnd(reader, draft, to[0]);
    return true;
  }
  const lasts = reader.take(`(?:for\\s+)(?:the\\s+next\\s+)?(${LENGTH})`) ?? reader.take(`the\\s+next\\s+(${LENGTH})`);
  if (!lasts) return null;
  draft.lasts = minutesOf(lasts[1] ?? '');
  return true;
});

/** "tonight", "this morning", "tomorrow evening", "overnight", "mornings". */
const parts = clause((reader, draft) => {
  if (reader.take('tonight\\b')) {
    addDate(reader, draft, reader.context.today);
    return hoursUnlessSaid(reader, draft, TONIGHT);
  }
  if (reader.take('overnight\\b')) return hoursUnlessSaid(reader, draft, OVERNIGHT);
  const found = reader.take(
    `(this\\s+|(?:in|at|during|every|each)\\s+(?:the\\s+)?)?(${Object.keys(PARTS).join('|')})s?\\b`,
  );
  const hours = PARTS[found?.[2]?.toLowerCase() ?? ''];
  if (!found || !hours) return null;
  if (/^this/i.test(found[1] ?? '')) addDate(reader, draft, reader.context.today);
  return hoursUnlessSaid(reader, draft, hours);
});

/** What a part of the day is, unless its hours follow: "overnight 22:00 to 06:00". */
function hoursUnlessSaid(reader: Reader, draft: Draft, [start, end]: readonly [string, string]): true {
  if (
    !reader.sees(`\\s*,?\\s*(?:from\\s+|between\\s+|after\\s+|until\\s+|till\\s+|before\\s+)?${EDGE}`) &&
    !reader.sees(`\\s*,?\\s*(?:from\\s+)?${HOUR}${TO}`)
  )
    draft.windows.push([start, end]);
  return true;
}

/** "next week", "this weekend", "the rest of the month", "December 2026", "for two weeks". */
const spans = clause((reader, draft) => {
  const { today } = reader.context;
  const rest = reader.take('(?:for\\s+)?(?:the\\s+)?rest\\s+of\\s+(?:the\\s+|this\\s+)?(week|month|year)\\b');
  if (rest) return setRange(reader, draft, today, endOf(today, unitOf(rest[1])));
  const named = reader.take(
    '(?:for\\s+|during\\s+|in\\s+|all\\s+(?:of\\s+)?)?(?:the\\s+)?(this|next|coming)\\s+(week(?:end)?|month|year)\\b',
  );
  if (named) {
    const [first, last] = spanNamed(today, named[1] ?? '', named[2] ?? '');
    return setRange(reader, draft, first, last);
  }
  const length =
    reader.take(`for\\s+(?:the\\s+next\\s+|a\\s+total\\s+of\\s+)?(${NUMBER})\\s+(day|week|month|year)s?\\b`) ??
    reader.take(`the\\s+next\\s+(${NUMBER})\\s+(day|week|month|year)s?\\b`) ??
    reader.take(`(${NUMBER})\\s+(day|week|month|year)s?(?=\\s*,?\\s+(?:from|starting|beginning|as\\s+of)\\b)`) ??
    (reader.take('for\\s+a\\s+fortnight\\b') ? ['', '2', 'week'] : null);
  if (length) {
    const count = numberOf(length[1] ?? '1');
    if (count < 1) reader.error = 'Write for how many days or weeks: at least 1.';
    draft.length = { count, unit: length[2]?.toLowerCase() === 'day' ? 'day' : unitOf(length[2]) };
    return true;
  }
  return monthSpan(reader, draft);
});

const unitOf = (word: string | undefined) => (word ?? 'week').toLowerCase() as Unit;

/** A month whose day does not follow; a time of day may. */
const NO_DAY = '(?!\\.?\\s+\\d{1,2}(?:st|nd|rd|th)?(?!\\d|[:.]\\d|\\s*(?:am|pm|h|hrs?|hours?|m|mins?|minutes?)\\b))';

/** "all December", "December 2026", and "in December" where no list of months follows: that December, or each. */
function monthSpan(reader: Reader, draft: Draft): true | null {
  const word =
    reader.take(
      '(?:(?:all|throughout|through|during|for)\\s+(?:of\\s+|the\\s+whole\\s+of\\s+)?|(?:the\\s+)?whole\\s+of\\s+|in\\s+)',
    )?.[0] ?? '';
  const found = reader.take(`${MONTH}(?:\\s+(\\d{4})\\b)?${NO_DAY}(?!\\s*(?:,|and|or)\\s*${MONTH})(?!${TO}${MONTH})`);
  if (!found) return null;
  const [, name = '', year] = found;
  const month = monthNumber(name);
  // With weekdays, or daily, it is each year's.
  const each =
    /^in/i.test(word) && year === undefined && (draft.days.size > 0 || draft.rule !== undefined || saysDaily(reader));
  if (each) return null;
  if (/^in/i.test(word) && year === undefined && reader.ways.of('each month', 2) === 1) return null;
  const { today } = reader.context;
  const own = civil(today);
  const y = year ? Number(year) : own.year + (month < own.month ? 1 : 0);
  const first = dateOf(y, month, 1);
  if (/^through\s/i.test(word) && draft.from === undefined) draft.from = today;
  if (/^through\s/i.test(word))
    return setRange(reader, draft, draft.from ?? today, dateOf(y, month, daysInMonth(y, month)));
  return setRange(
    reader,
    draft,
    year === undefined && first < today ? today : first,
    dateOf(y, month, daysInMonth(y, month)),
  );
}

const saysDaily = (reader: Reader) => /^\s*(?:daily|every\s+day|each\s+day)\b/i.test(reader.read());

function spanNamed(today: LocalDate, which: string, what: string): readonly [LocalDate, LocalDate] {
  const next = which.toLowerCase() !== 'this';
  const monday = addDays(today, (next ? 7 : 0) - weekdayIndex(today));
  switch (what.toLowerCase()) {
    case 'week':
      return [next ? monday : today, addDays(monday, 6)];
    case 'weekend': {
      // The one that comes; "next" is that of next week.
      const saturday = addDays(monday, 5);
      return [saturday < today ? today : saturday, addDays(monday, 6)];
    }
    default: {
      const unit = what.toLowerCase() as Unit;
      const { year, month } = civil(today);
      const first = later(unit === 'year' ? dateOf(year, 1, 1) : dateOf(year, month, 1), next ? 1 : 0, unit);
      return [next ? first : today, endOf(first, unit)];
    }
  }
}

/** "second and fourth Thursday", "last working day of the month", "on the 1st and 15th", "every third day", "every year on 17 May". */
const rules = clause(
  (reader, draft) => yearly(reader, draft) ?? everySoManyDays(reader, draft) ?? monthly(reader, draft),
);

const OF_MONTH = '\\s+(?:of|in)\\s+(?:the|every|each|a)\\s+month\\b|\\s+(?:every|each|a)\\s+month\\b|\\s+monthly\\b';

function yearly(reader: Reader, draft: Draft): true | null {
  return reader.attempt(() => {
    const word = reader.take('(?:(?:every|each)\\s+year|yearly|annually|once\\s+a\\s+year)(?:\\s+on)?\\s+(?:the\\s+)?');
    if (!word && !reader.take('(?:every|each)\\s+(?=\\d|[a-z])')) return null;
    const date = reader.date();
    if (date === null || (!word && reader.done && reader.error)) return null;
    const { month, day } = civil(date);
    draft.rule = `FREQ=YEARLY;BYMONTH=${month};BYMONTHDAY=${day}`;
    return true;
  });
}

function everySoManyDays(reader: Reader, draft: Draft): true | null {
  const step =
    reader.take(`every\\s+(${NUMBER})\\s+days\\b`) ?? reader.take(`every\\s+(other|${NTH_WORD})\\s+day\\b(?!\\s+of)`);
  if (!step) return null;
  const word = (step[1] ?? '').toLowerCase();
  const count = word === 'other' ? 2 : (NTH[word] ?? numberOf(word));
  if (count < 1) return null;
  draft.rule = count === 1 ? 'FREQ=DAILY' : `FREQ=DAILY;INTERVAL=${count}`;
  return true;
}

function monthly(reader: Reader, draft: Draft): true | null {
  return reader.attempt(() => {
    const word = reader.take('(?:monthly|(?:every|each)\\s+month|once\\s+a\\s+month)(?:,?\\s+on)?\\s+')?.[0];
    const each = reader.take('(?:every|each)\\s+')?.[0];
    reader.take('(?:on\\s+)?(?:the\\s+)?');
    const ends = (needed: boolean) => reader.take(OF_MONTH) !== null || word !== undefined || !needed;
    const nth = reader.attempt(() => {
      const found = reader.list(() => reader.take(`${NTH_WORD}(?=\\s|,)`));
      if (found.length === 0 || !reader.sees(`\\s+(?:${DAY}|(?:working\\s+|business\\s+|week)?day|workday)`))
        return null;
      return found.map((one) => NTH[one[0].toLowerCase()] ?? 1);
    });
    if (nth) {
      if (reader.take('\\s+(?:working\\s+day|workday|business\\s+day|weekday)s?\\b')) {
        draft.rule = `FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=${nth.join()}`;
        return ends(false) || null;
      }
      const day = reader.take(`\\s+${DAY}`);
      // Of one month it is a date; "every second Thursday" is each other one.
      if (day && !reader.sees(`\\s+(?:in|of)\\s+${MONTH}`)) {
        const other = each !== undefined && nth.length === 1 && nth[0] === 2;
        if (other && !reader.sees(OF_MONTH) && reader.ways.of('second of the month', 2) === 0) return null;
        draft.rule = `FREQ=MONTHLY;BYDAY=${nth.map((n) => `${n}${WEEKDAYS[weekdayNumber(day[0].trim())] ?? 'MO'}`).join()}`;
        return ends(false) || null;
      }
      if (day) return null;
      if (nth.length === 1 && nth[0] === -1 && reader.take('\\s+day\\b')) {
        draft.rule = 'FREQ=MONTHLY;BYMONTHDAY=-1';
        return ends(true) || null;
      }
      if (nth.every((n) => n > 0) && reader.take('\\s+day\\b')) {
        draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${nth.join()}`;
        return ends(true) || null;
      }
      return null;
    }
    const numbers = reader.list(() =>
      reader.take(`(?:the\\s+)?(\\d{1,2})(?:st|nd|rd|th)\\b(?:\\s+day\\b)?(?!\\s+(?:of\\s+)?${MONTH})`),
    );
    if (numbers.length === 0 || !ends(each === undefined)) return null;
    draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${numbers.map((one) => one[1]).join()}`;
    return true;
  });
}

const byRule = clause((reader, draft) => {
  const written = reader.take('by the rule\\s+(\\S+)')?.[1] ?? '';
  let end = written.length;
  while (end > 0 && ',;'.includes(written[end - 1] ?? '')) end--;
  if (end === 0) return null;
  draft.rule = written.slice(0, end);
  return true;
});

/** Weekdays that are named: 0 is Monday. */
function weekdayList(reader: Reader): number[] {
  return reader
    .list(() => {
      if (reader.take('(?:weekdays?|workdays?|working\\s+days?|business\\s+days?|school\\s+days?)\\b'))
        return [0, 1, 2, 3, 4];
      if (reader.take('week-?ends?\\b')) return [5, 6];
      const day = reader.take(DAY);
      if (!day) return null;
      const last = reader.attempt(() => (reader.take(TO) ? reader.take(DAY) : null));
      const first = weekdayNumber(day[0]);
      const count = last ? (weekdayNumber(last[0]) - first + 7) % 7 : 0;
      return Array.from({ length: count + 1 }, (_, i) => (first + i) % 7);
    })
    .flat();
}

/** What stands before weekdays and says no more than that they are meant: "on", "each", and "from" before a range of them. */
function takeEach(reader: Reader): void {
  if (reader.take('(?:weekly|every\\s+week|each\\s+week|once\\s+a\\s+week),?\\s+(?:on\\s+)?')) return;
  if (reader.take('(?:on|every|each)\\s+(?:the\\s+)?')) return;
  if (reader.sees(`from\\s+${DAY}${TO}${DAY}`) && reader.ways.of('each week', 2) === 0) reader.take('from\\s+');
}

/** Weekdays, alone or every so many weeks. */
const weekdays = clause((reader, draft) => {
  const every =
    reader.take(`every\\s+(other|${NUMBER}|${NTH_WORD})\\s*(?:weeks?\\b)?\\s*,?\\s*(?:on\\s+)?(?=(?:the\\s+)?[a-z])`) ??
    reader.take('(fortnightly|every\\s+fortnight|bi-?weekly),?\\s+(?:on\\s+)?');
  if (!every) takeEach(reader);
  const days = weekdayList(reader);
  if (days.length === 0) return null;
  if (every) {
    const word = (every[1] ?? '').toLowerCase();
    draft.everyWeeks = NTH[word] ?? (/^(other|fortnight|every|bi)/.test(word) ? 2 : numberOf(word));
    if (draft.everyWeeks < 1) return null;
  }
  if (draft.days.size > 0 && draft.windows.length > 0) return otherHours(reader);
  for (const day of days) draft.days.add(day);
  return true;
});

/** A booking has the same hours on all its days. */
function otherHours(reader: Reader): true {
  reader.error = 'Other hours on other days are a booking of their own: say one of them here.';
  return true;
}

const inMonths = clause((reader, draft) => {
  if (!reader.take('in\\s+')) return null;
  const months = monthList(reader);
  draft.months = months;
  return months.length > 0 || null;
});

function monthList(reader: Reader): number[] {
  return reader
    .list(() => {
      const month = reader.take(`${MONTH}${NO_DAY}`);
      if (!month) return null;
      const first = monthNumber(month[0]);
      const last = reader.attempt(() => (reader.take(TO) ? reader.take(MONTH) : null));
      const count = last ? (monthNumber(last[0]) - first + 12) % 12 : 0;
      return Array.from({ length: count + 1 }, (_, i) => ((first - 1 + i) % 12) + 1);
    })
    .flat();
}

/** "opening hours", "outside opening hours". */
const opening = clause((reader, draft) => {
  if (
    reader.take(
      '(?:outside(?:\\s+of)?\\s+(?:the\\s+)?(?:opening|business)\\s+hours|out\\s+of\\s+hours|(?:when|while)\\s+(?:it\\s+is\\s+)?closed)\\b',
    )
  )
    draft.windows.push(['00:00', 'opens'], ['closes', '24:00']);
  else if (
    reader.take(
      '(?:during\\s+|in\\s+|within\\s+)?(?:the\\s+)?(?:(?:opening|business)\\s+hours|hours\\s+of\\s+opening)\\b|(?:when|while)\\s+(?:it\\s+is\\s+|we\\s+are\\s+)?open\\b',
    )
  )
    draft.windows.push(['opens', 'closes']);
  else return null;
  return true;
});

/** Times of day, from one edge to another, or up to or from one. */
const windows: Clause = (reader, draft) =>
  reader.attempt(() => compact(reader, draft) ?? between(reader, draft) ?? oneSided(reader, draft)) ?? false;

/** "0630-0800". */
function compact(reader: Reader, draft: Draft): true | null {
  const found = reader.take(
    `(?:from\\s+|between\\s+)?([0-2]\\d[0-5]\\d)(?:\\s*h)?\\s*(?:-|–|—|to|until|and)\\s*([0-2]\\d[0-5]\\d)(?:\\s*h)?\\b(?!-)`,
  );
  return found ? addWindow(reader, draft, found[1] ?? '', found[2] ?? '') : null;
}

function between(reader: Reader, draft: Draft): true | null {
  return reader.attempt(() => {
    const word = reader.take('(?:from|between|at)\\s+')?.[0].trim().toLowerCase();
    const start = reader.take(HOUR);
    const to = start && (reader.take(TO) ?? (word === 'between' ? reader.take('\\s+and\\s+') : null));
    const end = to && reader.take(HOUR);
    if (!start || !end) return null;
    const bare = [start[0], end[0]].every((one) => /^\d+$/.test(one.trim()));
    if (bare && Number(end[0]) > 24) return null;
    // 9 to 5 ends in the afternoon, unless it is meant over night.
    if (
      bare &&
      Number(end[0]) <= Number(start[0]) &&
      Number(start[0]) <= 12 &&
      Number(end[0]) > 0 &&
      reader.ways.of('over night', 2) === 0
    )
      return addWindow(reader, draft, start[0], String(Number(end[0]) + 12));
    return addWindow(reader, draft, withHalf(start[0], end[0]), end[0]);
  });
}

function oneSided(reader: Reader, draft: Draft): true | null {
  return reader.attempt(() => {
    const open = reader
      .take('(from|after|starting(?:\\s+at)?|until|till|before|up\\s+to|by|to)\\s+')?.[1]
      ?.toLowerCase();
    const edge = open !== undefined && reader.take(EDGE);
    if (edge) {
      if (/^(from|after|starting)/.test(open)) {
        const written = edgeOf(edge[0], false);
        if (written === null) return timeError(reader, edge[0]);
        draft.begins = written;
        if (!reader.sees('\\s*,?\\s*for\\s')) draft.windows.push([draft.begins, '24:00']);
        return true;
      }
      return /^(until|till)/.test(open) ? setEnd(reader, draft, edge[0]) : addWindow(reader, draft, '00:00', edge[0]);
    }
    if (open !== undefined) return null;
    reader.take('(?:at|@)\\s*');
    const alone = reader.take(EDGE);
    if (!alone) return null;
    const written = edgeOf(alone[0], false);
    if (written === null) return timeError(reader, alone[0]);
    draft.begins = written;
    return true;
  });
}

/** The end of what began before it: now, or a time that was said; else the day's beginning. */
function setEnd(reader: Reader, draft: Draft, written: string): true {
  const end = edgeOf(written, true);
  if (end === null) return timeError(reader, written);
  if (draft.begins !== undefined && draft.windows.at(-1)?.[0] === draft.begins) draft.windows.pop();
  draft.ends = end;
  return true;
}

function timeError(reader: Reader, written: string): true {
  reader.error = `${written.trim()} is no time of day: write HH:MM, or opening and closing.`;
  return true;
}

function addWindow(reader: Reader, draft: Draft, start: string, end: string): true {
  const [first, last] = [edgeOf(start, false), edgeOf(end, true)];
  if (!first || !last) return timeError(reader, first ? end : start);
  draft.windows.push([first, last]);
  return true;
}

const EXCEPT =
  '(?:but\\s+)?(?:except(?:ing)?|excluding|without|not|never|other\\s+than|apart\\s+from|no)(?:\\s+(?:on|for|in|during|at))?\\s+';

const exceptions = clause((reader, draft) => {
  const word =
    reader.take(`${EXCEPT}`) ??
    reader.take('(?:and\\s+)?(?:also|plus)(?:\\s+on)?\\s+|(?:but\\s+)?only(?:\\s+(?:on|in|during))?\\s+') ??
    reader.take('but\\s+');
  if (!word) return null;
  const kind = /also|plus/i.test(word[0]) ? 'also' : /only/i.test(word[0]) ? 'only' : 'not';
  const found = reader.list(() => named(reader, draft, kind));
  if (found.length > 0 || reader.error !== null) return true;
  if (kind === 'only') return true;
  const known = reader.context.calendars.map(({ id }) => id).join(', ') || 'none yet';
  reader.error = `"${reader.rest()}" is no day, no date and no calendar: calendars are ${known}.`;
  return true;
});

/** One thing that is left out, added or asked for. */
function named(reader: Reader, draft: Draft, kind: 'also' | 'only' | 'not'): true | null {
  reader.take('(?:on|in|the\\s+(?=(?:\\d|first|last)))\\s*');
  const calendar = reader.calendar();
  if (calendar !== null) {
    if (kind === 'also') reader.error = 'A calendar can be asked for by "only on" or "not on": "also" takes dates.';
    else draft[kind].push(calendar);
    return true;
  }
  const short = shortRange(reader);
  const first = short?.[0] ?? reader.date();
  if (first !== null) {
    const last = short?.[1] ?? reader.attempt(() => (reader.take(TO) ? reader.date(first) : null)) ?? first;
    if (kind === 'only') {
      if (last > first) return setRange(reader, draft, first, last);
      return addDate(reader, draft, first);
    }
    const days = Array.from({ length: Math.min(400, last - first + 1) }, (_, i) => formatDate(addDays(first, i)));
    draft[kind === 'also' ? 'also' : 'except'].push(...days);
    return true;
  }
  const days = reader.attempt(() => {
    reader.take('(?:on|every|each)\\s+');
    const list = weekdayList(reader);
    return list.length > 0 ? list : null;
  });
  if (days) {
    if (kind === 'also') for (const day of days) draft.days.add(day);
    else for (const day of days) (kind === 'only' ? draft.days : draft.notDays).add(day);
    return true;
  }
  const months = monthList(reader);
  if (months.length === 0) return null;
  if (kind === 'not') for (const month of months) draft.notMonths.add(month);
  else draft.months.push(...months);
  return true;
}

/** "on public holidays", "during the storm timetable". */
const calendars = clause((reader, draft) => {
  reader.take('(?:on|during|in|for|at)\\s+(?:all\\s+)?');
  const calendar = reader.calendar();
  if (calendar === null) return null;
  draft.only.push(calendar);
  return true;
});

/** "24 to 26 Dec", "1.-24.12.": a range whose month stands once. */
function shortRange(reader: Reader): readonly [LocalDate, LocalDate] | null {
  return reader.attempt(() => {
    const first =
      reader.take(
        `(?:from\\s+|on\\s+)?(?:the\\s+)?(\\d{1,2})(?:st|nd|rd|th)?\\.?${TO}(?=\\d{1,2}(?:st|nd|rd|th)?\\.?\\s*(?:of\\s+)?${MONTH})`,
      ) ?? reader.take('(?:from\\s+|on\\s+)?(\\d{1,2})\\.?\\s*(?:-|–|—)\\s*(?=\\d{1,2}\\.\\s?\\d{1,2}\\.)');
    const to = first && reader.date();
    if (to === null) return null;
    const { year, month } = civil(to);
    return [dateOf(year, month, Number(first?.[1])), to];
  });
}

/** First and last dates, a range, or single dates. */
const dates = clause((reader, draft) => {
  const short = shortRange(reader);
  if (short) return setRange(reader, draft, short[0], short[1]);
  // "Dec 24 to 26": the month stands once.
  const tail = reader.take(
    `(?:from\\s+|on\\s+)?(?=${MONTH}\\.?\\s+\\d{1,2}(?:st|nd|rd|th)?\\s*(?:-|–|—|to)\\s*\\d{1,2}(?![\\d:.]|\\s*(?:${MONTH}|am|pm)))`,
  );
  if (tail) {
    const from = reader.date();
    const last = from !== null && reader.take(`${TO}(\\d{1,2})(?:st|nd|rd|th)?(?:,?\\s+(\\d{4})\\b)?`);
    if (from === null || !last) return null;
    const { year, month } = civil(from);
    const y = last[2] ? Number(last[2]) : year;
    return setRange(
      reader,
      draft,
      last[2] ? dateOf(y, month, civil(from).day) : from,
      dateOf(y, month, Number(last[1])),
    );
  }
  const word =
    reader
      .take(
        '(?:from|since|as\\s+of|starting(?:\\s+(?:on|from))?|beginning(?:\\s+on)?|until|till|through|to|up\\s+to|ending(?:\\s+on)?|ends?(?:\\s+on)?|by|between|on|the)\\s+(?:the\\s+)?',
      )?.[0]
      .trim()
      .toLowerCase() ?? '';
  const ends = /^(until|till|through|to|up to|end|by)/.test(word);
  const starts = /^(from|since|as of|starting|beginning|between)/.test(word);
  const near = ends ? (draft.from ?? reader.context.today) : undefined;
  const first = reader.date(near) ?? (ends || starts ? bareWeekday(reader, near) : null);
  if (first === null) return null;
  if (ends) {
    draft.to = first;
    if (draft.now) draft.from = reader.context.today;
    return true;
  }
  const joined = word.startsWith('between') ? `(?:${TO}|\\s+and\\s+)` : TO;
  const last = reader.attempt(() =>
    reader.take(joined) ? (reader.date(first) ?? (starts ? bareWeekday(reader, first) : null)) : null,
  );
  if (last !== null) return setRange(reader, draft, first, last);
  if (starts) {
    draft.from = first;
    return true;
  }
  return addDate(reader, draft, first);
});

/** "until Friday": the next one. */
function bareWeekday(reader: Reader, near = reader.context.today): LocalDate | null {
  const day = reader.take(DAY);
  return day ? reader.weekday(day[0], near) : null;
}

/** A single date: the first is the whole range, more of them are added. */
function addDate(reader: Reader, draft: Draft, date: LocalDate): true {
  if (draft.from === undefined && draft.to === undefined) return setRange(reader, draft, date, date);
  if (draft.windows.length > 0) return otherHours(reader);
  draft.also.push(formatDate(date));
  return true;
}

function setRange(reader: Reader, draft: Draft, from: LocalDate, to: LocalDate): true {
  if (to < from) reader.error = 'The last day comes before the first.';
  draft.from = from;
  draft.to = to;
  return true;
}

const clock = clause((reader, draft) => {
  if (reader.take("(?:on\\s+)?(?:each\\s+|the\\s+)?site(?:'s|’s)?(?:\\s+own)?\\s+(?:time|clock)\\b")) return true;
  const match = reader.take(
    '(?:in\\s+|on\\s+)?([a-z][a-z0-9_+/-]*(?:\\s+[a-z][a-z0-9_+/-]*){0,3}?)\\s+(?:time|clock)\\b',
  );
  const written = match ? (match[1] ?? '').replaceAll(' ', '_') : (reader.take('UTC\\b')?.[0] ?? '');
  if (written === '') return null;
  const name = written.toLowerCase();
  const known = (reader.context.zones ?? []).find(
    (zone) => zone.toLowerCase() === name || zone.toLowerCase().endsWith(`/${name}`),
  );
  const zone = known ?? (isZone(written) ? written : null);
  if (zone === null) {
    reader.error = `"${match?.[0].trim() ?? written}" names no time zone: write the zone's city, as Oslo time.`;
    return true;
  }
  draft.clock = zone;
  return true;
});

/** In this order: what could be read in two ways is read by the first. */
export const CLAUSES: readonly Clause[] = [
  always,
  byRule,
  tooOften,
  now,
  parts,
  spans,
  rules,
  exceptions,
  weekdays,
  calendars,
  inMonths,
  opening,
  windows,
  dates,
  clock,
];

/** The time of day that it is now, as an edge. */
export const nowEdge = (reader: Reader): string => clockOf(reader.context.time ?? 0);
