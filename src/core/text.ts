/** Text as people type it and devices send it: what can be kept, what can be seen, and where it may be cut. */

/** NUL, and halves of characters (lone surrogates): no database keeps them, no wire carries them. */
const BROKEN = /\0|\p{Surrogate}/u;
/** What does not stand within one line: control characters, line and paragraph separators. */
const CONTROL = /[\p{Control}\u2028\u2029]/u;
const BROKEN_ONES = new RegExp(BROKEN, 'gu');
const CONTROLS = new RegExp(CONTROL, 'gu');
/** What leaves no mark: spaces of all kinds, joiners and fillers of no width, the empty Braille cell. */
const UNSEEN = /[\p{White_Space}\p{Default_Ignorable_Code_Point}\p{Control}\u2800]/gu;
/** Spaces at the ends, those of no width with them. */
const ENDS = /^[\s\u200b\u2060\ufeff]+|[\s\u200b\u2060\ufeff]+$/gu;

const segmenter = new Intl.Segmenter('und', { granularity: 'grapheme' });

/** Whether a text can be kept and sent: no NUL, no half of a character. */
export const isSound = (text: string): boolean => !BROKEN.test(text);

/** Whether a text stays on one line, and does nothing to a terminal. */
export const isOneLine = (text: string): boolean => !CONTROL.test(text);

/** Whether there is anything to see in a text. */
export const isSeen = (text: string): boolean => text.replace(UNSEEN, '') !== '';

/** A text as it is searched: small letters without their marks, so that who types "kaldavik" or "oland" finds Kaldavík and Öland. */
export const searchable = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[øæłßđð]/gu, (letter) => ALIKE[letter] ?? letter)
    .trim();

const ALIKE: Readonly<Record<string, string>> = { ø: 'o', æ: 'ae', ł: 'l', ß: 'ss', đ: 'd', ð: 'd' };

export const trimmed = (text: string): string => text.replace(ENDS, '');

/** How many characters a person counts (grapheme clusters of Unicode Annex 29). */
export function graphemes(text: string): number {
  let count = 0;
  for (const _ of segmenter.segment(text)) count++;
  return count;
}

/** At most so many code units of a text, and never a part of a character. */
export function cut(text: string, most: number): string {
  if (text.length <= most) return text;
  let end = 0;
  for (const { index, segment } of segmenter.segment(text)) {
    if (index + segment.length > most) break;
    end = index + segment.length;
  }
  return text.slice(0, end);
}

/** One line that can be kept, of a text that comes from a device or a file: what is broken becomes U+FFFD, line breaks become spaces. */
export const lineOf = (text: string, most: number): string =>
  trimmed(cut(text.replace(CONTROLS, ' ').replace(BROKEN_ONES, '\ufffd'), most));

/** A place in a value: its key, and the place that holds it. */
interface Place {
  readonly value: unknown;
  readonly key: string | number | null;
  readonly within: Place | null;
}

/** Where in a value, its keys included, a text can't be kept: the keys that lead there; null where all can. */
export function unsoundPlace(value: unknown): (string | number)[] | null {
  const pending: Place[] = [{ value, key: null, within: null }];
  for (let place = pending.pop(); place; place = pending.pop()) {
    const { value: now } = place;
    if (typeof now === 'string' && !isSound(now)) return pathOf(place);
    if (typeof now !== 'object' || now === null) continue;
    for (const [key, one] of Array.isArray(now) ? now.entries() : Object.entries(now)) {
      if (typeof key === 'string' && !isSound(key)) return pathOf(place);
      pending.push({ value: one, key, within: place });
    }
  }
  return null;
}

function pathOf(place: Place): (string | number)[] {
  const path: (string | number)[] = [];
  for (let at: Place | null = place; at; at = at.within) if (at.key !== null) path.unshift(at.key);
  return path;
}
