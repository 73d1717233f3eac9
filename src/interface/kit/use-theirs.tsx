'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { FieldValues, Path, UseFormReturn } from 'react-hook-form';
import { useNetwork } from '@/interface/data/provider';
import { merge } from './merge';

/** A field that somebody else changed while one was writing in it. */
interface Conflict {
  readonly field: string;
  readonly theirs: unknown;
}

/**
 * Follows what others make of the object that a form edits. `current` are the form's values of the object as it is now, undefined
 * for a new one. What others change appears in the form; where one is writing oneself, one's own words stay, and are told of.
 */
export function useTheirs<V extends FieldValues, O>(form: UseFormReturn<V, unknown, O>, current: V | undefined) {
  const { change, notify } = useNetwork();
  const key = JSON.stringify(current);
  const base = useRef(current);
  /** The change that the form's values stand on: an edit names it, so that none is overwritten unseen. */
  const basedOn = useRef(change);
  const [conflicts, setConflicts] = useState<readonly Conflict[]>([]);
  const { getValues, setValue, reset } = form;
  useEffect(() => {
    const before = base.current;
    base.current = current;
    basedOn.current = Math.max(basedOn.current, change);
    if (!current || !before || JSON.stringify(before) === key) return;
    const mine = getValues();
    const { values, both } = merge<V>(before, current, mine);
    const changed = JSON.stringify(values) !== JSON.stringify(mine);
    // What is now in the object is clean; what differs from it is one's own and not saved yet.
    reset(current);
    for (const [field, value] of Object.entries(values))
      setValue(field as Path<V>, value, {
        shouldDirty: JSON.stringify(value) !== JSON.stringify((current as FieldValues)[field]),
      });
    const theirs = current as FieldValues;
    const differs = (field: string) => JSON.stringify(theirs[field]) !== JSON.stringify((values as FieldValues)[field]);
    setConflicts((known) =>
      [...new Set<string>([...known.map((one) => one.field).filter(differs), ...both])].map((field) => ({
        field,
        theirs: theirs[field],
      })),
    );
    if (changed && both.length === 0) notify('Somebody changed this meanwhile: the form shows it.');
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `key` is all of `current`
  }, [key, change, getValues, setValue, reset, notify]);

  const take = useCallback(
    ({ field, theirs }: Conflict) => {
      setValue(field as Path<V>, theirs as never, { shouldDirty: false });
      setConflicts((list) => list.filter((one) => one.field !== field));
    },
    [setValue],
  );
  return useMemo(() => ({ conflicts, take, basedOn, keep: () => setConflicts([]) }), [conflicts, take]);
}

/** Says what both changed, with a way to take the other's words. */
export function Conflicts({
  theirs: { conflicts, take, keep },
  names,
}: {
  theirs: Pick<ReturnType<typeof useTheirs>, 'conflicts' | 'take' | 'keep'>;
  /** What people call the fields. */
  names: Readonly<Record<string, string>>;
}) {
  if (conflicts.length === 0) return null;
  return (
    <div role="alert" className="border-l-2 border-brick bg-sheet p-3 text-sm" data-testid="conflicts">
      <p>Somebody changed the same as you, meanwhile. Yours stands in the form, theirs is in the plan.</p>
      <ul className="mt-1 space-y-1">
        {conflicts.map((conflict) => (
          <li key={conflict.field} className="flex items-center gap-3">
            <span>
              {names[conflict.field] ?? conflict.field}: theirs is <strong>{wordsOf(conflict.theirs)}</strong>
            </span>
            <button type="button" className="text-tide hover:underline" onClick={() => take(conflict)}>
              Take theirs
            </button>
          </li>
        ))}
      </ul>
      <button type="submit" className="mt-1 text-tide hover:underline" onClick={keep}>
        Keep mine
      </button>
    </div>
  );
}

function wordsOf(value: unknown): string {
  if (typeof value === 'string') return value === '' ? 'nothing' : value;
  return typeof value === 'boolean' ? (value ? 'yes' : 'no') : JSON.stringify(value);
}
