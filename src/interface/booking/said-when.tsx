'use client';

import { useEffect, useRef } from 'react';
import { formatDate, readWhen, type PhraseContext } from '@/core';
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
  return (
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
          if (!next.ok) return;
          for (const [key, value] of Object.entries(whenValues(next.value)))
            setValue(key as 'from', value as string, { shouldDirty: true });
        }}
        onBlur={(event) => {
          typing.current = false;
          if (read.ok && words !== null) setValue('said', words);
          void onBlur(event);
        }}
      />
    </Field>
  );
}
