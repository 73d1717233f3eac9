import { addDays, dateOf, weekdayIndex, type LocalDate } from '../dates';

/** Days that people call by name, and when they are in a year. Names are small letters, an apostrophe stands or is left out. */
const FIXED: readonly (readonly [name: string, month: number, day: number])[] = [
  ["new year's day", 1, 1],
  ["new year's eve", 12, 31],
  ["valentine's day", 2, 14],
  ['halloween', 10, 31],
  ['christmas eve', 12, 24],
  ['christmas day', 12, 25],
  ['boxing day', 12, 26],
  ['christmas', 12, 25],
  ['midsummer eve', 6, 23],
  ['midsummer day', 6, 24],
  ['new year', 1, 1],
];

/** By days after Easter Sunday. */
const AFTER_EASTER: readonly (readonly [name: string, after: number])[] = [
  ['maundy thursday', -3],
  ['good friday', -2],
  ['easter sunday', 0],
  ['easter monday', 1],
  ['ascension day', 39],
  ['whit sunday', 49],
  ['whit monday', 50],
  ['ascension', 39],
  ['pentecost', 49],
  ['whitsun', 49],
  ['easter', 0],
];

/** The fourth Sunday before Christmas, and what it is called (from memory). */
const ADVENT = ['advent sunday', 'first sunday of advent', 'first sunday in advent'] as const;

/** Names as a pattern, longer ones first. */
const anyOf = (feasts: readonly (readonly [name: string, ...rest: number[]])[]) =>
  `(?:the\\s+)?(${feasts
    .map(([name]) => name)
    .sort((a, b) => b.length - a.length)
    .map((name) => name.replace("'s", "['’]?s").replaceAll(' ', '\\s+'))
    .join('|')})\\b(?!\\s+(?:holidays?|break|market))`;

const MOVED = [...AFTER_EASTER, ...ADVENT.map((name) => [name] as const)];
export const FEAST = anyOf([...FIXED, ...MOVED]);
/** Those that come on another date each year. */
export const MOVING = anyOf(MOVED);

/** Feasts that last for days, and what their first and last are called: common practice, no source. */
export const FEASTS_OF_DAYS: Readonly<Record<string, readonly [first: string, last: string]>> = {
  easter: ['good friday', 'easter monday'],
  christmas: ['christmas eve', 'boxing day'],
  advent: ['advent sunday', 'christmas eve'],
  'new year': ["new year's eve", "new year's day"],
};

/** When a day of that name is in a year; null for a name that is none. */
export function feastIn(name: string, year: number): LocalDate | null {
  const plain = (text: string) => text.toLowerCase().replace(/['’]/g, '').replace(/\s+/g, ' ');
  const fixed = FIXED.find(([known]) => plain(known) === plain(name));
  if (fixed) return dateOf(year, fixed[1], fixed[2]);
  if (ADVENT.some((known) => known === plain(name))) {
    const christmas = dateOf(year, 12, 25);
    return addDays(christmas, -weekdayIndex(christmas) - 22);
  }
  const moving = AFTER_EASTER.find(([known]) => plain(known) === plain(name));
  return moving ? addDays(easter(year), moving[1]) : null;
}

/** Easter Sunday of the Gregorian calendar: the anonymous algorithm as in Meeus, Astronomical Algorithms, chapter 8 (from memory). */
export function easter(year: number): LocalDate {
  const a = year % 19;
  const b = Math.floor(year / 100);
  const c = year % 100;
  const d = Math.floor(b / 4);
  const e = b % 4;
  const f = Math.floor((b + 8) / 25);
  const g = Math.floor((b - f + 1) / 3);
  const h = (19 * a + b - d - g + 15) % 30;
  const i = Math.floor(c / 4);
  const k = c % 4;
  const l = (32 + 2 * e + 2 * i - h - k) % 7;
  const m = Math.floor((a + 11 * h + 22 * l) / 451);
  const n = h + l - 7 * m + 114;
  return dateOf(year, Math.floor(n / 31), (n % 31) + 1);
}
