import { addDays, formatDate, type LocalDate } from '../dates';
import { addDate, clause, setRange } from './clause';
import { shortRange } from './dates';
import type { Draft } from './draft';
import type { Reader } from './reader';
import { namedDays, seasonMonths } from './spans';
import { NTH_WORD, TO } from './vocabulary';
import { monthList, weekdayList } from './weekdays';

const EXCEPT =
  '(?:but\\s+)?(?:except(?:ing)?|excluding|without|not|never|other\\s+than|apart\\s+from|save(?:\\s+for)?|unless|(?:that|which|if)\\s+(?:are|is|it\\s+is)\\s+not|closed(?=\\s+(?:on|for|in|during|at|over|between|from)\\s)|outside(?:\\s+of)?(?!(?:\\s+of)?\\s+(?:the\\s+)?(?:opening|business|working|office|trading)\\s)|no)(?!\\s+(?:before|after|earlier|later|sooner)\\b)(?:\\s+(?:on|for|in|during|at|over(?!\\s+(?:the\\s+)?(?:coming|weekend|easter|christmas|new))))?\\s+';

export const exceptions = clause((reader, draft) => {
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
      'What comes by a rule of its own can\'t be left out in words: name its dates, or put them into a calendar and say "not on" it.';
    return true;
  }
  const known = reader.context.calendars.map(({ id }) => id).join(', ') || 'none yet';
  reader.error = `"${reader.rest()}" is no day, no date and no calendar: calendars are ${known}.`;
  return true;
});

/** One thing that is left out, added or asked for. */
function named(reader: Reader, draft: Draft, kind: 'also' | 'only' | 'not'): true | null {
  reader.take('(?:on|in|the\\s+(?=(?:\\d|first|last)))\\s*');
  const calendar = reader.calendar() ?? holidays(reader);
  if (calendar === null && reader.error !== null) return null;
  if (calendar !== null) {
    if (kind === 'also') reader.error = 'A calendar can be asked for by "only on" or "not on": "also" takes dates.';
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
    const known = shortRange(reader) ?? namedDays(reader);
    if (known) return known;
    const word = reader.take('(?:from|between)\\s+(?:the\\s+)?');
    const first = reader.date();
    const join = /^between/i.test(word?.[0] ?? '') ? `(?:${TO}|\\s+and\\s+)` : TO;
    const last = first === null ? null : reader.attempt(() => (reader.take(join) ? reader.date(first) : null));
    return first === null || (word && last === null) ? null : [first, last ?? first];
  });
}

/** "on public holidays", "during the storm timetable". */
export const calendars = clause((reader, draft) => {
  const before = reader.read();
  const word = reader.take('(?:on|during|in|for|at|when|while)\\s+(?:all\\s+)?');
  const calendar = reader.calendar() ?? holidays(reader);
  if (calendar !== null) reader.take('\\s+(?:is|are)\\s+(?:on|in\\s+force|running|active)\\b');
  if (calendar === null && reader.error === null && reader.take(HOLIDAYS))
    reader.error = 'No calendar of holidays is known: add one to the calendars, or name one of them.';
  if (calendar === null) return reader.error === null ? null : true;
  // "weekdays on storm-days" are those of both, "weekends and holidays" those of either.
  const isAnother = /(?:\b(?:and|or)|&) *$/i.test(before) || (word === null && /, *$/.test(before));
  if (isAnother && (draft.days.size > 0 || draft.rule !== undefined))
    reader.error = 'Days of the week and the days of a calendar are two bookings: say one of them here.';
  draft.only.push(calendar);
  return true;
});

const HOLIDAYS = '(?:the\\s+)?(?:(?:public|bank|national)\\s+)?holidays?\\b';

/** "public holidays": the only calendar that is called so. */
function holidays(reader: Reader): string | null {
  const ofAll = reader.sees('(?:the\\s+)?(?:public|bank|national)\\s');
  const found = reader.context.calendars.filter(
    ({ name }) => /holiday/i.test(name) && !(ofAll && /school/i.test(name)),
  );
  const [one] = found;
  if (!one || !reader.take(HOLIDAYS)) return null;
  if (found.length === 1) return one.id;
  reader.error = `There are several calendars of holidays: name one of ${found.map(({ name }) => name).join('; ')}.`;
  return null;
}
