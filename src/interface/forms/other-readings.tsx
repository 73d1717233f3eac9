'use client';

import { describeWhen, readingsOf, type PhraseContext, type When } from '@/core/when';

/** How else a phrase can be meant, besides how it was read: each can be chosen. Nothing where it can be read in one way only. */
export function OtherReadings({
  text,
  context,
  onChoose,
}: {
  text: string;
  context: PhraseContext;
  onChoose: (when: When) => void;
}) {
  const [first, ...others] = readingsOf(text, context);
  if (!first || others.length === 0) return null;
  const name = nameIn(context);
  return (
    <p className="mt-1 flex flex-wrap items-baseline gap-x-3 text-sm" role="status">
      <span>
        “{text.trim()}” can mean different things. It is read as <strong>{describeWhen(first, name)}</strong>.
      </span>
      <span className="text-faint">Or did you mean</span>
      {others.map((when) => (
        <button
          key={describeWhen(when, name)}
          type="button"
          // Before the field is left: leaving it takes the first way.
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => onChoose(when)}
          className="text-tide underline underline-offset-2"
        >
          {describeWhen(when, name)}
        </button>
      ))}
    </p>
  );
}

const nameIn =
  ({ calendars }: PhraseContext) =>
  (id: string): string =>
    calendars.find((one) => one.id === id)?.name ?? id;

/** The same as a sentence, for a field that has no room for choices; null where a phrase can be read in one way only. */
export function readingsNote(text: string, context: PhraseContext): string | null {
  const [first, ...others] = readingsOf(text, context).map((when) => describeWhen(when, nameIn(context)));
  if (first === undefined || others.length === 0) return null;
  return `Read as “${first}”. It could also mean ${others.map((one) => `“${one}”`).join(' or ')}. Write it that way if that is what you want.`;
}
