import { NAMED_EDGE, parseClock, parseEdge } from '../written';
import { minutesOf, numberOf } from './vocabulary';

const two = (n: number) => String(n).padStart(2, '0');

/** `HH:MM`, with seconds where there are any, of milliseconds after midnight. */
export function clockOf(ms: number): string {
  const seconds = Math.floor(ms / 1000);
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  return `${two(h)}:${two(m)}${s > 0 ? `:${two(s)}` : ''}`;
}

const NAMES: Readonly<Record<string, string>> = { open: 'opens', clos: 'closes', sunup: 'sunrise', sundown: 'sunset' };

/** Time of day as a window's edge; null where it is none. */
export function edgeOf(written: string, end: boolean): string | null {
  const text = written.toLowerCase().trim().replace(/\s+/g, ' ');
  if (text === 'noon' || text === 'midday') return '12:00';
  if (text === 'midnight') return end ? '24:00' : '00:00';
  if (/^(?:the )?end of (?:the )?day$/.test(text)) return end ? '24:00' : null;
  return namedEdge(text, end) ?? clockEdge(text, end);
}

/** "an hour before closing", "closes-00:30", "opening", "sunset". */
function namedEdge(text: string, end: boolean): string | null {
  const found =
    /^(?:(.+?)\s+(before|after)\s+(?:the\s+)?)?(open|clos|sunrise|sunup|sunset|sundown)(?:s|ing(?:\s+time)?|es|e)?(?:\s*([+-]|plus|minus)\s*(.+))?$/.exec(
      text,
    );
  if (!found) return null;
  const [, length, side, stem = '', sign, offset = ''] = found;
  const name = NAMES[stem] ?? stem;
  let edge: string = name;
  if (length !== undefined) edge = `${name}${side === 'before' ? '-' : '+'}${clockOf(minutesOf(length) * 60_000)}`;
  else if (sign !== undefined) {
    const clock =
      /^\d/.test(offset) && offset.includes(':')
        ? offset.replace(/^(\d):/, '0$1:')
        : clockOf(minutesOf(offset) * 60_000);
    edge = `${name}${sign === 'minus' || sign === '-' ? '-' : '+'}${clock}`;
  }
  return parseEdge(edge, end) ? edge : null;
}

/** A clock's reading as digits: "half past eight" is 8:30, "8 in the evening" 8pm. */
function inDigits(text: string): string {
  const plain = text
    .toLowerCase()
    .trim()
    .replace(/\s+in the morning$/, 'am')
    .replace(/\s+(?:in the (?:afternoon|evening)|at night)$/, 'pm')
    .replace(/twenty-five/, '25')
    .replace(/twenty/, '20')
    .replace(/\b(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\b/g, (word) =>
      String(numberOf(word)),
    );
  const spoken = /^(half|(?:a )?quarter|\d+(?: minutes?)?)(?: (past|to))? (\d{1,2}) ?(am|pm)?$/.exec(plain);
  if (!spoken) return plain.replaceAll(' ', '');
  const [, how = '', side, hour = '', halfOfDay = ''] = spoken;
  const minutes = how === 'half' ? 30 : how.endsWith('quarter') ? 15 : parseInt(how);
  if (side !== 'to') return `${hour}:${two(minutes)}${halfOfDay}`;
  return `${Number(hour) === 1 ? 12 : Number(hour) - 1}:${two(60 - minutes)}${halfOfDay}`;
}

function clockEdge(text: string, end: boolean): string | null {
  const plain = inDigits(text)
    .replace(/o['’]?clock$/, '')
    .replace(/hrs$/, 'h')
    .replace(/([ap])\.m\.$/, '$1m');
  const match = /^(\d{1,2})(?:[:.h](\d{2})?)?(?::(\d{2}))?(am|pm)?$/.exec(plain) ?? /^(\d{2})(\d{2})h?$/.exec(plain);
  if (!match) return null;
  let hour = Number(match[1]);
  if (match[4]) {
    if (hour < 1 || hour > 12) return null;
    hour = (hour % 12) + (match[4] === 'pm' ? 12 : 0);
  }
  const edge = `${two(hour)}:${match[2] ?? '00'}${match[3] ? `:${match[3]}` : ''}`;
  return parseEdge(edge, end) ? edge : null;
}

/** Whether it may be in either half of the day: "8", "7:30", "half past seven", but not "08:00" or "8 am". */
export const isBare = (written: string): boolean =>
  /^[1-9](?:[:.]\d{2})?$|^1[01](?:[:.]\d{2})?$/.test(inDigits(written));

/** "6 to 10 pm" begins in the evening too, "10 to 2 pm" does not. */
export function withHalf(start: string, end: string): string {
  const half = /([ap])\.?m\.?$/.exec(inDigits(end))?.[1];
  const first = inDigits(start);
  if (!half || !/^(?:[1-9]|1[0-2])([:.]\d{2})?$/.test(first)) return start;
  const same = `${first}${half}m`;
  const [a, b] = [edgeOf(same, false), edgeOf(end, true)];
  return a && b && a < b ? same : `${first}${half === 'p' ? 'am' : 'pm'}`;
}

/** Twelve hours later, for what is said of an afternoon, an evening or a night. */
const inSecondHalf = (edge: string) => clockOf(((parseClock(edge) ?? 0) + 12 * 3_600_000) % 86_400_000);

/** What hours are in a part of the day: 6 to 8 of an evening, 10 to 2 of a night. Only those of `bare` edges are moved. */
export function inPart(
  part: string,
  [start, end]: readonly [string, string],
  bare: readonly [boolean, boolean],
): [string, string] {
  if (part === 'morning') return [start, end];
  // From 11 it is of the morning, from 12 on of the afternoon.
  if (part === 'lunchtime') {
    const moved = (edge: string, isBare: boolean) => (isBare && edge < '10:00' ? inSecondHalf(edge) : edge);
    return [moved(start, bare[0]), moved(end, bare[1])];
  }
  const late = part !== 'afternoon' && start < '06:00';
  const first = bare[0] && !(part === 'night' && late) ? inSecondHalf(start) : start;
  if (end === '12:00' && part !== 'afternoon' && first > '12:00') return [first, '24:00'];
  const second = inSecondHalf(end);
  // What would end before it begins ends on the next morning: 22 to 6 of a night.
  const isLate = bare[1] && (end > start || start >= '12:00') && first >= '12:00' && second > first;
  return [first, isLate ? second : end];
}

/** An edge so many minutes later: a time of day wraps at midnight, an edge relative to opening, closing or the sun moves away from it. */
export function laterEdge(edge: string, minutes: number): string {
  const ms = Math.round(minutes * 60_000);
  const clock = parseClock(edge);
  if (clock !== null) return clockOf((clock + ms) % 86_400_000);
  const [, name = edge, sign, offset = '00:00'] = NAMED_EDGE.exec(edge) ?? [];
  const moved = (parseClock(offset) ?? 0) * (sign === '-' ? -1 : 1) + ms;
  return moved === 0 ? name : `${name}${moved < 0 ? '-' : '+'}${clockOf(Math.abs(moved))}`;
}
