import { WEEKDAYS, civil, daysInMonth, type LocalDate } from '../dates';
import { clause } from './clause';
import { shortRange } from './dates';
import { MOVING } from './feasts';
import type { Draft } from './draft';
import type { Reader } from './reader';
import { DAY, MONTH, NTH, NTH_WORD, NUMBER, TO, monthNumber, numberOf, weekdayNumber } from './vocabulary';
import { monthList } from './weekdays';

/** "second and fourth Thursday", "last working day of the month", "on the 1st and 15th", "every third day", "every year on 17 May". */
export const rules = clause(
  (reader, draft) =>
    times(reader, draft) ?? everySoManyDays(reader, draft) ?? yearly(reader, draft) ?? monthly(reader, draft),
);

const OF_MONTH = '\\s+(?:of|in)\\s+(?:the|every|each|a)\\s+month\\b|\\s+(?:every|each|a)\\s+month\\b|\\s+monthly\\b';

/** "5 times", "for 5 Mondays". */
function times(reader: Reader, draft: Draft): true | null {
  const found =
    reader.take(`(?:for\\s+)?(${NUMBER})\\s+times\\b(?!\\s+an?\\s)`) ??
    reader.take(`(?:for|on)\\s+(?:the\\s+next\\s+)?(?!an?\\s)(${NUMBER})\\s+(?=${DAY})`) ??
    reader.take(`(?:the\\s+)?next\\s+(?!an?\\s)(${NUMBER})\\s+(?=${DAY})`);
  const count = numberOf(found?.[1] ?? '0');
  if (!found || count < 1) return null;
  draft.count = count;
  return true;
}

const EACH_YEAR = '(?:(?:every|each)\\s+year|yearly|annually|once\\s+a\\s+year)';

/** "every year on 17 May", "every 4th Thursday in November", "every year from 1 to 24 December", "every May". */
function yearly(reader: Reader, draft: Draft): true | null {
  return reader.attempt(() => {
    const after = reader.attempt(() => {
      reader.take('on\\s+(?:the\\s+)?');
      const date = reader.sees(MOVING) ? null : reader.date();
      return date !== null && reader.take(`,?\\s+${EACH_YEAR}\\b`) ? date : null;
    });
    if (after !== null) return eachYear(reader, draft, after, after);
    const word = reader.take(`${EACH_YEAR},?(?:\\s+(?:on|in|from|during))?\\s+(?:the\\s+)?`);
    if (!word && !reader.take('(?:every|each)\\s+(?=\\d|[a-z])')) return null;
    const nth = reader.take(`(${NTH_WORD})\\s+(${DAY})\\s+(?:in|of)\\s+${MONTH}`);
    if (nth) {
      const [, n = '', day = '', month = ''] = nth;
      draft.rule = `FREQ=YEARLY;BYMONTH=${monthNumber(month)};BYDAY=${NTH[n.toLowerCase()] ?? 1}${WEEKDAYS[weekdayNumber(day)] ?? 'MO'}`;
      return true;
    }
    const months = monthList(reader);
    if (months.length > 0) {
      draft.months = months;
      draft.daily = true;
      return true;
    }
    if (reader.sees(MOVING)) {
      reader.error = 'It is on another date each year: say the date, or name a calendar that has it.';
      return true;
    }
    const short = shortRange(reader);
    const first = short?.[0] ?? reader.date();
    if (first === null || (!word && reader.done && reader.error)) return null;
    const last = short?.[1] ?? reader.attempt(() => (reader.take(TO) ? reader.date(first) : null)) ?? first;
    return eachYear(reader, draft, first, last);
  });
}

/** Days of one month, or whole months: a rule can't say other dates of each year. */
function eachYear(reader: Reader, draft: Draft, first: LocalDate, last: LocalDate): true {
  const [from, to] = [civil(first), civil(last)];
  if (from.year === to.year && from.month === to.month)
    draft.rule = `FREQ=YEARLY;BYMONTH=${from.month};BYMONTHDAY=${Array.from({ length: last - first + 1 }, (_, i) => from.day + i).join()}`;
  else if (from.day === 1 && to.day === daysInMonth(to.year, to.month)) {
    const count = (to.year - from.year) * 12 + to.month - from.month + 1;
    draft.months = Array.from({ length: Math.min(count, 12) }, (_, i) => ((from.month - 1 + i) % 12) + 1);
    draft.daily = true;
  } else
    reader.error = 'Each year, dates lie in one month, or are whole months: book the parts apart, or say the year.';
  return true;
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
    const the = /the/i.test(reader.take('(?:on\\s+)?(?:the\\s+)?')?.[0] ?? '');
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
    const ofMonth = reader.attempt(() => {
      const found = reader.take(`(first|last)(?=${OF_MONTH})`);
      return found && ends(true) ? found[1]?.toLowerCase() : null;
    });
    if (ofMonth) {
      draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${ofMonth === 'last' ? -1 : 1}`;
      return true;
    }
    const numbers = reader.list(() =>
      reader.take(`(?:the\\s+)?(\\d{1,2})(?:st|nd|rd|th)\\b(?:\\s+day\\b)?(?!\\s+(?:of\\s+)?${MONTH})(?!${TO})`),
    );
    // Several of them are each month's; one alone may be a date.
    const goesOn = reader.sees('\\s*(?:,|and\\b|&)\\s*(?:the\\s+)?\\d');
    const several =
      numbers.length > 1 ||
      (the && !goesOn && numbers.length === 1 && each === undefined && reader.ways.of('of each month', 2) === 1);
    if (numbers.length === 0 || (!ends(each === undefined) && !several)) return null;
    draft.rule = `FREQ=MONTHLY;BYMONTHDAY=${numbers.map((one) => one[1]).join()}`;
    return true;
  });
}

export const byRule = clause((reader, draft) => {
  const written = reader.take('by the rule\\s+(\\S+)')?.[1] ?? '';
  let end = written.length;
  while (end > 0 && ',;'.includes(written[end - 1] ?? '')) end--;
  if (end === 0) return null;
  draft.rule = written.slice(0, end);
  return true;
});
