'use client';

import { useState } from 'react';
import { useNetwork } from '@/interface/data/provider';
import { WhereField } from '@/interface/forms/where-field';
import { Input } from '@/interface/kit/controls/field';
import { selectScreens } from '@/interface/kit/screens/select-screens';
import type { Piloting } from '@/services/editions';
import { AtField, useAt, type At } from './at-field';

/** When the other screens get what is tried on some first. */
type Others = 'by-hand' | 'when-lit' | 'at-a-time';

/** On which screens something is tried first, and what happens then. */
export interface Pilot {
  readonly where: string;
  say(where: string): void;
  readonly others: Others;
  choose(others: Others): void;
  /** What is written as the minutes. */
  readonly minutes: string;
  wait(minutes: string): void;
  readonly at: At;
  /** How many screens are meant. */
  readonly screens: number;
  /** Null where something is missing. */
  readonly value: Piloting | null;
}

const MINUTES = /^\s*(\d{1,4})\s*(?:min|minutes?)?\s*$/i;
const MOST_MINUTES = 1440;

export function usePilot(): Pilot {
  const { draft } = useNetwork('draft');
  const [where, say] = useState('');
  const [others, choose] = useState<Others>('by-hand');
  const [minutes, wait] = useState('10');
  const at = useAt();
  const found = selectScreens(draft, where);
  const screens = where.trim() !== '' && found.ok ? found.value.length : 0;
  const value = screens > 0 ? piloting(where, others, minutesIn(minutes), at) : null;
  return { where, say, others, choose, minutes, wait, at, screens, value };
}

function piloting(where: string, others: Others, minutes: number | null, { goesOut }: At): Piloting | null {
  if (others === 'by-hand') return { where, minutes: null };
  if (minutes === null) return null;
  if (others === 'when-lit') return { where, minutes };
  return typeof goesOut === 'number' ? { where, minutes, at: goesOut } : null;
}

function minutesIn(text: string): number | null {
  const minutes = Number(MINUTES.exec(text)?.[1] ?? 0);
  return minutes >= 1 && minutes <= MOST_MINUTES ? minutes : null;
}

const OTHERS: readonly (readonly [Others, string])[] = [
  ['by-hand', 'when I approve'],
  ['when-lit', 'as soon as these screens have been lit for some minutes'],
  ['at-a-time', 'at a set time, if these screens have been lit for some minutes by then'],
];

/** Some screens get it first; the others when a person says so, or by themselves. */
export function PilotForm({ pilot }: { pilot: Pilot }) {
  const { draft } = useNetwork('draft');
  const { others, minutes, wait } = pilot;
  const wrong = minutesIn(minutes) === null;
  return (
    <fieldset className="w-full max-w-xl border border-rule p-3">
      <legend className="px-1 font-semibold">On some screens first</legend>
      <WhereField plan={draft} value={pilot.where} onChange={pilot.say} />
      <div className="mt-3 space-y-1" role="radiogroup" aria-label="The others get it">
        <p className="text-sm text-faint">The others keep what they have now, and get it</p>
        {OTHERS.map(([value, words]) => (
          <label key={value} className="flex min-h-6 items-center gap-2">
            <input type="radio" name="others" checked={others === value} onChange={() => pilot.choose(value)} />
            {words}
          </label>
        ))}
      </div>
      {others !== 'by-hand' && (
        <div className="mt-2 space-y-2">
          <p className="flex flex-wrap items-center gap-2">
            <span>Lit for at least</span>
            <span className="w-20">
              <Input
                aria-label="Minutes"
                value={minutes}
                invalid={wrong}
                inputMode="numeric"
                onChange={({ target }) => wait(target.value)}
              />
            </span>
            <span>minutes, all of them without an error</span>
          </p>
          {wrong && (
            <p role="alert" className="text-sm text-brick">
              Write whole minutes, 1 to {MOST_MINUTES}.
            </p>
          )}
          {others === 'at-a-time' && (
            <AtField label="Time for the others" at={pilot.at} placeholder="tomorrow 06:00" bySites={false} />
          )}
        </div>
      )}
      <p className="mt-2 text-sm text-faint">
        An error, or a screen that goes dark, stops the pilot. Then you decide. You can cancel it at any time.
      </p>
    </fieldset>
  );
}
