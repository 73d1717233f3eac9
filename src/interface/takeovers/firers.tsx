'use client';

import { useState } from 'react';
import type { Booking } from '@/core';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { usePeople, useRefetch } from '@/interface/data/queries';
import { Button } from '@/interface/kit/button';
import { setFirersAction } from '@/web/actions';

/** Who alone may fire, try and clear a takeover; with nobody chosen everybody may. */
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
  const people = usePeople()?.people;
  const refetch = useRefetch('editions');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set(firers));
  const [problem, setProblem] = useState<string | null>(null);
  const save = async () => {
    const result = await answered(setFirersAction(booking.id, [...chosen]));
    if (!result.ok) return setProblem(result.message);
    refetch();
    notify(chosen.size === 0 ? 'Everybody may fire it.' : 'Those alone may fire it.');
    onDone();
  };
  return (
    <fieldset className="mt-2 max-w-lg border border-rule p-3">
      <legend className="px-1 text-sm font-semibold">Who may fire {booking.name}</legend>
      <p className="text-sm text-faint">With nobody chosen, everybody may.</p>
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
          Leave it
        </Button>
      </div>
    </fieldset>
  );
}
