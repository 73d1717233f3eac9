import { done, misread, type Result } from '../refusal';
import { readDuration } from './duration';

/** How a booking is mixed into what shows: a share of the time that it is on, or one turn every so many milliseconds. */
export type Weave = { readonly share: number } | { readonly every: number };

/**
 * A weave as people write it: "10 %", "12.5% of the time", "every 5 min". Empty is none. Refused with a sentence where it is neither, or out
 * of its bounds (0.1 % to 90 %, 10 s and more).
 */
export function readWeave(text: string): Result<Weave | undefined> {
  const written = text.trim().toLowerCase();
  if (written === '') return done(undefined);
  const share = /^(\d{1,3}(?:[.,]\d)?)\s*(?:%|per\s?cent|percent)(?:\s+of\s+(?:the|its)\s+time)?$/.exec(written);
  if (share) {
    const value = Math.round(Number((share[1] ?? '').replace(',', '.')) * 10) / 1000;
    return value >= 0.001 && value <= 0.9 ? done({ share: value }) : misread('A share is from 0.1 % to 90 %.');
  }
  const every = /^(?:once\s+)?every\s+(.+)$/.exec(written)?.[1];
  if (every === undefined) return misread('Write a share like 10 %, or how often it comes, like every 5 min.');
  const length = readDuration(/^(?:second|minute|hour)$/.test(every) ? `1 ${every}` : every);
  if (!length.ok) return length;
  return length.value >= 10_000 ? done({ every: length.value }) : misread('It can come every 10 seconds at the most.');
}
