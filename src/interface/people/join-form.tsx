'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import type { Result } from '@/core/refusal';
import { ROLE } from '@/core/roles';
import { offerAction, joinAction } from '@/web/people-actions';
import { answered } from '@/interface/data/answered';
import { Field, Input } from '@/interface/kit/controls/field';
import { joinSchema, type Join } from '@/services/people/schemas';
import type { Offer } from '@/services/people';
import { EntryForm } from './entry-form';

/** The page that a link opens: its secret is behind the #, so that no server and no log sees it. */
export function JoinForm() {
  const [given, setGiven] = useState<{ readonly token: string; readonly offer: Result<Offer> } | null>(null);
  useEffect(() => {
    const look = () => {
      const token = location.hash.slice(1);
      void answered(offerAction(token)).then((offer) => setGiven({ token, offer }));
    };
    look();
    window.addEventListener('hashchange', look);
    return () => window.removeEventListener('hashchange', look);
  }, []);
  if (!given) return <h1 className="text-3xl">One moment…</h1>;
  const { token, offer } = given;
  if (offer.ok) return <Entry key={token} token={token} offer={offer.value} />;
  return (
    <>
      <h1 className="text-3xl">This link doesn’t work</h1>
      <p role="alert" className="mt-2 text-brick">
        {offer.message}
      </p>
    </>
  );
}

function Entry({ token, offer }: { token: string; offer: Offer }) {
  const form = useForm<Join>({
    resolver: zodResolver(joinSchema),
    mode: 'onTouched',
    defaultValues: { name: offer.name },
  });
  const { register, formState } = form;
  const { errors } = formState;
  return (
    <>
      <h1 className="text-3xl">{offer.reset ? 'A new password' : offer.network}</h1>
      <p className="mt-2 mb-6 text-faint">
        {offer.reset
          ? `For ${offer.name} at ${offer.network}. Windows that are logged in with the old password will be logged out.`
          : `You are invited as ${(offer.role ? ROLE[offer.role].name : 'Viewer').toLowerCase()}. This link works once.`}
      </p>
      <EntryForm<Join>
        form={form}
        button={offer.reset ? 'Set password and log in' : 'Join'}
        enter={(values) => joinAction(token, values)}
      >
        <Field label="E-mail" hint="You log in with it">
          <Input type="email" autoComplete="username" value={offer.email} readOnly />
        </Field>
        {!offer.reset && (
          <Field label="Your name" hint="As other people will see it" error={errors.name?.message}>
            <Input autoComplete="name" invalid={!!errors.name} {...register('name')} />
          </Field>
        )}
        <Field label="Password" hint="At least 10 characters" error={errors.password?.message}>
          <Input type="password" autoComplete="new-password" invalid={!!errors.password} {...register('password')} />
        </Field>
      </EntryForm>
    </>
  );
}
