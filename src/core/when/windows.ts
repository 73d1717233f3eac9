import { DAY } from '../instant';
import { WEEKDAYS, formatDate, weekdayIndex, type LocalDate } from './dates';
import type { OpeningHours, When } from './schema';

/** One end of a window: milliseconds after midnight, or after (negative: before) the site's opening or closing. */
export interface Edge {
  readonly from: 'midnight' | 'opens' | 'closes';
  readonly offset: number;
}

/** Reads `HH:MM`, `HH:MM:SS`, `24:00` (ends only), `opens` or `closes` with an optional offset. Null when it is none. */
export function parseEdge(text: string, end: boolean): Edge | null {
  if (text === '24:00') return end ? { from: 'midnight', offset: DAY } : null;
  const match = /^(?:(opens|closes)(?:([+-])(.+))?|(\d.*))$/.exec(text);
  if (!match) return null;
  const clock = match[4] ?? match[3];
  const offset = clock === undefined ? 0 : parseClock(clock);
  if (offset === null) return null;
  const from = (match[1] as 'opens' | 'closes' | undefined) ?? 'midnight';
  return { from, offset: match[2] === '-' ? -offset : offset };
}

/** Milliseconds after midnight of `HH:MM` or `HH:MM:SS`, 00:00 to 23:59:59; null otherwise. */
export function parseClock(text: string): number | null {
  const match = /^([01]\d|2[0-3]):([0-5]\d)(?::([0-5]\d))?$/.exec(text);
  return match ? ((Number(match[1]) * 60 + Number(match[2])) * 60 + Number(match[3] ?? 0)) * 1000 : null;
}

/** First opening and last closing of a date, in milliseconds after its midnight (closing may pass 24 h); null when closed. */
export function openingOf(hours: OpeningHours | undefined, date: LocalDate): { opens: number; closes: number } | null {
  const weekday = WEEKDAYS[weekdayIndex(date)] ?? 'MO';
  const periods = hours?.dates?.[formatDate(date)] ?? hours?.weekly?.[weekday] ?? [];
  if (periods.length === 0) return null;
  let [opens, closes] = [Infinity, -Infinity];
  for (const [start, end] of periods) {
    const begin = parseEdge(start, false)?.offset ?? 0;
    const finish = parseEdge(end, true)?.offset ?? 0;
    opens = Math.min(opens, begin);
    closes = Math.max(closes, finish > begin ? finish : finish + DAY);
  }
  return { opens, closes };
}

export interface Window {
  readonly start: Edge;
  readonly end: Edge;
}

const WHOLE_DAY: readonly Window[] = [
  { start: { from: 'midnight', offset: 0 }, end: { from: 'midnight', offset: DAY } },
];

/** The windows of a checked `When`. */
export function windowsOf(when: When): readonly Window[] {
  if (!when.windows) return WHOLE_DAY;
  return when.windows.map(([start, end]) => {
    const window = { start: parseEdge(start, false), end: parseEdge(end, true) };
    if (!window.start || !window.end) throw new RangeError(`"${start}" to "${end}" is not a window`);
    return window as Window;
  });
}
