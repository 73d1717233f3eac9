'use client';

import { useState, type ReactNode } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import type { Result } from '@/core/refusal';
import { answered } from '@/interface/data/answered';
import { Button } from '@/interface/kit/controls/button';

interface EntryFormProps<Values extends FieldValues> {
  readonly form: UseFormReturn<Values, unknown, Values>;
  readonly button: string;
  enter(values: Values): Promise<Result<unknown>>;
  /** Why it was refused before the page's script ran. */
  readonly refused?: string | undefined;
  /** Where the browser itself sends it before the script runs. */
  readonly action?: ((form: FormData) => void) | undefined;
  readonly children: ReactNode;
}

/** The form of a login page. Errors are shown above its button. */
export function EntryForm<Values extends FieldValues>({
  form,
  button,
  enter,
  refused,
  action,
  children,
}: EntryFormProps<Values>) {
  const [refusal, setRefusal] = useState(refused ?? null);
  const { handleSubmit, formState } = form;
  return (
    <form
      noValidate
      className="space-y-4"
      {...(action ? { action } : {})}
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
      <Button variant="main" type="submit" early={action !== undefined} disabled={formState.isSubmitting}>
        {button}
      </Button>
    </form>
  );
}
