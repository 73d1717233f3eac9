'use client';

import { ChevronLeft, ChevronRight } from 'lucide-react';
import { MONTH_WORDS, addDays, civil, dateOf, weekdayIndex, type LocalDate } from '@/core/when';
import { Button } from '@/interface/kit/controls/button';
import { monthSpan } from './gestures/carried';
import { dateWords } from './site-clock-words';

export const VIEWS = ['day', 'week', 'month', 'year', 'list'] as const;
export type View = (typeof VIEWS)[number];

/** The dates that a view shows. */
export function spanOf(view: View, date: LocalDate): readonly [LocalDate, LocalDate] {
  if (view === 'day') return [date, date];
  if (view === 'month') return monthSpan(date);
  const { year } = civil(date);
  // A year is too long to look for findings in: the quarter that is looked at.
  if (view === 'year') return [date, Math.min(addDays(date, 90), dateOf(year, 12, 31)) as LocalDate];
  const monday = addDays(date, -weekdayIndex(date));
  return [monday, addDays(monday, 6)];
}

/** The dates that are looked at, and the way to those before and after. */
export function Steps({
  view,
  date,
  first,
  last,
  onDate,
  onToday,
}: {
  view: View;
  date: LocalDate;
  first: LocalDate;
  last: LocalDate;
  onDate: (date: number) => void;
  onToday: () => void;
}) {
  const { year, month, day } = civil(date);
  const thisYear = new Date().getFullYear();
  const step = (by: 1 | -1) => {
    if (view === 'day') return onDate(date + by);
    if (view === 'week') return onDate(date + by * 7);
    const months = year * 12 + month - 1 + by * (view === 'year' ? 12 : 1);
    const [y, m] = [Math.floor(months / 12), (months % 12) + 1];
    return onDate(dateOf(y, m, Math.min(day, 28)));
  };
  const title =
    view === 'year'
      ? String(year)
      : view === 'month'
        ? `${MONTH_WORDS[month - 1] ?? ''} ${year}`
        : view === 'day'
          ? `${dateWords(date)} ${year}`
          : `${dateWords(first)} – ${dateWords(last)}${civil(last).year === thisYear ? '' : ` ${civil(last).year}`}`;
  return (
    <div className="flex items-center gap-1">
      <button
        type="button"
        aria-label={`The ${view} before`}
        onClick={() => step(-1)}
        className="p-1.5 hover:text-tide"
      >
        <ChevronLeft size={18} aria-hidden />
      </button>
      <span className="min-w-32 text-center font-semibold" data-testid="plan-span">
        {title}
      </span>
      <button type="button" aria-label={`The ${view} after`} onClick={() => step(1)} className="p-1.5 hover:text-tide">
        <ChevronRight size={18} aria-hidden />
      </button>
      <Button variant="quiet" onClick={onToday}>
        today
      </Button>
    </div>
  );
}
