import { parseEdge } from '../windows';
import { minutesOf } from './vocabulary';

const two = (n: number) => String(n).padStart(2, '0');

/** `HH:MM`, with seconds where there are any, of milliseconds after midnight. */
export function clockOf(ms: number): string {
  const seconds = Math.floor(ms / 1000);
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  return `${two(h)}:${two(m)}${s > 0 ? `:${two(s)}` : ''}`;
}

/** Time of day as a window's edge; null where it is none. */
export function edgeOf(written: string, end: boolean): string | null {
  const text = written.toLowerCase().trim();
  if (text === 'noon' || text === 'midday') return '12:00';
  if (text === 'midnight') return end ? '24:00' : '00:00';
  return namedEdge(text, end) ?? clockEdge(text, end);
}

/** "an hour before closing", "closes-00:30", "opening". */
function namedEdge(text: string, end: boolean): string | null {
  const found =
    /^(?:(.+?)\s+(before|after)\s+(?:the\s+)?)?(open|clos)(?:s|ing(?:\s+time)?|es|e)?(?:\s*([+-]|plus|minus)\s*(.+))?$/.exec(
      text,
    );
  if (!found) return null;
  const [, length, side, stem, sign, offset = ''] = found;
  const name = stem === 'open' ? 'opens' : 'closes';
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

function clockEdge(text: string, end: boolean): string | null {
  const plain = text
    .replace(/\s+/g, '')
    .replace(/o['’]?clock$/, '')
    .replace(/([ap])\.m\.$/, '$1m');
  const match = /^(\d{1,2})(?:[:.h](\d{2})?)?(?::(\d{2}))?(am|pm)?$/.exec(plain) ?? /^(\d{2})(\d{2})$/.exec(plain);
  if (!match) return null;
  let hour = Number(match[1]);
  if (match[4]) {
    if (hour < 1 || hour > 12) return null;
    hour = (hour % 12) + (match[4] === 'pm' ? 12 : 0);
  }
  const edge = `${two(hour)}:${match[2] ?? '00'}${match[3] ? `:${match[3]}` : ''}`;
  return parseEdge(edge, end) ? edge : null;
}

/** "6 to 10 pm" begins in the evening too, "10 to 2 pm" does not. */
export function withHalf(start: string, end: string): string {
  const half = /([ap])\.?m\.?\s*$/i.exec(end)?.[1]?.toLowerCase();
  if (!half || !/^\d{1,2}([:.]\d{2})?$/.test(start.trim())) return start;
  const same = `${start.trim()}${half}m`;
  const [a, b] = [edgeOf(same, false), edgeOf(end, true)];
  return a && b && a < b ? same : `${start.trim()}${half === 'p' ? 'am' : 'pm'}`;
}
