'use client';

import { useId, useRef, useState, type ChangeEvent, type KeyboardEvent, type ReactNode } from 'react';
import type { Kind } from '@/core/plan';
import type { Result } from '@/core/refusal';
import { useAuthor } from '@/interface/data/provider';
import { BOX } from '@/interface/kit/controls/field';
import { useEarlyText } from '@/interface/kit/page/use-early-text';
import { useDraft } from './use-draft';

/** What a field of another make needs to be saved likewise. */
interface BoxField {
  readonly 'aria-label': string;
  readonly 'aria-describedby': string | undefined;
  readonly placeholder: string | undefined;
  readonly className: string;
  readonly value: string;
  readonly invalid: boolean;
  onBlur(): void;
  onKeyDown(event: KeyboardEvent): void;
  onWrite(text: string): void;
  onEnter(): void;
  focusOn(element: HTMLInputElement | null): void;
}

/** Whether a field has saved itself on this page: until then each says that it will. */
let hasSaved = false;

/**
 * A field that saves when it is left, or by Enter; Escape puts back what was. What can't be saved stays as it was written, marked, with a
 * sentence below, so that nothing typed is lost unnoticed. If another person changes it while you type, you see it and choose.
 */
export function SavedInput<T>({
  label,
  of,
  value,
  read,
  save,
  note,
  placeholder,
  inputMode,
  rows,
  box,
  width = '',
  className = '',
  children,
}: {
  label: string;
  /** What the field is of. */
  of: { readonly kind: Kind; readonly id: string; readonly field: string };
  /** What is saved, as it is written. */
  value: string;
  read: (text: string) => Result<T>;
  save: (value: T) => Promise<Result<unknown>> | void;
  /** What is worth knowing of what is written, though it can be saved. */
  note?: (text: string) => string | null;
  placeholder?: string;
  inputMode?: 'decimal' | 'text';
  /** The field itself, if it isn't a plain one. */
  box?: (field: BoxField) => ReactNode;
  /** How many lines are visible, if it has more than one. */
  rows?: number;
  width?: string;
  className?: string;
  /** What stands after the field. */
  children?: ReactNode;
}) {
  const id = useId();
  const author = useAuthor(of.kind, of.id);
  const input = useRef<HTMLInputElement | HTMLTextAreaElement>(null);
  const [typed, setTyped] = useState<string | null>(null);
  /** What was saved when one began to write; null while what one wrote is on its way: what comes then is one's own. */
  const [before, setBefore] = useState<string | null>(value);
  const [refused, setRefused] = useState<string | null>(null);
  const write = (text: string) => {
    if (typed === null) setBefore(value);
    setTyped(text);
    setRefused(null);
  };
  const draft = useDraft(
    `${of.kind} ${of.id} ${of.field}`,
    typed === null || typed === value ? null : { typed },
    ({ typed: old }) => write(String(old)),
    { typed: typed ?? value },
  );
  const found = typed === null ? null : read(typed);
  const theirs = typed !== null && before !== null && value !== before && typed.trim() !== value;
  const error = refused ?? (found?.ok === false ? found.message : null);
  const isNews = !hasSaved && typed !== null && typed.trim() !== value;
  const told = error ?? note?.(typed ?? value) ?? (isNews ? 'Saved when you leave this field, or press Enter.' : null);
  const leave = () => {
    if (typed === null || !found?.ok || theirs) return;
    if (typed.trim() === value) return setTyped(null);
    setBefore(null);
    void Promise.resolve(save(found.value)).then((result) => {
      if (result && !result.ok) return setRefused(result.message);
      hasSaved = true;
      draft.saved({ typed });
      // Text typed in the meantime stays.
      setTyped((now) => (now === typed ? null : now));
    });
  };
  const giveUp = () => {
    setTyped(null);
    setRefused(null);
    input.current?.focus();
  };
  const field = {
    'aria-label': label,
    'aria-describedby': told ? id : undefined,
    placeholder,
    onBlur: leave,
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === 'Enter' && !rows) leave();
      else if (event.key === 'Escape' && typed !== null) {
        event.stopPropagation();
        giveUp();
      }
    },
    className: `${BOX} ${className}`,
  };
  // A field of another make looks after itself.
  useEarlyText(input, box ? undefined : value, write);
  const focusable = (element: HTMLInputElement | HTMLTextAreaElement | null) => void (input.current = element);
  const written = {
    value: typed ?? value,
    'aria-invalid': error !== null || undefined,
    onChange: (event: ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => write(event.target.value),
  };
  return (
    <span className={`flex flex-col ${width}`}>
      <span className="flex items-center gap-1.5">
        {box ? (
          box({
            ...field,
            value: typed ?? value,
            invalid: error !== null,
            onWrite: write,
            onEnter: leave,
            focusOn: focusable,
          })
        ) : rows ? (
          <textarea {...field} {...written} ref={focusable} rows={rows} />
        ) : (
          <input {...field} {...written} ref={focusable} inputMode={inputMode} />
        )}
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
      {theirs && (
        <Choose
          said={`${author} changed it to “${value}” while you were editing.`}
          choices={[
            ['Take theirs', giveUp],
            [
              'Keep mine',
              () => {
                setBefore(value);
                input.current?.focus();
              },
            ],
          ]}
        />
      )}
      {draft.offer && typed === null && (
        <Choose
          said={`You wrote “${String(draft.offer.values.typed)}” here, but it isn’t saved.`}
          choices={[
            [
              'Continue editing',
              () => {
                draft.take();
                input.current?.focus();
              },
            ],
            [
              'Discard',
              () => {
                draft.drop();
                input.current?.focus();
              },
            ],
          ]}
        />
      )}
    </span>
  );
}

/** What is to be chosen, below the field that it is about. */
function Choose({
  said,
  choices,
}: {
  said: string;
  choices: readonly (readonly [name: string, choose: () => void])[];
}) {
  return (
    <span role="status" className="mt-0.5 text-xs">
      {said}{' '}
      {choices.map(([name, choose]) => (
        <button
          key={name}
          type="button"
          // The field is not left by it: leaving saves.
          onMouseDown={(event) => event.preventDefault()}
          onClick={choose}
          className="mr-2 text-tide underline underline-offset-2"
        >
          {name}
        </button>
      ))}
    </span>
  );
}
