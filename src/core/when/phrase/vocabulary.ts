/** The words of which phrases are made, as patterns. */

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
export const MONTH =
  '(jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)\\b';
const DAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
export const DAY =
  '(?:(?:mon(?:day)?|tue(?:s(?:day)?)?|wed(?:s|nesday)?|thu(?:r(?:s(?:day)?)?)?|fri(?:day)?|sat(?:urday)?|sun(?:day)?)s?\\b\\.?|(?:mo|tu|we|th|fr|sa|su)(?=\\s*(?:[-–—,/&\\d]|$|and\\b|to\\b)))';
/** Days of a month that are spelt: "the first of May". */
export const ORDINALS: readonly string[] = [
  ...['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth'],
  ...['eleventh', 'twelfth', 'thirteenth', 'fourteenth', 'fifteenth', 'sixteenth', 'seventeenth', 'eighteenth'],
  ...['nineteenth', 'twentieth', 'twenty-first', 'twenty-second', 'twenty-third', 'twenty-fourth', 'twenty-fifth'],
  ...['twenty-sixth', 'twenty-seventh', 'twenty-eighth', 'twenty-ninth', 'thirtieth', 'thirty-first'],
];
export const TO = '\\s*(?:–|—|-|\\.\\.|\\bto\\b|\\buntil\\b|\\btill?\\b|\\bthrough\\b|\\bthru\\b)\\s*';

export const monthNumber = (name: string) => MONTHS.indexOf(name.slice(0, 3).toLowerCase()) + 1;
/** 0 is Monday. */
export const weekdayNumber = (name: string) => DAYS.findIndex((day) => day.startsWith(name.slice(0, 2).toLowerCase()));

const NUMBER_WORDS = [
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];
/** A small number, written or spelt. */
export const NUMBER = `(?:\\d{1,3}|an?\\b|${NUMBER_WORDS.map((word) => `${word}\\b`).join('|')})`;
export function numberOf(text: string): number {
  const word = text.trim().toLowerCase();
  if (/^an?$/.test(word)) return 1;
  return NUMBER_WORDS.includes(word) ? NUMBER_WORDS.indexOf(word) + 1 : Number(word.replace(',', '.'));
}

const NTH: Readonly<Record<string, number>> = {
  first: 1,
  '1st': 1,
  second: 2,
  '2nd': 2,
  third: 3,
  '3rd': 3,
  fourth: 4,
  '4th': 4,
  fifth: 5,
  '5th': 5,
  sixth: 6,
  '6th': 6,
  seventh: 7,
  '7th': 7,
  tenth: 10,
  '10th': 10,
  last: -1,
  'second last': -2,
  'second to last': -2,
  'last but one': -2,
  penultimate: -2,
};
export const NTH_WORD = `(?:${Object.keys(NTH)
  .sort((a, b) => b.length - a.length)
  .map((word) => word.replaceAll(' ', '[ -]'))
  .join('|')})`;
/** What place it is: 1 is the first, -1 the last. */
export const nthNumber = (word: string): number => NTH[word.trim().toLowerCase().replaceAll('-', ' ')] ?? NaN;

/** How long, in hours, minutes and seconds: "two hours", "1.5 h", "1 h 30 min", "half an hour". */
const HOURS = `(?:\\d{1,2}[.,]\\d{1,2}|${NUMBER}(?:\\s+and\\s+a\\s+half)?)\\s*(?:hours?|hrs?|h)\\b`;
const MINUTES = `${NUMBER}\\s*(?:minutes?|mins?|min|m)\\b`;
const SECONDS = `${NUMBER}\\s*(?:seconds?|secs?|s)\\b`;
export const LENGTH = `(?:half\\s+an\\s+hour\\b|(?:a\\s+)?half[- ]hour\\b|(?:a\\s+)?quarter\\s+of\\s+an\\s+hour\\b|an\\s+hour\\s+and\\s+a\\s+half\\b|\\d{1,2}\\s?h\\s?[0-5]\\d\\b|${HOURS}(?:\\s*(?:and\\s+)?${MINUTES})?|${MINUTES}(?:\\s*(?:and\\s+)?${SECONDS})?|${SECONDS})`;

/** A length of time in minutes, whole or not. */
export function minutesOf(text: string): number {
  const words = text.toLowerCase().replace(/\s+/g, ' ');
  if (/^(?:a )?half/.test(words)) return 30;
  if (words.includes('quarter')) return 15;
  if (words.endsWith('and a half')) return 90;
  const together = /^(\d+) ?h ?(\d\d)$/.exec(words);
  if (together) return Number(together[1]) * 60 + Number(together[2]);
  const amount = (pattern: string) => {
    const found = new RegExp(`(\\d+[.,]\\d+|${NUMBER})( and a half)?\\s*(?:${pattern})\\b`, 'i').exec(words);
    return found ? numberOf(found[1] ?? '0') + (found[2] ? 0.5 : 0) : 0;
  };
  return amount('hours?|hrs?|h') * 60 + amount('minutes?|mins?|min|m') + amount('seconds?|secs?|s') / 60;
}

const NAMED_EDGE =
  '(?:opens|opening(?:\\s+time)?|open|closes|closing(?:\\s+time)?|close|sunrise|sunup|sunset|sundown)\\b';
