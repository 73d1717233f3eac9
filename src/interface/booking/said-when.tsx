'use client';

import equal from 'fast-deep-equal';
import { useEffect, useRef, useState } from 'react';
import Link from 'next/link';
import {
  NO_CALENDAR,
  completionsOf,
  describeWhen,
  endingsOf,
  formatDate,
  readWhen,
  type PhraseContext,
  type When,
} from '@/core/when';
import type { SaidContext } from '@/interface/forms/use-phrase-context';
import { clockOfDay, zoneName } from '@/interface/kit/words/format';
import { OtherReadings } from '@/interface/forms/other-readings';
import { Field, Input } from '@/interface/kit/controls/field';
import { fieldsInWords, whenValues, type BookingFormOf, type HoursValues } from './booking-values';

/** When, in one sentence. It fills the fields below as you type, and follows them when they change. */
export function SaidWhen({ form, context }: { form: BookingFormOf; context: SaidContext }) {
  const { register, setValue, watch, formState } = form;
  const typing = useRef(false);
  const today = formatDate(context.today);
  const said = watch('said');
  const words = fieldsInWords(watch('sets'), today);
  useEffect(() => {
    if (!typing.current && words !== null) setValue('said', words);
  }, [words, setValue]);
  const read = readWhen(said, context);
  const { onBlur, ...field } = register('said');
  const fill = (when: When) => setValue('sets', whenValues(when), { shouldDirty: true });
  // What was typed, as long as the fields hold what it was read as: leaving the field turns it into plain words.
  const [typed, setTyped] = useState<{ readonly text: string; readonly filled: readonly HoursValues[] } | null>(null);
  const isStill = typed !== null && equal(watch('sets'), typed.filled);
  return (
    <div>
      <Field
        label="When"
        hint={
          words === null
            ? 'The fields below aren’t complete yet.'
            : words === said
              ? 'Type it in words, e.g. weekdays 5:30–10:00 until 28 Feb, not on …'
              : words
        }
        error={!read.ok ? read.message : formState.errors.said?.message}
      >
        <Input
          autoComplete="off"
          spellCheck={false}
          invalid={!read.ok}
          {...field}
          onChange={(event) => {
            typing.current = true;
            void field.onChange(event);
            const text = event.target.value;
            const next = readWhen(text, context);
            if (next.ok) fill(next.value);
            setTyped(next.ok ? { text, filled: whenValues(next.value) } : null);
          }}
          onBlur={(event) => {
            typing.current = false;
            if (read.ok && words !== null) setValue('said', words);
            void onBlur(event);
          }}
          list="said-when"
        />
      </Field>
      <datalist id="said-when">
        {completionsOf(said, context).map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
      {!read.ok && (
        <Help
          text={said}
          context={context}
          message={read.message}
          onSay={(text) => {
            const next = readWhen(text, context);
            if (next.ok) fill(next.value);
            setValue('said', text, { shouldDirty: true, shouldValidate: true });
          }}
        />
      )}
      {context.mixed && /\bnow\b/i.test(said) && (
        <p className="mt-1 text-sm" role="status">
          These screens are in different time zones. “Now” is {clockOfDay(context.time ?? 0)} here, which is the time in{' '}
          {zoneName(context.zone)}.
        </p>
      )}
      {typed && isStill && (
        <OtherReadings
          text={typed.text}
          context={context}
          onChoose={(when) => {
            fill(when);
            setTyped(null);
            setValue('said', describeWhen(when), { shouldDirty: true, shouldValidate: true });
          }}
        />
      )}
    </div>
  );
}

/** What you can do about a phrase that isn't understood: add an end, or make the calendar that it asks for. */
function Help({
  text,
  context,
  message,
  onSay,
}: {
  text: string;
  context: PhraseContext;
  message: string;
  onSay: (text: string) => void;
}) {
  const endings = endingsOf(text, context);
  if (message.startsWith(NO_CALENDAR))
    return (
      <p className="mt-1 text-sm">
        <Link href="/plan?open=calendars" className="text-tide underline underline-offset-2">
          Make a calendar of dates
        </Link>{' '}
        <span className="text-faint">Your text is kept and offered when you open this again.</span>
      </p>
    );
  if (endings.length === 0) return null;
  return (
    <p className="mt-1 flex flex-wrap items-baseline gap-x-3 text-sm" role="status">
      <span className="text-faint">Until when?</span>
      {endings.map((whole) => (
        <button
          key={whole}
          type="button"
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => onSay(whole)}
          className="text-tide underline underline-offset-2"
        >
          {whole.slice(text.trim().length + 1)}
        </button>
      ))}
    </p>
  );
}
