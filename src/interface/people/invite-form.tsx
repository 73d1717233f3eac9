'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useForm } from 'react-hook-form';
import { inviteAction } from '@/web/people-actions';
import { DraftOffer, useDraft } from '@/interface/forms/use-draft';
import { Button } from '@/interface/kit/button';
import { Field, Input } from '@/interface/kit/field';
import { inviteSchema, type Invite } from '@/services/people/schemas';
import type { Give } from './rows';

/** Invites somebody by name and address; what was typed stays until the link is there. */
export function InviteForm({ give }: { give: Give }) {
  const { register, handleSubmit, reset, formState, watch, setValue } = useForm<Invite>({
    resolver: zodResolver(inviteSchema),
    mode: 'onTouched',
    defaultValues: { name: '', email: '' },
  });
  const { errors, isSubmitting, isDirty } = formState;
  const draft = useDraft('invite', isDirty ? watch() : null, (values) => {
    for (const field of ['name', 'email'] as const)
      setValue(field, String(values[field] ?? ''), { shouldDirty: true, shouldTouch: true });
  });
  return (
    <form
      noValidate
      aria-label="Invite somebody"
      className="grid grid-cols-1 items-start gap-3 sm:grid-cols-[1fr_1fr_auto]"
      onSubmit={(event) =>
        void handleSubmit(async (values) => {
          const result = await give(inviteAction(values), values.name, false);
          if (result.ok) reset();
        })(event)
      }
    >
      <div className="empty:hidden sm:col-span-3">
        <DraftOffer draft={draft} />
      </div>
      <Field label="Name of somebody new" error={errors.name?.message}>
        <Input autoComplete="off" invalid={!!errors.name} {...register('name')} />
      </Field>
      <Field label="Their e-mail" hint="They sign in with it; nothing is sent there" error={errors.email?.message}>
        <Input type="email" autoComplete="off" invalid={!!errors.email} {...register('email')} />
      </Field>
      <Button variant="main" type="submit" disabled={isSubmitting} className="sm:mt-6">
        Make a link
      </Button>
    </form>
  );
}
