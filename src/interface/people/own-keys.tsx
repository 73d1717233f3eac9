'use client';

import { useState, type FormEvent } from 'react';
import { endKeyAction, makeKeyAction } from '@/web/people-actions';
import { Button } from '@/interface/kit/button';
import { Field, Input } from '@/interface/kit/field';
import { dateTime } from '@/interface/kit/format';
import { SecretAddress } from '@/interface/kit/secret-address';
import type { PersonalKey } from '@/services/people';
import type { Act } from './people-place';

/** One's keys for programs: made for a purpose, shown once, and ended from here. */
export function OwnKeys({
  keys,
  zone,
  act,
  onTold,
}: {
  keys: readonly PersonalKey[];
  zone: string;
  act: Act;
  onTold: (text: string, bad?: boolean) => void;
}) {
  const [name, setName] = useState('');
  const [publishes, setPublishes] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const [made, setMade] = useState<{ readonly name: string; readonly token: string } | null>(null);
  const make = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return setWrong('Write what the key is for, such as the folder or the program.');
    const result = await act(
      makeKeyAction({ name, rights: publishes ? ['library', 'publish'] : ['library'] }),
      `The key "${name.trim()}" was made.`,
    );
    if (!result.ok) return setWrong(result.message);
    setMade({ name: name.trim(), token: result.value.token });
    setName('');
    setPublishes(false);
  };
  return (
    <section aria-labelledby="own-keys">
      <h2 id="own-keys" className="text-lg">
        Your keys for programs
      </h2>
      <p className="text-sm text-faint">
        With one a program sends files into the library in your name, as <code>lanternpost upload</code> does; where you
        say so, it also reads and replaces the plan, and publishes (<code>lanternpost publish</code>).
      </p>
      {made && (
        <div className="mt-2">
          <SecretAddress label={`The key ${made.name}`} address={made.token} onTold={onTold}>
            Give this key to the program that needs it. It is shown only now.
          </SecretAddress>
        </div>
      )}
      {keys.length > 0 && (
        <ul className="mt-2 border-y border-rule">
          {keys.map(({ id, name: called, rights, madeAt, usedAt }) => (
            <li key={id} className="flex items-center gap-3 border-b border-rule/60 py-2 last:border-b-0">
              <span className="min-w-0 flex-1">
                <span className="block truncate">{called}</span>
                <span className="block text-sm text-faint">
                  {rights.includes('publish') && 'may publish · '}made {dateTime(Date.parse(madeAt), zone)} ·{' '}
                  {usedAt === null ? 'never used' : `used ${dateTime(Date.parse(usedAt), zone)}`}
                </span>
              </span>
              <Button
                variant="grave"
                aria-label={`End the key ${called}`}
                onClick={() => void act(endKeyAction(id), `The key "${called}" is ended.`)}
              >
                End
              </Button>
            </li>
          ))}
        </ul>
      )}
      <form noValidate className="mt-3 flex flex-wrap items-start gap-2" onSubmit={(event) => void make(event)}>
        <Field label="What a new key is for" error={wrong ?? undefined}>
          <Input
            autoComplete="off"
            value={name}
            invalid={wrong !== null}
            onChange={({ target }) => {
              setName(target.value);
              setWrong(null);
            }}
          />
        </Field>
        <Button type="submit" className="mt-6">
          Make a key
        </Button>
        <label className="flex w-full items-center gap-2 py-1">
          <input
            type="checkbox"
            className="size-4 accent-dusk"
            checked={publishes}
            onChange={({ target }) => setPublishes(target.checked)}
          />
          It may read and replace the plan, and publish
        </label>
      </form>
    </section>
  );
}
