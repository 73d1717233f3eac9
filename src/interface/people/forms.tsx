'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useState, type ReactNode } from 'react';
import { useForm, type FieldValues, type UseFormReturn } from 'react-hook-form';
import { claimAction, signInAction } from '@/web/actions';
import type { Result } from '@/core';
import { Button } from '@/interface/kit/button';
import { Field, Input } from '@/interface/kit/field';
import { firstPersonSchema, signInSchema, type FirstPerson, type SignIn } from '@/services/people/schemas';

interface EntryFormProps<Values extends FieldValues> {
  readonly form: UseFormReturn<Values, unknown, Values>;
  readonly button: string;
  enter(values: Values): Promise<Result<null>>;
  readonly children: ReactNode;
}

/** A form by which somebody comes in; what is refused is told above its button. */
function EntryForm<Values extends FieldValues>({ form, button, enter, children }: EntryFormProps<Values>) {
  const [refusal, setRefusal] = useState<string | null>(null);
  const { handleSubmit, formState } = form;
  return (
    <form
      noValidate
      className="space-y-4"
      onSubmit={(event) =>
        void handleSubmit(async (values) => {
          const result = await enter(values);
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

export function SignInForm() {
  const form = useForm<SignIn>({ resolver: zodResolver(signInSchema), mode: 'onTouched' });
  const { register, formState } = form;
  const { errors } = formState;
  return (
    <EntryForm<SignIn> form={form} button="Sign in" enter={signInAction}>
      <Field label="E-mail" error={errors.email?.message}>
        <Input type="email" autoComplete="username" invalid={!!errors.email} {...register('email')} />
      </Field>
      <Field label="Password" error={errors.password?.message}>
        <Input type="password" autoComplete="current-password" invalid={!!errors.password} {...register('password')} />
      </Field>
    </EntryForm>
  );
}

export function FirstPersonForm() {
  const form = useForm<FirstPerson>({ resolver: zodResolver(firstPersonSchema), mode: 'onTouched' });
  const { register, formState } = form;
  const { errors } = formState;
  return (
    <EntryForm<FirstPerson> form={form} button="Begin" enter={claimAction}>
      <Field label="Name of the network" hint="Usually the company or the house" error={errors.network?.message}>
        <Input invalid={!!errors.network} {...register('network')} />
      </Field>
      <Field label="Your name" error={errors.name?.message}>
        <Input autoComplete="name" invalid={!!errors.name} {...register('name')} />
      </Field>
      <Field label="E-mail" error={errors.email?.message}>
        <Input type="email" autoComplete="username" invalid={!!errors.email} {...register('email')} />
      </Field>
      <Field label="Password" hint="At least 10 characters" error={errors.password?.message}>
        <Input type="password" autoComplete="new-password" invalid={!!errors.password} {...register('password')} />
      </Field>
    </EntryForm>
  );
}
