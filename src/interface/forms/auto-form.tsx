'use client';

import equal from 'fast-deep-equal';
import { useEffect, useRef, useState, type FormEvent, type ReactNode } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import type { Problem, Result } from '@/core/refusal';
import type { Permission } from '@/core/roles';
import { Locked, WhyNot, useMay } from '@/interface/data/may';
import { Button } from '@/interface/kit/controls/button';
import type { Draft } from './drafts';
import { DraftOffer, useDraft } from './use-draft';

interface AutoFormProps<Values extends FieldValues, Output> {
  readonly form: UseFormReturn<Values, unknown, Output>;
  /** What the form is about: under this name is kept what is not saved yet. */
  readonly about: string;
  /** The button's words for a new thing. Without it the form saves by itself whenever a valid change leaves its field. */
  readonly create?: string | undefined;
  /** Whether something waits for a choice: neither leaving a field nor Enter saves then. */
  readonly held?: boolean;
  /** Where the form's own field names differ from the document's. */
  readonly fieldOf?: (problem: Problem) => string;
  save(values: Output): Promise<Result<unknown>>;
  /** The values as they are written once they are saved, which may differ from how they were typed. */
  readonly settled?: (() => Values | undefined) | undefined;
  /** The right that a person needs to change it. */
  readonly needs?: Permission;
  readonly children: ReactNode;
}

const firstKey = ({ path }: Problem) => path.split('/')[1] ?? '';

/** A form that saves by itself; only a new object is added with a button. Errors are shown at their fields. */
export function AutoForm<Values extends FieldValues, Output>({
  form,
  about,
  create,
  save,
  fieldOf = firstKey,
  held = false,
  settled,
  needs = 'plan',
  children,
}: AutoFormProps<Values, Output>) {
  const { handleSubmit, formState, reset, getValues, setError, setValue, watch } = form;
  const { isDirty, isSubmitting, defaultValues } = formState;
  const own = useRef<HTMLFormElement>(null);
  // Who adds something writes its name at once. By touch one reads first: a keyboard on the glass would cover the form.
  useEffect(() => {
    if (create && !matchMedia('(pointer: coarse)').matches)
      own.current?.querySelector<HTMLElement>('input, textarea')?.focus();
  }, [create]);
  const values = watch();
  // Of something new all is kept, what it was begun with too.
  const unsaved = Object.entries(values).filter(([field, value]) => create || !equal(value, defaultValues?.[field]));
  const mayChange = useMay(needs);
  const [isSaved, setSaved] = useState(false);
  const [restored, setRestored] = useState<Draft['values'] | null>(null);
  const fill = (fields: Draft['values']) => {
    for (const [field, value] of Object.entries(fields))
      if (field in getValues()) setValue(field as never, value as never, { shouldDirty: true, shouldTouch: true });
  };
  const draft = useDraft(
    about,
    isDirty && unsaved.length > 0 ? Object.fromEntries(unsaved) : null,
    (fields) => {
      fill(fields);
      setRestored(fields);
    },
    create ? undefined : values,
  );
  // Once more: what fields make of each other as they are filled gives way to what was written.
  useEffect(() => {
    if (restored) fill(restored);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each draft that is restored
  }, [restored]);
  const waits = useRef(held);
  useEffect(() => {
    const chosen = waits.current && !held;
    waits.current = held;
    // What one keeps of one's own is saved as soon as that is chosen.
    if (chosen && isDirty) submit();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- when the choice is made, and then alone
  }, [held]);
  const busy = useRef(false);
  const wanted = useRef(false);
  /** What was saved is clean; what was written while it was being saved is not. */
  const clean = (saved: Values) => {
    const now = structuredClone(getValues());
    reset(settled?.() ?? saved);
    for (const [key, value] of Object.entries(now))
      if (!equal(value, saved[key])) setValue(key as never, value as never, { shouldDirty: true });
  };
  const submit = (event?: FormEvent) => {
    event?.preventDefault();
    if (waits.current) return;
    wanted.current = busy.current;
    if (busy.current) return;
    busy.current = true;
    // The values at this moment are checked and saved. Anything typed during that is saved afterwards.
    const written = structuredClone(getValues());
    void handleSubmit(async (values) => {
      const result = await save(values);
      if (result.ok) {
        if (create) draft.drop();
        else draft.saved(written);
        clean(written);
        setSaved(true);
      } else
        // The field may be out of sight. Take the person who pressed the button to the first one that was refused.
        for (const [i, problem] of result.problems.entries())
          setError(fieldOf(problem) as never, { message: problem.message }, { shouldFocus: i === 0 && !!create });
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
        if (!create && isDirty) submit();
      }}
      className="space-y-5"
    >
      <DraftOffer draft={draft} />
      <WhyNot needs={needs} />
      {!create && mayChange && (
        <p role="status" className="!mb-3 text-sm text-faint">
          {isSubmitting ? 'Saving…' : isSaved && !isDirty ? 'Saved.' : 'Each change is saved when you leave its field.'}
        </p>
      )}
      <Locked needs={needs} className="min-w-0 space-y-5">
        {children}
      </Locked>
      {create && (
        // It stays visible and in place, because messages below the fields come and go while people reach for it.
        <div className="sticky bottom-0 z-10 -mx-6 !mt-4 border-t border-rule bg-paper px-6 py-3">
          <Button variant="main" type="submit" needs={needs} disabled={isSubmitting}>
            {create}
          </Button>
        </div>
      )}
    </form>
  );
}
