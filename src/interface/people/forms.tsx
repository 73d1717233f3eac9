'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useForm } from 'react-hook-form';
import { claimAction, signInAction } from '@/web/people-actions';
import { Field, Input } from '@/interface/kit/field';
import { EntryForm } from './entry-form';
import { firstPersonSchema, signInSchema, type FirstPerson, type SignIn } from '@/services/people/schemas';

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
