'use client';

import { useState, type ReactNode } from 'react';
import type { Result } from '@/core/refusal';
import { ROLE } from '@/core/roles';
import { usePeople } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';

/** Chooses people among those who may put things on screens: for what is theirs alone. If nobody is chosen, it is for all of them. */
export function ChoosePeople({
  before,
  save,
  onCancel,
  children,
}: {
  /** The ids of those who are chosen already. */
  before: readonly string[];
  save: (people: readonly string[]) => Promise<Result<unknown>>;
  onCancel?: () => void;
  /** What the choice means. */
  children: ReactNode;
}) {
  const people = usePeople()?.people.filter(({ role }) => ROLE[role].may.includes('operate'));
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set(before));
  const [problem, setProblem] = useState<string | null>(null);
  const submit = async () => {
    const result = await save([...chosen]);
    setProblem(result.ok ? null : result.message);
  };
  return (
    <>
      <p className="text-sm text-faint">{children}</p>
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
        <Button onClick={() => void submit()}>Save</Button>
        {onCancel && (
          <Button variant="quiet" onClick={onCancel}>
            Cancel
          </Button>
        )}
      </div>
    </>
  );
}
