'use client';

import { useState, type ReactNode } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import type { Result } from '@/core';
import { answered } from '@/interface/data/answered';
import { Button } from '@/interface/kit/button';

interface EntryFormProps<Values extends FieldValues> {
  readonly form: UseFormReturn<Values, unknown, Values>;
  readonly button: string;
  enter(values: Values): Promise<Result<unknown>>;
  readonly children: ReactNode;
}

/** A form by which somebody comes in; what is refused is told above its button. */
export function EntryForm<Values extends FieldValues>({ form, button, enter, children }: EntryFormProps<Values>) {
  const [refusal, setRefusal] = useState<string | null>(null);
  const { handleSubmit, formState } = form;
  return (
    <form
      noValidate
      className="space-y-4"
      onSubmit={(event) =>
        void handleSubmit(async (values) => {
          setRefusal(null);
          const result = await answered(enter(values));
          if (!result.ok) setRefusal(result.message);
        })(event)
      }
    >
      {children}
      {refusal && (
        <p role="alert" className="text-brick">
          {refusal}
        </p>
      )}
      <Button variant="main" type="submit" disabled={formState.isSubmitting}>
        {button}
      </Button>
    </form>
  );
}
