'use client';

import { useState } from 'react';
import { useNetwork } from '@/interface/data/provider';
import { WhereField } from '@/interface/forms/where-field';
import { Input } from '@/interface/kit/field';
import { selectScreens } from '@/interface/kit/select-screens';
import type { Piloting } from '@/services/editions';

/** On which screens something is tried first, and what happens then. */
export interface Pilot {
  readonly where: string;
  say(where: string): void;
  /** What is written as the minutes; null where a person decides. */
  readonly minutes: string | null;
  wait(minutes: string | null): void;
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
  const [minutes, wait] = useState<string | null>(null);
  const found = selectScreens(draft, where);
  const screens = where.trim() !== '' && found.ok ? found.value.length : 0;
  const after = minutes === null ? null : minutesIn(minutes);
  const isRead = minutes === null || after !== null;
  return { where, say, minutes, wait, screens, value: screens > 0 && isRead ? { where, minutes: after } : null };
}

function minutesIn(text: string): number | null {
  const minutes = Number(MINUTES.exec(text)?.[1] ?? 0);
  return minutes >= 1 && minutes <= MOST_MINUTES ? minutes : null;
}

/** Some screens get it first; the others when a person says so, or by themselves. */
export function PilotForm({ pilot }: { pilot: Pilot }) {
  const { draft } = useNetwork('draft');
  const { minutes, wait } = pilot;
  const wrong = minutes !== null && minutesIn(minutes) === null;
  return (
    <fieldset className="w-full max-w-xl border border-rule p-3">
      <legend className="px-1 font-semibold">On some screens first</legend>
      <WhereField plan={draft} value={pilot.where} onChange={pilot.say} />
      <div className="mt-3 space-y-1" role="radiogroup" aria-label="The others get it">
        <p className="text-sm text-faint">The others keep what they have, and get it</p>
        <label className="flex min-h-6 items-center gap-2">
          <input type="radio" name="others" checked={minutes === null} onChange={() => wait(null)} />
          when somebody says so
        </label>
        <div className="flex min-h-6 flex-wrap items-center gap-2">
          <label className="flex items-center gap-2">
            <input type="radio" name="others" checked={minutes !== null} onChange={() => wait('10')} />
            by themselves after
          </label>
          <span className="w-20">
            <Input
              aria-label="Minutes"
              value={minutes ?? ''}
              disabled={minutes === null}
              invalid={wrong}
              inputMode="numeric"
              onChange={({ target }) => wait(target.value)}
            />
          </span>
          <span>minutes, all of these lit without an error</span>
        </div>
        {wrong && (
          <p role="alert" className="text-sm text-brick">
            Write whole minutes, 1 to {MOST_MINUTES}.
          </p>
        )}
      </div>
      <p className="mt-2 text-sm text-faint">
        An error, or a screen that goes dark with it, stops it: then you decide. It can be taken back at any time.
      </p>
    </fieldset>
  );
}
