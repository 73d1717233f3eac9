'use client';

import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from '@headlessui/react';
import { useMemo, useState, type FormEvent } from 'react';
import { COMMANDS, KEPT_MS, PLAYER_INPUT, SOCKETS, type Amount, type CommandKind } from '@/core/commands';
import { DAY, HOUR, MINUTE } from '@/core/instant';
import type { Plan } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input, Select } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { useSendCommand } from './use-send';

const SPREADS: readonly (readonly [string, number])[] = [
  ['All at once', 0],
  ['Over 10 minutes', 10 * MINUTE],
  ['Over an hour', HOUR],
  ['Over 6 hours', 6 * HOUR],
];
const KEPT: readonly (readonly [string, number])[] = [
  ['10 minutes', KEPT_MS],
  ['an hour', HOUR],
  ['a day', DAY],
  ['7 days', 7 * DAY],
];

/** Asks before a command is sent: the amount, whether to spread it over time, and how long to keep it for screens that are offline. */
export function CommandDialog({
  kind,
  screens,
  others,
  onClose,
}: {
  kind: CommandKind;
  /** Those that can do it. */
  screens: readonly string[];
  /** How many more were chosen, and can't. */
  others: number;
  onClose: () => void;
}) {
  const { draft } = useNetwork('draft');
  const send = useSendCommand();
  const { name, does, hides, amount } = COMMANDS[kind];
  const values = useMemo(() => valuesOf(amount, draft, screens), [amount, draft, screens]);
  const [value, setValue] = useState(values?.[0]?.[0] ?? '');
  const [spreadMs, setSpreadMs] = useState(0);
  const [keptMs, setKeptMs] = useState<number>(KEPT_MS);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const several = screens.length > 1;
  const where = several
    ? counted(screens.length, 'screen')
    : (draft.screens.find(({ id }) => id === screens[0])?.name ?? 'this screen');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const most = amount?.most ?? 100;
    const number = value.trim().replace(/\s*%$/, '');
    if (amount && !values && !(/^\d{1,3}$/.test(number) && Number(number) <= most))
      return setProblem(`Write a whole number from 0 to ${most}.`);
    setBusy(true);
    const refused = await send(kind, screens, {
      ...(amount ? { [amount.field]: amount.field === 'input' ? value : Number.parseInt(value, 10) } : {}),
      ...{ spreadMs: several ? spreadMs : 0, keptMs },
    });
    setBusy(false);
    if (refused === null) onClose();
    else setProblem(refused);
  };
  return (
    <Dialog open onClose={onClose} className="relative z-50">
      <DialogBackdrop className="fixed inset-0 bg-[rgb(0_0_0/0.35)]" />
      <div className="fixed inset-0 flex items-end justify-center sm:items-center">
        <DialogPanel className="max-h-full w-full max-w-md overflow-y-auto border border-rule bg-paper p-5">
          <DialogTitle className="text-xl">
            {name}: {where}
          </DialogTitle>
          <p className="mt-2">{does}</p>
          {hides && several && (
            <p className="mt-2 font-semibold">This puts {counted(screens.length, 'screen')} out of sight.</p>
          )}
          {others > 0 && (
            <p className="mt-2 text-faint">
              {counted(others, 'other chosen screen')} {others === 1 ? 'has' : 'have'} no player, or can’t do this.
            </p>
          )}
          <form onSubmit={(event) => void submit(event)} className="mt-4 flex flex-col gap-3">
            {amount && (
              <Field label={amount.label} error={problem ?? undefined}>
                {values ? (
                  <Select value={value} onChange={(event) => setValue(event.target.value)}>
                    {values.map(([one, words]) => (
                      <option key={one} value={one}>
                        {words}
                      </option>
                    ))}
                  </Select>
                ) : (
                  <Input
                    inputMode="numeric"
                    placeholder={`0 to ${amount.most ?? 100}`}
                    invalid={problem !== null}
                    value={value}
                    onChange={(event) => setValue(event.target.value)}
                  />
                )}
              </Field>
            )}
            {several && (
              <Field
                label="When"
                hint={spreadMs > 0 ? 'One screen after the other, so that they are never all out of sight.' : undefined}
              >
                <Choice of={SPREADS} value={spreadMs} onChange={setSpreadMs} />
              </Field>
            )}
            <Field
              label="Keep it for screens that are offline"
              hint="A screen that comes back later than that doesn’t do it."
            >
              <Choice of={KEPT} value={keptMs} onChange={setKeptMs} />
            </Field>
            {!amount && problem !== null && (
              <p role="alert" className="text-sm text-brick">
                {problem}
              </p>
            )}
            <div className="mt-2 flex flex-wrap gap-3">
              <Button type="submit" variant="main" disabled={busy}>
                {busy ? 'Sending…' : several ? `${name} on ${counted(screens.length, 'screen')}` : name}
              </Button>
              <Button onClick={onClose}>Cancel</Button>
            </div>
          </form>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

/** What there is to choose from, each with its words; null where a number is typed. Inputs are those of the screens' profiles, or the usual ones. */
function valuesOf(
  amount: Amount | undefined,
  { profiles, screens }: Pick<Plan, 'profiles' | 'screens'>,
  chosen: readonly string[],
): readonly (readonly [string, string])[] | null {
  if (amount?.values) return amount.values.map((one) => [String(one), `${one}°`]);
  if (amount?.field !== 'input') return null;
  const wanted = new Set(chosen);
  const named = new Set(
    screens.flatMap(({ id, profile }) => (profile !== undefined && wanted.has(id) ? [profile] : [])),
  );
  const inputs = profiles.flatMap((profile) => (named.has(profile.id) ? (profile.inputs ?? []) : []));
  const known = new Map(inputs.map(({ id, name }) => [id, name]));
  return [[PLAYER_INPUT, 'The player'], ...(known.size > 0 ? known : Object.entries(SOCKETS))];
}

function Choice({
  of,
  value,
  onChange,
}: {
  of: readonly (readonly [string, number])[];
  value: number;
  onChange: (value: number) => void;
}) {
  return (
    <Select value={String(value)} onChange={(event) => onChange(Number(event.target.value))}>
      {of.map(([name, ms]) => (
        <option key={ms} value={String(ms)}>
          {name}
        </option>
      ))}
    </Select>
  );
}
