/** Content lines of RFC 5545 section 3.1: unfolded when read, folded at 75 octets when written. */

import { parseDate } from '../../when';

export interface ContentLine {
  /** Line of the file that it begins on, from 1. */
  readonly line: number;
  readonly text: string;
}

/** The content lines of a file, whatever its line ends. Empty lines are left out. */
export function unfold(file: string): ContentLine[] {
  const lines: { line: number; text: string }[] = [];
  file.split(/\r\n|\n|\r/).forEach((raw, i) => {
    const last = lines.at(-1);
    if (last && (raw.startsWith(' ') || raw.startsWith('\t'))) last.text += raw.slice(1);
    else if (raw.trim() !== '') lines.push({ line: i + 1, text: raw });
  });
  return lines;
}

const FOLD_OCTETS = 75;

/** Folds a content line; no character of several octets is cut. */
export function fold(text: string): string {
  const encoder = new TextEncoder();
  const lines: string[] = [];
  let line = '';
  let octets = 0;
  for (const character of text) {
    const size = encoder.encode(character).length;
    // A continuation begins with a space, which counts.
    if (octets + size > (lines.length === 0 ? FOLD_OCTETS : FOLD_OCTETS - 1)) {
      lines.push(line);
      line = '';
      octets = 0;
    }
    line += character;
    octets += size;
  }
  return [...lines, line].join('\r\n ');
}

/** A TEXT value (section 3.3.11). */
export function escapeText(text: string): string {
  return text.replace(/[\\;,]/g, (character) => `\\${character}`).replace(/\r\n|\n|\r/g, '\\n');
}

/** A TEXT value read back. */
export function unescapeText(text: string): string {
  return text.replace(/\\([\\;,nN])/g, (_, character: string) => (/n/i.test(character) ? '\n' : character));
}

const DATED = /^(?:DTSTART|DTEND|RDATE|EXDATE|RECURRENCE-ID)(?:;(?:"[^"]*"|[^":])*)?:(.*)$/i;
const UNTIL = /^RRULE:.*\bUNTIL=([^;]*)/i;
const TIME = /(?<!\w)(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})Z?)?(?!\w)/g;

/** Whether a line names a day or a time that does not exist (sections 3.3.4, 3.3.12; a second of 60 does): readers make another of it. */
export function namesFalseTime(text: string): boolean {
  const value = (DATED.exec(text) ?? UNTIL.exec(text))?.[1] ?? '';
  return [...value.matchAll(TIME)].some(
    ([, year = '', month = '', day = '', hour = '0', minute = '0', second = '0']) =>
      parseDate(`${year}-${month}-${day}`) === null || Number(hour) > 23 || Number(minute) > 59 || Number(second) > 60,
  );
}

export interface Block {
  readonly name: string;
  readonly lines: readonly ContentLine[];
}

/** The components that stand directly in a VCALENDAR, each with its own lines, BEGIN and END included; or what is wrong with the file as a whole. */
export function componentsOf(lines: readonly ContentLine[]): Block[] | { line: number; message: string } {
  const begin = lines.findIndex(({ text }) => /^BEGIN:VCALENDAR\s*$/i.test(text));
  if (begin < 0) return { line: 1, message: 'This isn’t a calendar file: it has no BEGIN:VCALENDAR.' };
  const blocks: Block[] = [];
  let open: { name: string; lines: ContentLine[]; depth: number } | null = null;
  for (const one of lines.slice(begin + 1)) {
    const starts = /^BEGIN:([A-Z-]+)\s*$/i.exec(one.text)?.[1]?.toUpperCase();
    const ends = /^END:([A-Z-]+)\s*$/i.exec(one.text)?.[1]?.toUpperCase();
    if (!open) {
      if (starts && starts !== 'VCALENDAR') open = { name: starts, lines: [one], depth: 1 };
      continue;
    }
    open.lines.push(one);
    if (starts) open.depth++;
    if (ends) open.depth--;
    if (open.depth > 0) continue;
    blocks.push({ name: open.name, lines: open.lines });
    open = null;
  }
  if (open)
    return {
      line: open.lines[0]?.line ?? 1,
      message: `The ${open.name} that begins here has no end. The file is incomplete.`,
    };
  return blocks;
}
