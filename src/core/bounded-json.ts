import { done, refused, type Result } from './refusal';

/** How large a document may be inside, whatever its size in bytes. */
export interface JsonBounds {
  /** How deep lists and objects may be nested. */
  readonly depth: number;
  /** How many fields one object may have. */
  readonly fields: number;
  /** How many values there may be in all. */
  readonly values: number;
}

/** Far beyond every document of ours: plan objects have some dozen fields, and stand some ten deep. */
const BOUNDS: JsonBounds = { depth: 40, fields: 2000, values: 5_000_000 };

const QUOTE = 34;
const BACKSLASH = 92;
const COMMA = 44;
const COLON = 58;
const OPEN = new Set([91, 123]);
const CLOSE = new Set([93, 125]);

/**
 * Reads JSON from a stranger who may mean harm. It scans the text once without building anything. JSON that is nested too deep or has too many
 * fields is refused with 400 before it is parsed, since walking a document costs time by its fields and stack by its depth.
 */
export function readBoundedJson(text: string, bounds: JsonBounds = BOUNDS): Result<unknown> {
  const trouble = sizeTrouble(text, bounds);
  if (trouble !== null) return refused([], trouble, 400);
  try {
    return done(JSON.parse(text) as unknown);
  } catch {
    return refused([], 'This isn’t JSON. Check the program that wrote it.', 400);
  }
}

function sizeTrouble(text: string, { depth, fields, values }: JsonBounds): string | null {
  const fieldsAt: number[] = [];
  let all = 0;
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === QUOTE) at = endOfString(text, at);
    else if (OPEN.has(code)) {
      fieldsAt.push(0);
      if (fieldsAt.length > depth) return `This document is nested more than ${depth} levels deep. Make it flatter.`;
    } else if (CLOSE.has(code)) fieldsAt.pop();
    else if (code === COMMA) all++;
    else if (code === COLON) {
      const last = fieldsAt.length - 1;
      const count = (fieldsAt[last] ?? 0) + 1;
      fieldsAt[last] = count;
      if (count > fields)
        return `An object of this document has more than ${fields} fields. Remove the ones that don’t belong there.`;
    }
    if (all > values) return `This document has more than ${values} values. Send less at a time.`;
  }
  return null;
}

/** Where a string's closing quote stands; the end of the text where there is none. */
function endOfString(text: string, from: number): number {
  for (let at = text.indexOf('"', from + 1); at >= 0; at = text.indexOf('"', at + 1)) {
    let slashes = 0;
    while (text.charCodeAt(at - 1 - slashes) === BACKSLASH) slashes++;
    if (slashes % 2 === 0) return at;
  }
  return text.length;
}
