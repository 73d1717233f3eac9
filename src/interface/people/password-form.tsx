'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useForm } from 'react-hook-form';
import { changePasswordAction } from '@/web/people-actions';
import { Field, Input } from '@/interface/kit/controls/field';
import { passwordChangeSchema, type PasswordChange } from '@/services/people/schemas';
import { EntryForm } from './entry-form';
import type { RunAndTell } from './act';

const EMPTY = { current: '', password: '' };

/** Changes one's own password. */
export function PasswordForm({ act }: { act: RunAndTell }) {
  const form = useForm<PasswordChange>({
    resolver: zodResolver(passwordChangeSchema),
    mode: 'onTouched',
    defaultValues: EMPTY,
  });
  const { register, formState, reset } = form;
  const { errors } = formState;
  return (
    <section aria-labelledby="own-password">
      <h2 id="own-password" className="mb-2 text-lg">
        Your password
      </h2>
      <EntryForm<PasswordChange>
        form={form}
        button="Change it"
        enter={async (values) => {
          const result = await act(
            changePasswordAction(values),
            'Your password is changed; your other windows are logged out.',
          );
          if (result.ok) reset(EMPTY);
          return result;
        }}
      >
        <Field label="Current password" error={errors.current?.message}>
          <Input type="password" autoComplete="current-password" invalid={!!errors.current} {...register('current')} />
        </Field>
        <Field label="New password" hint="At least 10 characters" error={errors.password?.message}>
          <Input type="password" autoComplete="new-password" invalid={!!errors.password} {...register('password')} />
        </Field>
      </EntryForm>
    </section>
  );
}
