'use client';

import { useId, useState, type ReactNode } from 'react';
import type { Result } from '@/core';
import { BOX } from './field';

/**
 * A field that saves when it is left, or by Enter; Escape puts back what was. What can't be saved stays as it was written, marked, with a
 * sentence below: nothing that is written is lost unseen.
 */
export function SavedInput<T>({
  label,
  value,
  read,
  save,
  note,
  placeholder,
  inputMode,
  width = '',
  className = '',
  children,
}: {
  label: string;
  /** What is saved, as it is written. */
  value: string;
  read: (text: string) => Result<T>;
  save: (value: T) => Promise<Result<unknown>> | void;
  /** What is worth knowing of what is written, though it can be saved. */
  note?: (text: string) => string | null;
  placeholder?: string;
  inputMode?: 'decimal' | 'text';
  width?: string;
  className?: string;
  /** What stands after the field. */
  children?: ReactNode;
}) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const found = typed === null ? null : read(typed);
  const error = refused ?? (found?.ok === false ? found.message : null);
  const told = error ?? note?.(typed ?? value) ?? null;
  const leave = () => {
    if (typed === null || !found?.ok) return;
    if (typed.trim() === value) return setTyped(null);
    void Promise.resolve(save(found.value)).then((result) => {
      if (result && !result.ok) return setRefused(result.message);
      setTyped(null);
    });
  };
  return (
    <span className={`flex flex-col ${width}`}>
      <span className="flex items-center gap-1.5">
        <input
          aria-label={label}
          aria-describedby={told ? id : undefined}
          placeholder={placeholder}
          inputMode={inputMode}
          aria-invalid={error !== null || undefined}
          value={typed ?? value}
          onChange={(event) => {
            setTyped(event.target.value);
            setRefused(null);
          }}
          onBlur={leave}
          onKeyDown={(event) => {
            if (event.key === 'Enter') leave();
            else if (event.key === 'Escape' && typed !== null) {
              event.stopPropagation();
              setTyped(null);
              setRefused(null);
            }
          }}
          className={`${BOX} ${className}`}
        />
        {children}
      </span>
      {told && (
        <span
          id={id}
          role={error ? 'alert' : undefined}
          className={`mt-0.5 text-xs ${error ? 'text-brick' : 'text-faint'}`}
        >
          {told}
        </span>
      )}
    </span>
  );
}
