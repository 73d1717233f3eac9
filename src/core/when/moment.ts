import { DAY as A_DAY, MINUTE } from '../instant';
import { done, misread, type Result } from '../refusal';
import { addDays, startOfDate, weekdayIndex, type LocalDate, type LocalTime } from './dates';
import { DAY, EDGE, LENGTH, Reader, edgeOf, minutesOf, weekdayNumber } from './phrase';
import { parseClock } from './written';

/**
 * Reads one time of a local clock in words: "tomorrow 06:10", "Wed 6pm", "5 Dec 14:00:30", "noon". Without a date it is
 * `today`'s, a weekday is the next one (today's own included), without a time it is that of `time` (milliseconds after midnight).
 */
export function readMoment(text: string, today: LocalDate, time: number): Result<LocalTime> {
  const reader = new Reader(text, { today, calendars: [] });
  let date: LocalDate | null = null;
  let clock: number | null = null;
  for (;;) {
    reader.skip(/(?:[\s,]|\bat\b|\bon\b)+/);
    if (reader.done) break;
    const edge: RegExpExecArray | null = clock === null ? reader.take(EDGE) : null;
    // "31 Dec 24:00", and "New Year's Eve midnight", are the end of that day.
    const isEnd: boolean = edge !== null && date !== null && edgeOf(edge[0], true) === '24:00';
    const written: string | null = edge && edgeOf(edge[0], false);
    if (isEnd) clock = A_DAY;
    else if (edge) clock = written === null ? NaN : (parseClock(written) ?? NaN);
    else date = date === null ? readDate(reader, today) : null;
    if (Number.isNaN(clock) || (!edge && date === null))
      return misread(
        reader.error ?? `“${text.trim()}” isn’t a time. Write it like “tomorrow 06:10” or “5 Dec 14:00”.`,
        reader.at,
      );
    if (reader.error) return misread(reader.error, reader.at);
  }
  return done((startOfDate(date ?? today) + (clock ?? time)) as LocalTime);
}

/** How far from now a time is, in milliseconds, where it is said so: "in 2 hours", "+2h", "30 min ago", "now". Null for what is none. */
export function readShift(text: string): number | null {
  const written = text.trim();
  if (/^(?:right )?now$/i.test(written)) return 0;
  const found = new RegExp(
    `^(?:(in\\s+|\\+\\s*)|([-−]\\s*))?(${LENGTH})(\\s+ago|\\s+from\\s+now|\\s+later)?$`,
    'i',
  ).exec(written);
  if (!found) return null;
  const [, forth, back, length = '', after] = found;
  if (forth === undefined && back === undefined && after === undefined) return null;
  const isBack = back !== undefined || /ago/i.test(after ?? '');
  return (isBack ? -1 : 1) * minutesOf(length) * MINUTE;
}

function readDate(reader: Reader, today: LocalDate): LocalDate | null {
  if (reader.take('yesterday\\b')) return addDays(today, -1);
  if (reader.sees('(?:this|next)\\b')) return reader.date();
  const weekday = reader.take(DAY);
  if (weekday) return addDays(today, (weekdayNumber(weekday[0]) - weekdayIndex(today) + 7) % 7);
  return reader.date();
}
