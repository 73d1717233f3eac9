import { DAY } from '../instant';

/** How times are written in a plan: `HH:MM`, and what a site has on a date. */

/** How many days after its date a window may end. */
export const MOST_DAYS = 7;

/** From when to when on a date; or, with a number of days (1 to 7), to a time that many dates later. */
export type WrittenWindow = [start: string, end: string, days?: number];

/** What a window's edge may be told from, besides midnight: of the site on that date. */
export type NamedEdge = 'opens' | 'closes' | 'sunrise' | 'sunset';

/** A named edge as it is written: its name, its sign and its offset. */
export const NAMED_EDGE = /^(opens|closes|sunrise|sunset)(?:([+-])(.+))?$/;

/** One end of a window: milliseconds after midnight, or after (negative: before) what the site has on that date. */
export interface Edge {
  readonly from: 'midnight' | NamedEdge;
  readonly offset: number;
}

/** Reads `HH:MM`, `HH:MM:SS`, `24:00` (ends only), `opens`, `closes`, `sunrise` or `sunset` with an optional offset. Null when it is none. */
export function parseEdge(text: string, end: boolean): Edge | null {
  if (text === '24:00') return end ? { from: 'midnight', offset: DAY } : null;
  const [, from = 'midnight', sign, clock = from === 'midnight' ? text : '00:00'] = NAMED_EDGE.exec(text) ?? [];
  const offset = parseClock(clock);
  return offset === null ? null : { from: from as Edge['from'], offset: sign === '-' ? -offset : offset };
}

/** Milliseconds after midnight of `HH:MM` or `HH:MM:SS`, 00:00 to 23:59:59; null otherwise. */
export function parseClock(text: string): number | null {
  const match = /^([01]\d|2[0-3]):([0-5]\d)(?::([0-5]\d))?$/.exec(text);
  return match ? ((Number(match[1]) * 60 + Number(match[2])) * 60 + Number(match[3] ?? 0)) * 1000 : null;
}
