import { HOUR, MINUTE, SECOND } from '../instant';
import { done, misread, type Result } from '../refusal';
import { durationSchema } from './fields';

const UNITS: readonly (readonly [RegExp, number])[] = [
  [/^(?:ms|milliseconds?)$/, 1],
  [/^(?:s|secs?|seconds?|)$/, SECOND],
  [/^(?:m|mins?|minutes?)$/, MINUTE],
  [/^(?:h|hrs?|hours?)$/, HOUR],
];

/** What a last part without a unit is in. */
const BELOW: ReadonlyMap<number, number> = new Map([
  [HOUR, MINUTE],
  [MINUTE, SECOND],
]);

/**
 * How long something shows, as people write it, in milliseconds: seconds ("12", "2.5", "2,5 s"), a clock's way ("1:30", "1:02:03"), or
 * parts with their units ("1 min 30 s", "1m30"). Refused with a sentence where it is none of these, or under 0.1 s or over 24 hours.
 */
export function readDuration(text: string): Result<number> {
  const ms = millisecondsOf(text.trim().toLowerCase());
  if (ms === null)
    return misread(`“${text.trim()}” isn’t a duration. Write seconds as 12 or 2.5, or write 1:30, or 2 min.`);
  const read = durationSchema.safeParse(Math.round(ms));
  return read.success ? done(read.data) : misread('Write a time from 0.1 seconds to 24 hours.');
}

function millisecondsOf(text: string): number | null {
  const clock = /^(?:(\d+):)?(\d{1,3}):([0-5]\d(?:[.,]\d+)?)$/.exec(text);
  if (clock) {
    const [, hours = '0', minutes = '0', seconds = '0'] = clock;
    if (clock[1] !== undefined && Number(minutes) > 59) return null;
    return Number(hours) * HOUR + Number(minutes) * MINUTE + numberOf(seconds) * SECOND;
  }
  // Each part with its unit, the larger ones first; the last may go without where it is the next smaller: 1m30.
  const parts = [...text.matchAll(/\s*(\d+(?:[.,]\d+)?|[.,]\d+)\s*([a-z]*)(?:\s*(?:and|,)(?=\s))?/gy)];
  if (parts.length === 0 || parts.reduce((sum, [whole]) => sum + whole.length, 0) !== text.length) return null;
  let sum = 0;
  let before = Infinity;
  for (const [, amount = '', word = ''] of parts) {
    const unit =
      word === '' && before !== Infinity
        ? (BELOW.get(before) ?? null)
        : (UNITS.find(([pattern]) => pattern.test(word))?.[1] ?? null);
    if (unit === null || unit >= before || unit < 1) return null;
    sum += numberOf(amount) * unit;
    before = unit;
  }
  return sum;
}

const numberOf = (text: string) => Number(text.replace(',', '.'));
