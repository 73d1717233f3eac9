import { addDays, formatDate, type LocalDate } from '../dates';
import { addDate, clause, setRange } from './clause';
import { current, shortRange } from './dates';
import type { Draft } from './draft';
import type { Reader } from './reader';
import { namedDays, seasonMonths } from './spans';
import { DAY, NTH_WORD, TO } from './vocabulary';
import { monthList, weekdayList } from './weekdays';

/** What leaves days out: "except", "not on", "closed on", "but" before days that are named. */
export const EXCEPT = `(?:but\\s+)?(?:except(?:ing)?|excluding|without|not|never|other\\s+than|apart\\s+from|save(?:\\s+for)?|unless|(?:that|which|if)\\s+(?:are|is|it\\s+is)\\s+not|closed(?=\\s+(?:(?:on|for|in|during|at|over|between|from)\\s|week-?ends?\\b|${DAY}))|outside(?:\\s+of)?(?!(?:\\s+of)?\\s+(?:the\\s+)?(?:opening|business|working|office|trading)\\s)|no)(?!\\s+(?:before|after|earlier|later|sooner)\\b)(?:\\s+(?:on|for|in|during|at|over(?!\\s+(?:the\\s+)?(?:coming|weekend|easter|christmas|new))))?\\s+`;

export const exceptions = clause((reader, draft) => {
  const shut = reader.attempt(() => {
    const list = weekdayList(reader);
    return list.length > 0 && reader.take('\\s+(?:(?:is|are|we\\s+are|it\\s+is)\\s+)?(?:closed|shut|off)\\b')
      ? list
      : null;
  });
  for (const day of shut ?? []) draft.notDays.add(day);
  if (shut) return true;
  const word =
    reader.take(`${EXCEPT}`) ??
    reader.take(
      '(?:and\\s+)?(?:also|plus)(?:\\s+on)?\\s+|(?:but\\s+)?(?:only|just)\\b(?:\\s+(?:on|in|during)\\b)?\\s*',
    ) ??
    reader.take('but\\s+(?!on\\b|from\\b)');
  if (!word) return null;
  const kind = /also|plus/i.test(word[0]) ? 'also' : /only|just/i.test(word[0]) ? 'only' : 'not';
  const found = reader.list(() => named(reader, draft, kind));
  if (found.length > 0 || reader.error !== null) return true;
  if (kind === 'only') return true;
  if (reader.sees(`(?:the\\s+)?(?:${NTH_WORD}\\s|every\\s)`)) {
    reader.error =
      'A repeating day can’t be left out in words. Write its dates, or put them into a calendar and write “not on” with its name.';
    return true;
  }
  const known = reader.context.calendars.map(({ id }) => id).join(', ') || 'none yet';
  reader.error = `“${reader.rest()}” isn’t a day, a date or a calendar. Your calendars: ${known}.`;
  return true;
});

