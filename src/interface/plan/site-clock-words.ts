import {
  DAY_WORDS,
  MONTH_WORDS,
  addDays,
  civil,
  dateOfLocalTime,
  formatLocalTime,
  startOfDate,
  weekdayIndex,
  type LocalDate,
  type LocalTime,
} from '@/core/when';

/** "Wed 25 Nov". */
export function dateWords(date: LocalDate): string {
  const { day, month } = civil(date);
  return `${DAY_WORDS[weekdayIndex(date)] ?? ''} ${day} ${MONTH_WORDS[month - 1] ?? ''}`;
}

/** "05:30–10:00"; an end at midnight is 24:00. */
export function clockSpan(start: LocalTime, end: LocalTime): string {
  const midnight = end === startOfDate(addDays(dateOfLocalTime((end - 1) as LocalTime), 1));
  return `${formatLocalTime(start)}–${midnight ? '24:00' : formatLocalTime(end)}`;
}

/** "Wed 25 Nov 05:30–10:00". */
export function spanWords(start: LocalTime, end: LocalTime): string {
  return `${dateWords(dateOfLocalTime(start))} ${clockSpan(start, end)}`;
}
