'use client';

import { useEffect, useRef } from 'react';
import { completionsOf, describeWhen, formatDate, readWhen, readingsOf, type PhraseContext, type When } from '@/core';
import { Field, Input } from '@/interface/kit/field';
import { fieldsInWords, whenValues, type BookingFormOf } from './booking-values';

/** When, in one sentence as one says it: it fills the fields as one types, and says what they hold when they change. */
export function SaidWhen({ form, context }: { form: BookingFormOf; context: PhraseContext }) {
  const { register, setValue, watch, formState } = form;
  const typing = useRef(false);
  const today = formatDate(context.today);
  const said = watch('said');
  const words = fieldsInWords(watch(), today);
  useEffect(() => {
    if (!typing.current && words !== null) setValue('said', words);
  }, [words, setValue]);
  const read = readWhen(said, context);
  const { onBlur, ...field } = register('said');
  const fill = (when: When) => {
    for (const [key, value] of Object.entries(whenValues(when)))
      setValue(key as 'from', value as string, { shouldDirty: true });
  };
  // How else it can be meant, while what is written was not turned into plain words.
  const others = words === said ? [] : readingsOf(said, context).slice(1);
  return (
    <div>
      <Field
        label="When"
        hint={
          words === null
            ? 'The fields below are not complete.'
            : words === said
              ? 'As one says it: weekdays 05:30–10:00 until 28 Feb, not on …'
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
            const next = readWhen(event.target.value, context);
            if (next.ok) fill(next.value);
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
      {others.length > 0 && (
        <p className="mt-1 flex flex-wrap items-baseline gap-x-3 text-sm">
          <span className="text-faint">or is it meant as</span>
          {others.map((when) => (
            <button
              key={describeWhen(when)}
              type="button"
              // Before the field is left: leaving it takes the first way.
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => {
                fill(when);
                setValue('said', describeWhen(when), { shouldDirty: true, shouldValidate: true });
              }}
              className="text-tide underline underline-offset-2"
            >
              {describeWhen(when)}
            </button>
          ))}
        </p>
      )}
    </div>
  );
}
