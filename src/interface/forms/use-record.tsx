'use client';

import equal from 'fast-deep-equal';
import { useCallback, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { FieldValues, Path, UseFormReturn } from 'react-hook-form';
import { added, objectIn, patchOf, type DocumentOf, type ListedKind, type Patch } from '@/core/plan';
import { useAuthor, useFromNetwork, useNetwork } from '@/interface/data/provider';
import { groupsOf, merge, type Sent } from './merge';

/** A field that another person changed while this one was editing it. */
interface Conflict {
  readonly field: string;
  readonly theirs: unknown;
  /** All fields that are one value with it, as they are there. */
  readonly values: Readonly<Record<string, unknown>>;
}

/** What an object's form is about. */
interface RecordForm<K extends ListedKind, V extends FieldValues> {
  readonly kind: K;
  /** As it is now; null for a new one. */
  readonly object: DocumentOf<K> | null;
  /** The form's values of an object. */
  valuesOf(object: DocumentOf<K>): V;
  /** Which of the form's fields make a field of the document, where they are not called alike. */
  readonly madeOf?: { readonly [F in keyof DocumentOf<K> & string]?: readonly (keyof V & string)[] };
}

/**
 * Follows other people's changes of the object that a form edits. Their changes appear in the form; in fields that this person
 * is editing, the person's own text stays, and both are shown. `patch` makes a patch from checked values, with only the fields that
 * this person changed, based on what they have seen.
 */
export function useRecord<K extends ListedKind, V extends FieldValues, O>(
  form: UseFormReturn<V, unknown, O>,
  { kind, object: shown, valuesOf, madeOf = {} }: RecordForm<K, V>,
) {
  // As the server has it: one's own words are not taken for another's while they are on their way, nor lost when refused.
  const object = useFromNetwork(({ base }) => (shown ? objectIn(base, kind, shown.id) : null)) ?? shown;
  const { notify } = useNetwork('notify');
  const author = useAuthor(kind, object?.id);
  const current = object ? valuesOf(object) : undefined;
  const together = Object.values<readonly string[] | undefined>(madeOf).flatMap((group) => (group ? [group] : []));
  const key = JSON.stringify(current);
  const base = useRef(current);
  const seen = useRef(object);
  const sent = useRef<Sent<V> | null>(null);
  const [conflicts, setConflicts] = useState<readonly Conflict[]>([]);
  const { getValues, setValue, reset } = form;
  // Before anything else is saved, because the next patch builds on this one's result.
  useLayoutEffect(() => {
    const before = base.current;
    base.current = current;
    seen.current = object;
    if (!current || !before || equal(before, current)) return;
    const mine = getValues();
    const { values, both } = merge<V>(before, current, mine, sent.current, together);
    // A value that this person saved, and that is now written differently, isn't another person's change.
    const isOwn = (field: string) =>
      equal((values as FieldValues)[field], sent.current?.made[field]) &&
      equal((mine as FieldValues)[field], sent.current?.written[field]);
    const changed = Object.keys(values).some(
      (field) => !equal((values as FieldValues)[field], (mine as FieldValues)[field]) && !isOwn(field),
    );
    // What is now in the object is clean; what differs from it is one's own and not saved yet.
    reset(current);
    for (const [field, value] of Object.entries(values))
      setValue(field as Path<V>, value, {
        shouldDirty: !equal(value, (current as FieldValues)[field]),
      });
    const theirs = current as FieldValues;
    const groups = groupsOf(Object.keys(current), together);
    const withIt = (field: string) => groups.find((group) => group[0] === field) ?? [field];
    const differs = (field: string) => withIt(field).some((one) => !equal(theirs[one], (values as FieldValues)[one]));
    setConflicts((known) =>
      [...new Set<string>([...known.map((one) => one.field).filter(differs), ...both])].map((field) => ({
        field,
        theirs: theirs[field],
        values: Object.fromEntries(withIt(field).map((one) => [one, theirs[one]])),
      })),
    );
    if (changed && both.length === 0)
      notify(`${author} changed this while you were editing. The form shows the change.`);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `key` is all of `current`
  }, [key, object, author, getValues, setValue, reset, notify]);

  const take = useCallback(
    ({ field, values }: Conflict) => {
      for (const [one, value] of Object.entries(values))
        setValue(one as Path<V>, value as never, { shouldDirty: false });
      setConflicts((list) => list.filter((one) => one.field !== field));
    },
    [setValue],
  );

  /** The patch that turns what the person has seen into `document`; untouched fields stay as they are. Null for no change. */
  const patch = (document: Omit<DocumentOf<K>, 'id'>): Patch<K> | null => {
    const before = seen.current;
    if (!before) return added(kind, document);
    const written = structuredClone(getValues());
    sent.current = { written, made: valuesOf({ ...before, ...document } as DocumentOf<K>) };
    const [old, now]: FieldValues[] = [valuesOf(before), written];
    const touched = (field: string) =>
      ((madeOf as Record<string, readonly string[]>)[field] ?? [field]).some(
        (input) => !equal(old?.[input], now?.[input]),
      );
    const fields = new Set([...Object.keys(before), ...Object.keys(document)]);
    const next = Object.fromEntries(
      [...fields].map((field) => [field, (touched(field) ? document : before)[field as keyof typeof document]]),
    );
    return patchOf(kind, before.id, before, next);
  };

  const keep = useCallback(() => setConflicts([]), []);
  return useMemo(
    () => ({
      ...{ conflicts, author, take, keep, patch: (document: Omit<DocumentOf<K>, 'id'>) => patch(document) },
      /** The form's values of the object as it is saved; undefined for a new one. */
      settled: () => (seen.current ? valuesOf(seen.current) : undefined),
    }),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `patch` reads what is current when it is called
    [conflicts, author, take, keep, object],
  );
}

/** Says what both changed, with a way to take the other's words. */
export function Conflicts({
  record: { conflicts, author, take, keep },
  names,
}: {
  record: {
    readonly conflicts: readonly Conflict[];
    /** Who changed the object last. */
    readonly author: string;
    take(conflict: Conflict): void;
    keep(): void;
  };
  /** What people call the fields. */
  names: Readonly<Record<string, string>>;
}) {
  if (conflicts.length === 0) return null;
  return (
    <div role="alert" className="border-l-2 border-brick bg-sheet p-3 text-sm" data-testid="conflicts">
      <p>{author} changed this while you were editing. Theirs is saved. Yours isn’t yet.</p>
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
      <button type="button" className="mt-1 text-tide hover:underline" onClick={keep}>
        Keep mine
      </button>
    </div>
  );
}

function wordsOf(value: unknown): string {
  if (typeof value === 'string') return value === '' ? 'nothing' : value;
  return typeof value === 'boolean' ? (value ? 'yes' : 'no') : JSON.stringify(value);
}
