import { formatDate, weekdayIndex, type LocalDate } from '../dates';
import type { Draft } from './draft';
import { clockOf } from './edges';
import type { Reader } from './reader';

/** One piece of a phrase: whether it stood here, and was taken. */
export type Clause = (reader: Reader, draft: Draft) => boolean;

export const clause =
  (read: (reader: Reader, draft: Draft) => true | null): Clause =>
  (reader, draft) =>
    reader.attempt(() => read(reader, draft)) ?? false;

/** The time of day that it is now, as an edge. */
export const nowEdge = (reader: Reader): string => clockOf(reader.context.time ?? 0);

/** Other days after hours: whether these are theirs too is not known. */
export function otherHours(reader: Reader): true {
  reader.error = 'Write the hours for each of these days, e.g. “weekdays 07:00–10:00 and weekends 10:00–16:00”.';
  return true;
}

/** A single date: the first is the whole range, more of them are added. */
export function addDate(reader: Reader, draft: Draft, date: LocalDate): true {
  if (draft.from === undefined && draft.to === undefined) {
    draft.onDate = date;
    draft.hoursBefore = draft.windows.length;
    return setRange(reader, draft, date, date);
  }
  // "10:00–11:00 on 5 and 7 December" is for all of them, "5 Dec 10:00–11:00, 7 Dec" may not be.
  if (draft.windows.length > draft.hoursBefore) return otherHours(reader);
  draft.also.push(formatDate(date));
  return true;
}

export function setRange(reader: Reader, draft: Draft, from: LocalDate, to: LocalDate): true {
  if (draft.from !== undefined && draft.to !== undefined && (draft.from !== from || draft.to !== to))
    reader.error = 'Write one range of dates here. Make another booking for the others.';
  if (to < from) reader.error = 'The last day comes before the first.';
  draft.from = from;
  draft.to = to;
  return true;
}

const DAY_NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

/** That a date is not of the weekday that was said of it. */
export const otherWeekday = (date: LocalDate): string =>
  `${formatDate(date)} is a ${DAY_NAMES[weekdayIndex(date)] ?? ''}. Write only the weekday or only the date.`;
