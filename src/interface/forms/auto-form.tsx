'use client';

import equal from 'fast-deep-equal';
import { useEffect, useRef, type FormEvent, type ReactNode } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import type { Problem, Result } from '@/core';
import { Button } from '@/interface/kit/button';

interface AutoFormProps<Values extends FieldValues, Output> {
  readonly form: UseFormReturn<Values, unknown, Output>;
  /** The button's words for a new thing. Without it the form saves by itself whenever a valid change leaves its field. */
  readonly create?: string | undefined;
  /** Whether something waits for a choice: leaving a field then saves nothing. */
  readonly held?: boolean;
  /** Where the form's own field names differ from the document's. */
  readonly fieldOf?: (problem: Problem) => string;
  save(values: Output): Promise<Result<unknown>>;
  readonly children: ReactNode;
}

const firstKey = ({ path }: Problem) => path.split('/')[1] ?? '';

/** A form that needs no button to save: only what is new is added by one. What is refused is told at its field. */
export function AutoForm<Values extends FieldValues, Output>({
  form,
  create,
  save,
  fieldOf = firstKey,
  held = false,
  children,
}: AutoFormProps<Values, Output>) {
  const { handleSubmit, formState, reset, getValues, setError, setValue } = form;
  const { isDirty, isSubmitting } = formState;
  const own = useRef<HTMLFormElement>(null);
  // Who adds something writes its name at once.
  useEffect(() => {
    if (create) own.current?.querySelector<HTMLElement>('input, textarea')?.focus();
  }, [create]);
  const busy = useRef(false);
  const wanted = useRef(false);
  /** What was saved is clean; what was written while it was being saved is not. */
  const clean = (saved: Values) => {
    const now = structuredClone(getValues());
    reset(saved);
    for (const [key, value] of Object.entries(now))
      if (!equal(value, saved[key])) setValue(key as never, value as never, { shouldDirty: true });
  };
  const submit = (event?: FormEvent) => {
    event?.preventDefault();
    wanted.current = busy.current;
    if (busy.current) return;
    busy.current = true;
    // What is checked and saved is what stands there now: what is written while that goes on is still to be saved.
    const written = structuredClone(getValues());
    void handleSubmit(async (values) => {
      const result = await save(values);
      if (result.ok) clean(written);
      else for (const problem of result.problems) setError(fieldOf(problem) as never, { message: problem.message });
    })().finally(() => {
      busy.current = false;
      if (wanted.current) submit();
    });
  };
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- leaving any field saves: nothing is to be pressed
    <form
      ref={own}
      noValidate
      onSubmit={submit}
      onBlur={() => {
        if (!create && !held && isDirty) submit();
      }}
      className="space-y-5"
    >
      {children}
      {create && (
        // In sight, and where it was: what is told below the fields comes and goes while one reaches for it.
        <div className="sticky bottom-0 z-10 -mx-6 !mt-4 border-t border-rule bg-paper px-6 py-3">
          <Button variant="main" type="submit" disabled={isSubmitting}>
            {create}
          </Button>
        </div>
      )}
    </form>
  );
}
