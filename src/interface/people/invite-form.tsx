'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useForm } from 'react-hook-form';
import { inviteAction } from '@/web/people-actions';
import { DraftOffer, useDraft } from '@/interface/forms/use-draft';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input } from '@/interface/kit/controls/field';
import { inviteSchema, type Invite } from '@/services/people/schemas';
import { ROLE } from '@/core/roles';
import { RoleSelect } from './role-select';
import type { Give } from './rows';

/** Invites a person by name and address; the typed text stays until the link is there. */
export function InviteForm({ give }: { give: Give }) {
  const { register, handleSubmit, reset, formState, watch, setValue } = useForm<Invite>({
    resolver: zodResolver(inviteSchema),
    mode: 'onSubmit',
    defaultValues: { name: '', email: '', role: 'planner' },
  });
  const { errors, isSubmitting, isDirty } = formState;
  const role = watch('role');
  const draft = useDraft('invite', isDirty ? watch() : null, (values) => {
    for (const field of ['name', 'email'] as const)
      setValue(field, String(values[field] ?? ''), { shouldDirty: true, shouldTouch: true });
  });
  return (
    <form
      noValidate
      aria-label="Invite a person"
      className="grid grid-cols-1 items-start gap-3 sm:grid-cols-[1fr_1fr_13rem_auto]"
      onSubmit={(event) =>
        void handleSubmit(async (values) => {
          const result = await give(inviteAction(values), values.name, false);
          if (result.ok) reset();
        })(event)
      }
    >
      <div className="empty:hidden sm:col-span-4">
        <DraftOffer draft={draft} />
      </div>
      <Field label="New person’s name" error={errors.name?.message}>
        <Input autoComplete="off" invalid={!!errors.name} {...register('name')} />
      </Field>
      <Field
        label="Their e-mail"
        hint="This is how they will log in. We don’t send an e-mail."
        error={errors.email?.message}
      >
        <Input type="email" autoComplete="off" invalid={!!errors.email} {...register('email')} />
      </Field>
      <Field label="Role" hint={ROLE[role].does}>
        <RoleSelect value={role} onChange={(next) => setValue('role', next)} />
      </Field>
      <Button variant="main" type="submit" disabled={isSubmitting} className="sm:mt-6">
        Create invitation link
      </Button>
    </form>
  );
}