/** One thing that is left out, added or asked for. */
function named(reader: Reader, draft: Draft, kind: 'also' | 'only' | 'not'): true | null {
  reader.take('(?:on|in|the\\s+(?=(?:\\d|first|last)))\\s*');
  const calendar = reader.calendar() ?? holidays(reader);
  if (calendar === null && reader.error !== null) return null;
  if (calendar !== null) {
    if (kind === 'also') reader.error = 'A calendar can be asked for by “only on” or “not on”: “also” takes dates.';
    else draft[kind].push(calendar);
    return true;
  }
  const range = datesOf(reader);
  if (range !== null) {
    const [first, last] = range;
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
  const months = seasonMonths(reader) ?? monthList(reader);
  if (months.length === 0) return null;
  if (kind === 'not') for (const month of months) draft.notMonths.add(month);
  else draft.months.push(...months);
  return true;
}

/** "24 to 26 Dec", "between 24 Dec and 2 Jan", "next week", "over Easter", "24 Dec". */
function datesOf(reader: Reader): readonly [LocalDate, LocalDate] | null {
  return reader.attempt(() => {
    const begun = reader.read().length;
    const short = shortRange(reader);
    if (short) return current(reader, begun, ...short);
    const named = namedDays(reader);
    if (named) return named;
    const word = reader.take('(?:from|between)\\s+(?:the\\s+)?');
    const first = reader.date();
    const join = /^between/i.test(word?.[0] ?? '') ? `(?:${TO}|\\s+and\\s+)` : TO;
    const last = first === null ? null : reader.attempt(() => (reader.take(join) ? reader.date(first) : null));
    if (first === null || (word && last === null)) return null;
    return last === null ? [first, first] : current(reader, begun, first, last);
  });
}

/** "on public holidays", "during the storm timetable". */
export const calendars = clause((reader, draft) => {
  const before = reader.read();
  const word = reader.take('(?:on|during|in|for|at|when|while)\\s+(?:all\\s+)?');
  if (reader.sees(TERM)) return term(reader, draft);
  const calendar = reader.calendar() ?? holidays(reader);
  if (calendar !== null) reader.take('\\s+(?:is|are)\\s+(?:on|in\\s+force|running|active)\\b');
  if (calendar === null && reader.error === null) {
    const kind = reader
      .take(HOLIDAYS)?.[0]
      .replace(/^the\s+/i, '')
      .toLowerCase();
    if (kind !== undefined) reader.error = noCalendar(kind.endsWith('s') ? kind : `${kind}s`, reader);
  }
  if (calendar === null) return reader.error === null ? null : true;
  // "weekdays on storm-days" are those of both, "weekends and holidays" those of either.
  const isAnother = /(?:\b(?:and|or)|&) *$/i.test(before) || (word === null && /, *$/.test(before));
  if (isAnother && (draft.days.size > 0 || draft.rule !== undefined))
    reader.error = 'Write separate hours for the weekdays and for the calendar’s days.';
  draft.only.push(calendar);
  return true;
});

const HOLIDAYS = '(?:the\\s+)?(?:(?:public|bank|national|school)\\s+)?(?:holidays?|vacations?)\\b';
const TERM = '(?:the\\s+)?(?:school\\s+)?term(?:[- ]?times?|s)?\\b';

/** How a message begins that asks for a calendar which is still to be made. */
export const NO_CALENDAR = 'There isn’t a calendar of ';

function noCalendar(what: string, { context }: Reader): string {
  const known = context.calendars.map(({ name }) => name).join(', ');
  const others = known === '' ? '' : ` Or write “only on” or “not on” one that you have: ${known}.`;
  return `${NO_CALENDAR}${what} yet. Make one in Plan, under Calendars.${others}`;
}

/** "term time": the calendar that is called so, else all but the school's holidays. */
function term(reader: Reader, draft: Draft): true {
  const { calendars } = reader.context;
  const terms = calendars.filter(({ name }) => /\bterms?\b/i.test(name));
  const off = calendars.filter(({ name }) => /school/i.test(name) && /holiday|vacation/i.test(name));
  reader.take(TERM);
  const [own, other] = [terms[0], off[0]];
  if (terms.length > 1 || (terms.length === 0 && off.length > 1))
    reader.error = whichOf(terms.length > 1 ? terms : off);
  else if (own) draft.only.push(own.id);
  else if (other) draft.not.push(other.id);
  else reader.error = noCalendar('school holidays or of terms', reader);
  return true;
}

const whichOf = (calendars: readonly { readonly name: string }[]) =>
  `Which calendar is meant? Name one of ${calendars.map(({ name }) => name).join('; ')}.`;

/** "public holidays", "school holidays": the only calendar that is called so. */
function holidays(reader: Reader): string | null {
  const kind = reader.look('(?:the\\s+)?(public|bank|national|school)\\s')?.[1]?.toLowerCase();
  const found = reader.context.calendars.filter(({ name }) => {
    if (!/holiday|vacation/i.test(name)) return false;
    const isSchool = /school/i.test(name);
    return kind === undefined || (kind === 'school') === isSchool;
  });
  const [one] = found;
  if (!one || !reader.take(HOLIDAYS)) return null;
  if (found.length === 1) return one.id;
  reader.error = whichOf(found);
  return null;
}
