'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useActionState, type InputHTMLAttributes } from 'react';
import { useForm, type UseFormReturn } from 'react-hook-form';
import { claimAction, claimPlainly, signInAction, signInPlainly, type SentBack } from '@/web/people-actions';
import { Field, Input } from '@/interface/kit/controls/field';
import { EntryForm } from './entry-form';
import { firstPersonSchema, signInSchema, type FirstPerson, type SignIn } from '@/services/people/schemas';

/** These forms work before the page's script runs, and without it: the browser sends them, and the page comes back with what was refused. */
const BEGUN: SentBack = { refused: null, values: {} };

/** Why logging in failed, if no field shows it. */
const refusalOf = ({ refused }: SentBack) => (refused?.problems.length === 0 ? refused.message : undefined);

export function SignInForm() {
  const [sent, action] = useActionState(signInPlainly, BEGUN);
  const form = useForm<SignIn>({ resolver: zodResolver(signInSchema), mode: 'onTouched' });
  const of = { form, sent };
  return (
    <EntryForm<SignIn> form={form} button="Log in" enter={signInAction} action={action} refused={refusalOf(sent)}>
      <Entry of={of} name="email" label="E-mail" type="email" autoComplete="username" />
      <Entry of={of} name="password" label="Password" type="password" autoComplete="current-password" />
    </EntryForm>
  );
}

export function FirstPersonForm() {
  const [sent, action] = useActionState(claimPlainly, BEGUN);
  const form = useForm<FirstPerson>({ resolver: zodResolver(firstPersonSchema), mode: 'onTouched' });
  const of = { form, sent };
  return (
    <EntryForm<FirstPerson>
      form={form}
      button="Create network"
      enter={claimAction}
      action={action}
      refused={refusalOf(sent)}
    >
      <Entry of={of} name="network" label="Name of the network" hint="Usually your company" />
      <Entry of={of} name="name" label="Your name" autoComplete="name" />
      <Entry of={of} name="email" label="E-mail" type="email" autoComplete="username" />
      <Entry
        of={of}
        name="password"
        label="Password"
        hint="At least 10 characters"
        type="password"
        autoComplete="new-password"
      />
    </EntryForm>
  );
}

/** One field: what stood in it when it was sent back, and what is wrong with it, by either way. */
function Entry<V extends SignIn | FirstPerson>({
  of: { form, sent },
  name,
  label,
  hint,
  ...rest
}: {
  of: { form: UseFormReturn<V>; sent: SentBack };
  name: keyof V & string;
  label: string;
  hint?: string;
} & Pick<InputHTMLAttributes<HTMLInputElement>, 'type' | 'autoComplete'>) {
  const problem =
    form.formState.errors[name]?.message?.toString() ??
    sent.refused?.problems.find(({ path }) => path === `/${name}`)?.message;
  return (
    <Field label={label} hint={hint} error={problem}>
      <Input
        {...rest}
        invalid={problem !== undefined}
        defaultValue={sent.values[name]}
        {...form.register(name as never)}
      />
    </Field>
  );
}
