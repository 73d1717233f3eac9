import { describeWhen, done, isAlways, readWhen, type PhraseContext, type Result, type When } from '@/core';

/**
 * When something is there, as it is written in a field: undefined for always. What was said before, and is still written, is what it was,
 * whatever today makes of its words.
 */
export function readSaid(text: string, context: PhraseContext, before?: When): Result<When | undefined> {
  const said = text.trim();
  if (said === '') return done(undefined);
  if (before && said === describeWhen(before)) return done(before);
  const read = readWhen(said, context);
  return read.ok && isAlways(read.value) ? done(undefined) : read;
}
