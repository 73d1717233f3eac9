'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { claimAction, signInAction } from '@/interface/data/actions';
import { Button } from '@/interface/kit/button';
import { Field, Input } from '@/interface/kit/field';
import { firstPersonSchema, signInSchema, type FirstPerson, type SignIn } from '@/services/people/schemas';

export function SignInForm() {
  const { register, handleSubmit, formState } = useForm<SignIn>({
    resolver: zodResolver(signInSchema),
    mode: 'onTouched',
  });
  const [refusal, setRefusal] = useState<string | null>(null);
  const { errors, isSubmitting } = formState;
  return (
    <form
      noValidate
      className="space-y-4"
      onSubmit={(event) =>
        void handleSubmit(async (values) => {
          const result = await signInAction(values);
          if (!result.ok) setRefusal(result.message);
        })(event)
      }
    >
      <Field label="E-mail" error={errors.email?.message}>
        <Input type="email" autoComplete="username" invalid={!!errors.email} {...register('email')} />
      </Field>
      <Field label="Password" error={errors.password?.message}>
        <Input type="password" autoComplete="current-password" invalid={!!errors.password} {...register('password')} />
      </Field>
      {refusal && (
        <p role="alert" className="text-brick">
          {refusal}
        </p>
      )}
      <Button look="main" type="submit" disabled={isSubmitting}>
        Sign in
      </Button>
    </form>
  );
}

export function FirstPersonForm() {
  const { register, handleSubmit, formState } = useForm<FirstPerson>({
    resolver: zodResolver(firstPersonSchema),
    mode: 'onTouched',
  });
  const [refusal, setRefusal] = useState<string | null>(null);
  const { errors, isSubmitting } = formState;
  return (
    <form
      noValidate
      className="space-y-4"
      onSubmit={(event) =>
        void handleSubmit(async (values) => {
          const result = await claimAction(values);
          if (!result.ok) setRefusal(result.message);
        })(event)
      }
    >
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
      {refusal && (
        <p role="alert" className="text-brick">
          {refusal}
        </p>
      )}
      <Button look="main" type="submit" disabled={isSubmitting}>
        Begin
      </Button>
    </form>
  );
}
