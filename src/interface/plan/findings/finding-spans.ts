import type { Instant } from '@/core/instant';
import {
  MONTH_WORDS,
  addDays,
  civil,
  dateOf,
  dateOfLocalTime,
  startOfDate,
  toInstant,
  toLocalTime,
  zoneTable,
  type LocalDate,
} from '@/core/when';
import { dateWords } from '../site-clock-words';

/** A span that findings are asked for, named by what it is. */
export interface FindingSpan {
  readonly name: string;
  readonly from: Instant;
  readonly to: Instant;
}

/** How many months after this one are offered by name. */
const MONTHS_AHEAD = 3;

/** What the plan shows; this month and the three that follow; and those three together. Each by a zone's clock. */
export function findingSpans(shown: readonly [Instant, Instant], now: Instant, zone: string): FindingSpan[] {
  const table = zoneTable(zone);
  const dateAt = (at: Instant) => dateOfLocalTime(toLocalTime(table, at));
  const first = dateAt(shown[0]);
  const last = addDays(dateAt(shown[1]), -1);
  const { year, month } = civil(dateAt(now));
  const monthAhead = (ahead: number): LocalDate => {
    const months = year * 12 + (month - 1) + ahead;
    return dateOf(Math.floor(months / 12), (months % 12) + 1, 1);
  };
  const begin = (ahead: number) => toInstant(table, startOfDate(monthAhead(ahead)));
  const nameOf = (ahead: number) => {
    const { year: y, month: m } = civil(monthAhead(ahead));
    return `${MONTH_WORDS[m - 1] ?? ''} ${y}`;
  };
  const months = Array.from({ length: MONTHS_AHEAD + 1 }, (_, i) => i);
  return [
    {
      name: first === last ? dateWords(first) : `${dateWords(first)} – ${dateWords(last)}`,
      from: shown[0],
      to: shown[1],
    },
    ...months.map((i) => ({ name: nameOf(i), from: begin(i), to: begin(i + 1) })),
    { name: `${nameOf(1)} to ${nameOf(MONTHS_AHEAD)}`, from: begin(1), to: begin(MONTHS_AHEAD + 1) },
  ];
}
