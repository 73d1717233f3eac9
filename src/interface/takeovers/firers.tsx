'use client';

import { useState } from 'react';
import type { Booking } from '@/core/plan';
import { ROLE } from '@/core/roles';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { usePeople, useRefetch } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { setFirersAction } from '@/web/actions';

/** Who may fire, drill and clear a takeover; if no one is chosen, everybody may. */
export function Firers({
  booking,
  firers,
  onDone,
}: {
  booking: Booking;
  firers: readonly string[];
  onDone: () => void;
}) {
  const { notify } = useNetwork('notify');
  const people = usePeople()?.people.filter(({ role }) => ROLE[role].may.includes('operate'));
  const refetch = useRefetch('editions');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set(firers));
  const [problem, setProblem] = useState<string | null>(null);
  const save = async () => {
    const result = await answered(setFirersAction(booking.id, [...chosen]));
    if (!result.ok) return setProblem(result.message);
    refetch();
    notify(chosen.size === 0 ? 'Everyone whose role allows it may activate it.' : 'Only these people may activate it.');
    onDone();
  };
  return (
    <fieldset className="mt-2 max-w-lg border border-rule p-3">
      <legend className="px-1 text-sm font-semibold">Who may fire {booking.name}</legend>
      <p className="text-sm text-faint">
        If you choose no one, everyone whose role allows it may activate it. If you choose people, only they may
        activate or change it.
      </p>
      {people?.map(({ id, name }) => (
        <label key={id} className="flex min-h-8 items-center gap-2">
          <input
            type="checkbox"
            className="size-4 accent-dusk"
            checked={chosen.has(id)}
            onChange={({ target }) => {
              const next = new Set(chosen);
              if (target.checked) next.add(id);
              else next.delete(id);
              setChosen(next);
            }}
          />
          {name}
        </label>
      ))}
      {problem !== null && (
        <p role="alert" className="mt-2 text-sm text-brick">
          {problem}
        </p>
      )}
      <div className="mt-2 flex gap-2">
        <Button onClick={() => void save()}>Save</Button>
        <Button variant="quiet" onClick={onDone}>
          Cancel
        </Button>
      </div>
    </fieldset>
  );
}
