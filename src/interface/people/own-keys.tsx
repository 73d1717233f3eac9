'use client';

import { useState, type FormEvent } from 'react';
import { endKeyAction, makeKeyAction } from '@/web/people-actions';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input } from '@/interface/kit/controls/field';
import { dateTime } from '@/interface/kit/words/format';
import { SecretAddress } from '@/interface/kit/controls/secret-address';
import { rightsOf, type Right } from '@/core/roles';
import { useRole } from '@/interface/data/may';
import type { OthersKey, PersonalKey } from '@/services/people';
import type { RunAndTell } from './act';

/** The rights of a key, as you choose them, and in a word. */
const RIGHTS: readonly { readonly right: Right; readonly label: string; readonly short: string }[] = [
  { right: 'library', label: 'Send files to the library', short: 'library' },
  { right: 'publish', label: 'Read and replace the plan, and publish', short: 'publishing' },
  { right: 'takeovers', label: 'Activate takeovers, and clear them', short: 'takeovers' },
  { right: 'commands', label: 'Send commands to screens', short: 'commands' },
  { right: 'cues', label: 'Fire cues, and end them', short: 'cues' },
];

const rightsWords = (may: readonly Right[]): string =>
  RIGHTS.flatMap(({ right, short }) => (may.includes(right) ? [short] : [])).join(', ');

/** The keys of other people, for owners: each can be ended at once. */
export function OthersKeys({ keys, zone, act }: { keys: readonly OthersKey[]; zone: string; act: RunAndTell }) {
  if (keys.length === 0) return null;
  return (
    <section aria-labelledby="others-keys">
      <h2 id="others-keys" className="text-lg">
        Keys of other people
      </h2>
      <ul className="mt-2 border-y border-rule">
        {keys.map(({ id, name, person, rights, usedAt }) => (
          <li key={id} className="flex items-center gap-3 border-b border-rule/60 py-2 last:border-b-0">
            <span className="min-w-0 flex-1">
              <span className="block truncate">
                {name} <span className="text-faint">({person})</span>
              </span>
              <span className="block text-sm text-faint">
                {rightsWords(rights)} · {usedAt === null ? 'never used' : `used ${dateTime(Date.parse(usedAt), zone)}`}
              </span>
            </span>
            <Button
              variant="grave"
              aria-label={`Delete the key ${name} of ${person}`}
              onClick={() => void act(endKeyAction(id), `The key “${name}” of ${person} is deleted.`)}
            >
              Delete
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** One's keys for programs: made for a purpose, shown once, and ended from here. */
export function OwnKeys({
  keys,
  zone,
  act,
  onTold,
}: {
  keys: readonly PersonalKey[];
  zone: string;
  act: RunAndTell;
  onTold: (text: string, bad?: boolean) => void;
}) {
  const role = useRole();
  const allowed = role ? rightsOf(role) : [];
  const offered = RIGHTS.filter(({ right }) => allowed.includes(right));
  const [name, setName] = useState('');
  const [wanted, setRights] = useState<readonly Right[]>(offered.slice(0, 1).map(({ right }) => right));
  // Another role may have come since.
  const rights = wanted.filter((right) => allowed.includes(right));
  const [wrong, setWrong] = useState<string | null>(null);
  const [made, setMade] = useState<{ readonly name: string; readonly token: string } | null>(null);
  const make = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return setWrong('Write what the key is for, such as the folder or the program.');
    if (rights.length === 0) return setWrong('Tick at least one right.');
    const result = await act(makeKeyAction({ name, rights: [...rights] }), `The key “${name.trim()}” was made.`);
    if (!result.ok) return setWrong(result.message);
    setMade({ name: name.trim(), token: result.value.token });
    setName('');
  };
  return (
    <section aria-labelledby="own-keys">
      <h2 id="own-keys" className="text-lg">
        Your keys for programs
      </h2>
      <p className="text-sm text-faint">
        A key lets a program act for you, with only the rights that you tick below, and never with more than you have.
        Programs send files (<code>lanternpost upload</code>), publish (<code>lanternpost publish</code>), or activate
        takeovers over HTTP.
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
                  {rightsWords(may)} · made {dateTime(Date.parse(madeAt), zone)} ·{' '}
                  {usedAt === null ? 'never used' : `used ${dateTime(Date.parse(usedAt), zone)}`}
                </span>
              </span>
              <Button
                variant="grave"
                aria-label={`Delete the key ${called}`}
                onClick={() => void act(endKeyAction(id), `The key “${called}” is deleted.`)}
              >
                Delete
              </Button>
            </li>
          ))}
        </ul>
      )}
      {offered.length === 0 ? (
        <p className="mt-2 text-sm">Your role has no rights that a key could use.</p>
      ) : (
        <form noValidate className="mt-3 flex flex-wrap items-start gap-2" onSubmit={(event) => void make(event)}>
          <Field label="What the new key is for" error={wrong ?? undefined}>
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
            Create key
          </Button>
          <fieldset className="w-full">
            <legend className="sr-only">What it may do</legend>
            {offered.map(({ right, label }) => (
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
      )}
    </section>
  );
}