const RELATIVE = `${LENGTH}\\s+(?:before|after)\\s+(?:the\\s+)?${NAMED_EDGE}`;
/** Up to 12 hours: "sunset-23:00" is from sunset to 23:00. */
const OFFSET = `${NAMED_EDGE}(?:\\s*[+-]\\s*(?:0?\\d|1[01]):\\d{2}(?::\\d{2})?|\\s*(?:[+-]|plus|minus)\\s*${LENGTH})?`;
/** An hour in digits or spelt. */
export const HOUR_NUMBER = `(?:1?\\d|${NUMBER_WORDS.join('|')})`;
/** Hours that are spelt; what counts something is none. */
const COUNTED = '(?!\\s*(?:days?|weeks?|months?|years?|minutes?|mins?|hours?|hrs?|seconds?|secs?|times)\\b)';
const HOUR_WORD = `(?:${NUMBER_WORDS.join('|')})\\b${COUNTED}`;
const HALF_SAID = '\\s+(?:in\\s+the\\s+(?:morning|afternoon|evening)|at\\s+night)\\b';
const MINUTES_SAID = `(?:\\d{1,2}|${NUMBER_WORDS.join('|')}|twenty(?:-five)?)`;
/** Up to the hour only with its minutes: "ten to six" is from 10 to 6. */
const AROUND = `(?:half(?:\\s+past)?|(?:a\\s+)?quarter\\s+(?:past|to)|${MINUTES_SAID}(?:\\s+minutes?)?\\s+past|${MINUTES_SAID}\\s+minutes?\\s+to)`;
/** "half past eight", "quarter to nine", "20 past 7", "8 in the evening". */
const SPOKEN = `(?:${AROUND}\\s+(?:\\d{1,2}\\b|${HOUR_WORD})(?:\\s*(?:am|pm)\\b|${HALF_SAID})?|(?:\\d{1,2}(?:[:.]\\d{2})?|${HOUR_WORD})${HALF_SAID}|${HOUR_WORD}\\s*(?:am\\b|pm\\b|o['’]?clock\\b))`;
/** A time of day that is surely one. */
export const EDGE = `(?:${SPOKEN}|(?:the\\s+)?end\\s+of\\s+(?:the\\s+)?day\\b|${RELATIVE}|${OFFSET}|noon\\b|midday\\b|midnight\\b|\\d{1,2}(?:[:.]\\d{2}(?::\\d{2})?)?\\s*(?:am|pm|a\\.m\\.|p\\.m\\.)(?![a-z])|\\d{1,2}[:.]\\d{2}(?::\\d{2})?(?!\\.?\\d|\\.)|\\d{1,2}\\s?h(?:\\d{2})?\\b|\\d{1,2}\\s*o['’]?clock\\b)`;
/** The same, or a number that may be an hour. */
export const HOUR = `(?:${EDGE}|\\d{1,2}(?![\\d:./]|\\s*(?:st|nd|rd|th)\\b)(?!\\s+${MONTH})${COUNTED}|${HOUR_WORD})`;
/** Four digits that are a time of day beside another: "0630". */
export const COMPACT = '[0-2]\\d[0-5]\\d(?:\\s*h(?:rs)?)?\\b';

/** Parts of the day, and what hours they are. Common practice, no source. */
export const PARTS: Readonly<Record<string, readonly [string, string]>> = {
  morning: ['06:00', '12:00'],
  lunchtime: ['12:00', '14:00'],
  afternoon: ['12:00', '18:00'],
  evening: ['18:00', '22:00'],
  night: ['22:00', '06:00'],
};
export const TONIGHT = ['18:00', '24:00'] as const;
export const OVERNIGHT = ['22:00', '06:00'] as const;

/** The words that phrases are made of, to guess what a misspelt word may mean. */
export const KNOWN_WORDS: readonly string[] = [
  ...[
    'always',
    'daily',
    'weekdays',
    'weekends',
    'workdays',
    'monthly',
    'yearly',
    'weekly',
    'fortnightly',
    'every',
    'each',
  ],
  ...['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'],
  ...[
    'january',
    'february',
    'march',
    'april',
    'june',
    'july',
    'august',
    'september',
    'october',
    'november',
    'december',
  ],
  ...[
    'today',
    'tomorrow',
    'tonight',
    'overnight',
    'morning',
    'afternoon',
    'evening',
    'noon',
    'midnight',
    'opening',
    'closing',
    'sunrise',
    'sunset',
  ],
  ...[
    'except',
    'never',
    'outside',
    'only',
    'until',
    'from',
    'between',
    'before',
    'after',
    'first',
    'second',
    'third',
    'fourth',
    'last',
  ],
  ...[
    'week',
    'month',
    'year',
    'day',
    'days',
    'hours',
    'minutes',
    'christmas',
    'easter',
    'also',
    'without',
    'next',
    'this',
  ],
  ...[
    'even',
    'odd',
    'weeks',
    'working',
    'holidays',
    'lunchtime',
    'quarter',
    'times',
    'over',
    'quarterly',
    'weeknights',
    'advent',
    'closed',
  ],
];
