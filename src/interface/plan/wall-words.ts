import {
  addDays,
  civil,
  dateOfLocalTime,
  formatLocalTime,
  startOfDate,
  weekdayIndex,
  type LocalDate,
  type LocalTime,
} from '@/core';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
export const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** "Wed 25 Nov". */
export function dateWords(date: LocalDate): string {
  const { day, month } = civil(date);
  return `${DAYS[weekdayIndex(date)] ?? ''} ${day} ${MONTHS[month - 1] ?? ''}`;
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
