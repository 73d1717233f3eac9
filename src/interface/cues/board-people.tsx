'use client';

import { useState } from 'react';
import type { Board } from '@/core/plan';
import { ROLE } from '@/core/roles';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { usePeople, useRefetch } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { setBoardPeopleAction } from '@/web/actions';

/** Who alone may press a board here; links are for whoever has them. */
export function BoardPeople({
  board,
  people: before,
  onDone,
}: {
  board: Board;
  people: readonly string[];
  onDone: () => void;
}) {
  const { notify } = useNetwork('notify');
  const people = usePeople()?.people.filter(({ role }) => ROLE[role].may.includes('operate'));
  const refetch = useRefetch('cues');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set(before));
  const [problem, setProblem] = useState<string | null>(null);
  const save = async () => {
    const result = await answered(setBoardPeopleAction(board.id, [...chosen]));
    if (!result.ok) return setProblem(result.message);
    refetch();
    notify(chosen.size === 0 ? 'Everyone whose role allows it may press it.' : 'Only these people may press it.');
    onDone();
  };
  return (
    <>
      <p className="text-faint">
        If you choose no one, everyone who may put things on screens may press it. Owners always may. Links to the board
        work for whoever has them.
      </p>
      <ul className="mt-3">
        {people?.map(({ id, name }) => (
          <li key={id}>
            <label className="flex min-h-8 items-center gap-2">
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
          </li>
        ))}
      </ul>
      {problem !== null && (
        <p role="alert" className="mt-2 text-brick">
          {problem}
        </p>
      )}
      <Button className="mt-3" onClick={() => void save()}>
        Save
      </Button>
    </>
  );
}
