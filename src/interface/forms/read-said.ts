import { done, type Result } from '@/core/refusal';
import { describeWhen, isAlways, readWhen, type PhraseContext, type When } from '@/core/when';

/**
 * The time in a field in words: undefined for always. Words that were not changed keep their earlier meaning,
 * even if the same words would mean other dates today.
 */
export function readSaid(text: string, context: PhraseContext, before?: When): Result<When | undefined> {
  const said = text.trim();
  if (said === '') return done(undefined);
  if (before && said === describeWhen(before)) return done(before);
  const read = readWhen(said, context);
  return read.ok && isAlways(read.value) ? done(undefined) : read;
}
