'use client';

import { useState, type FormEvent } from 'react';
import { endKeyAction, makeKeyAction } from '@/web/people-actions';
import { Button } from '@/interface/kit/button';
import { Field, Input } from '@/interface/kit/field';
import { dateTime } from '@/interface/kit/format';
import { SecretAddress } from '@/interface/kit/secret-address';
import type { PersonalKey, Right } from '@/services/people';
import type { Act } from './people-place';

/** What a key may do, as one chooses it, and in a word. */
const RIGHTS: readonly { readonly right: Right; readonly label: string; readonly short: string }[] = [
  { right: 'library', label: 'It may send files into the library', short: 'library' },
  { right: 'publish', label: 'It may read and replace the plan, and publish', short: 'publishing' },
  { right: 'takeovers', label: 'It may fire takeovers, and clear them', short: 'takeovers' },
];
const USUAL: readonly Right[] = ['library'];

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
  const [rights, setRights] = useState<readonly Right[]>(USUAL);
  const [wrong, setWrong] = useState<string | null>(null);
  const [made, setMade] = useState<{ readonly name: string; readonly token: string } | null>(null);
  const make = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return setWrong('Write what the key is for, such as the folder or the program.');
    if (rights.length === 0) return setWrong('Choose what it may do: a key has one right at least.');
    const result = await act(makeKeyAction({ name, rights: [...rights] }), `The key "${name.trim()}" was made.`);
    if (!result.ok) return setWrong(result.message);
    setMade({ name: name.trim(), token: result.value.token });
    setName('');
    setRights(USUAL);
  };
  return (
    <section aria-labelledby="own-keys">
      <h2 id="own-keys" className="text-lg">
        Your keys for programs
      </h2>
      <p className="text-sm text-faint">
        With one a program does for you what you say here, and nothing else: send files into the library (
        <code>lanternpost upload</code>), publish (<code>lanternpost publish</code>), or fire takeovers over HTTP.
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
          {keys.map(({ id, name: called, rights: may, madeAt, usedAt }) => (
            <li key={id} className="flex items-center gap-3 border-b border-rule/60 py-2 last:border-b-0">
              <span className="min-w-0 flex-1">
                <span className="block truncate">{called}</span>
                <span className="block text-sm text-faint">
                  {RIGHTS.flatMap(({ right, short }) => (may.includes(right) ? [short] : [])).join(', ')} · made{' '}
                  {dateTime(Date.parse(madeAt), zone)} ·{' '}
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
        <fieldset className="w-full">
          <legend className="sr-only">What it may do</legend>
          {RIGHTS.map(({ right, label }) => (
            <label key={right} className="flex items-center gap-2 py-1">
              <input
                type="checkbox"
                className="size-4 accent-dusk"
                checked={rights.includes(right)}
                onChange={({ target }) => {
                  setRights(target.checked ? [...rights, right] : rights.filter((one) => one !== right));
                  setWrong(null);
                }}
              />
              {label}
            </label>
          ))}
        </fieldset>
      </form>
    </section>
  );
}
