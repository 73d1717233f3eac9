'use client';

import { useState } from 'react';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { useRefetch } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input } from '@/interface/kit/controls/field';
import { SecretAddress } from '@/interface/kit/controls/secret-address';
import { dateTime } from '@/interface/kit/words/format';
import type { EnrolmentKey } from '@/services/screens';
import { endEnrolmentKeyAction, makeEnrolmentKeyAction } from '@/web/actions';

const DEFAULT_PLAYERS = '20';
const DEFAULT_DAYS = '7';

/** The keys by which players come into the tray: made, and ended. */
export function EnrolmentKeys({ keys }: { keys: readonly EnrolmentKey[] }) {
  const { notify } = useNetwork('notify');
  const refetch = useRefetch('tray');
  const zone = useZone();
  const [name, setName] = useState('');
  const [most, setMost] = useState(DEFAULT_PLAYERS);
  const [days, setDays] = useState(DEFAULT_DAYS);
  const [secret, setSecret] = useState<string | null>(null);
  const [errors, setErrors] = useState<ReadonlyMap<string, string>>(new Map());
  const make = async () => {
    const result = await answered(makeEnrolmentKeyAction({ name, most: Number(most), days: Number(days) }));
    if (!result.ok) {
      setErrors(new Map(result.problems.map(({ path, message }) => [path.slice(1), message])));
      if (result.problems.length === 0) notify(result.message, true);
      return;
    }
    setErrors(new Map());
    setName('');
    setSecret(`${location.origin}/player?enrol=${result.value.key}`);
    refetch();
  };
  const end = async (key: EnrolmentKey) => {
    const result = await answered(endEnrolmentKeyAction(key.id));
    refetch();
    notify(result.ok ? `“${key.name}” has ended. No more players come by it.` : result.message, !result.ok);
  };
  return (
    <section aria-label="Enrolment keys" className="mt-10 max-w-3xl">
      <h2 className="text-lg">Enrolment keys</h2>
      <p className="text-faint">
        With a key, players start without anyone beside them: open its address in each device’s browser, and they wait
        here. Anyone who has the address can put players into this list, but none shows anything until you pair it.
      </p>
      <ul className="mt-3">
        {keys.map((key) => (
          <li key={key.id} className="flex flex-wrap items-center gap-x-4 border-t border-rule py-2">
            <strong>{key.name}</strong>
            <span className="text-sm text-faint">
              {key.used} of {key.most} used · until {dateTime(Date.parse(key.expiresAt), zone)}
            </span>
            <Button needs="operate" variant="quiet" className="ml-auto" onClick={() => void end(key)}>
              End this key
            </Button>
          </li>
        ))}
      </ul>
      {secret && (
        <div className="mt-3">
          <SecretAddress label="Address for players" address={secret} onTold={notify}>
            Open this address on each player. It is shown only now, because only a fingerprint of it is stored.
          </SecretAddress>
        </div>
      )}
      <form
        noValidate
        className="mt-4 flex flex-wrap items-start gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <Field label="Name of the key" hint="For you: what the boxes are for" error={errors.get('name')}>
          <Input
            value={name}
            invalid={errors.has('name')}
            onChange={({ target }) => setName(target.value)}
            placeholder="Boxes for the north"
          />
        </Field>
        <Field label="Players" error={errors.get('most')} className="w-28">
          <Input
            inputMode="numeric"
            value={most}
            invalid={errors.has('most')}
            onChange={({ target }) => setMost(target.value)}
          />
        </Field>
        <Field label="Days" error={errors.get('days')} className="w-28">
          <Input
            inputMode="numeric"
            value={days}
            invalid={errors.has('days')}
            onChange={({ target }) => setDays(target.value)}
          />
        </Field>
        <Button needs="operate" type="submit" className="mt-6">
          Make a key
        </Button>
      </form>
    </section>
  );
}
