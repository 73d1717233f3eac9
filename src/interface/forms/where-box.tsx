'use client';

import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { useRef, useState, type ComponentProps, type KeyboardEvent, type Ref } from 'react';
import type { Plan } from '@/core/plan';
import { readSelectorNames, selectorWithNames } from '@/core/selector';
import { BOX } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { placeKey } from '@/interface/kit/controls/place-key';
import { useListText } from './use-list-text';
import { fragmentAt, placesLike, withTerm, type PlaceChoice } from './places';

/** What is wrong with the names in a field's value. */
export function namesProblem(value: string, plan: Plan): string | undefined {
  const read = readSelectorNames(value, plan);
  return read.ok ? undefined : read.message;
}

/**
 * A field for a selector: tags, and sites and screens by their names, found as you type and chosen by arrows and Enter. Its value is
 * the selector with ids; while a name in it is not complete, the text as it stands.
 */
export function WhereBox({
  plan,
  value,
  invalid = false,
  onChange,
  className = '',
  inputRef,
  onEnter,
  ...rest
}: {
  plan: Plan;
  value: string;
  invalid?: boolean;
  onChange: (selector: string) => void;
  className?: string;
  inputRef?: Ref<HTMLInputElement>;
  /** What Enter does besides, where it does not send a form. */
  onEnter?: () => void;
} & Pick<
  ComponentProps<'input'>,
  'id' | 'name' | 'placeholder' | 'title' | 'onBlur' | 'onKeyDown' | 'aria-label' | 'aria-describedby'
>) {
  const [typed, setTyped] = useState<string | null>(null);
  const [caret, setCaret] = useState(0);
  const [listed, list] = useState(false);
  /** Whether one has walked in the list: until then Enter is the form's. */
  const walked = useRef(false);
  /** The selector of a text as it is written; the text itself where a name in it is not known, so that nothing is lost. */
  const inPlain = (written: string) => {
    const read = readSelectorNames(written, plan);
    return read.ok ? read.value : written;
  };
  const text = typed !== null && inPlain(typed) === value ? typed : selectorWithNames(value, plan);
  const own = useListText(text, (early) => write(early, early.length));
  const fragment = fragmentAt(text, Math.min(caret, text.length));
  const meant = listed ? placesLike(plan, fragment.text) : [];
  // A tag that is written out, or all, leaves nothing to choose: no list then stands over what comes next.
  const written = fragment.text.toLowerCase() === 'all' || (meant[0]?.term === fragment.text && meant[0].screens > 0);
  const choices = written ? [] : meant;
  const write = (next: string, at: number) => {
    setTyped(next);
    setCaret(at);
    onChange(inPlain(next));
  };
  return (
    <Combobox<PlaceChoice | null>
      value={null}
      by={(a, b) => a?.term === b?.term}
      onChange={(choice) => {
        list(false);
        if (!choice) return;
        const next = withTerm(text, fragment, choice.term);
        write(next.text, next.caret);
        // After the list has written its own.
        requestAnimationFrame(() => own.current?.setSelectionRange(next.caret, next.caret));
      }}
      onClose={() => list(false)}
    >
      <div
        className="w-full"
        onKeyDownCapture={(event: KeyboardEvent) => {
          if (event.key === 'ArrowDown' || event.key === 'ArrowUp') walked.current = true;
          // The list takes Enter for itself; who has not walked in it means the form, as in any other field.
          else if (event.key === 'Enter' && listed && !walked.current)
            queueMicrotask(() => (onEnter ? onEnter() : own.current?.form?.requestSubmit()));
        }}
      >
        <ComboboxInput
          {...rest}
          ref={(element: HTMLInputElement | null) => {
            own.current = element;
            if (typeof inputRef === 'function') inputRef(element);
            else if (inputRef) inputRef.current = element;
          }}
          autoComplete="off"
          spellCheck={false}
          aria-invalid={invalid || undefined}
          className={`${BOX} ${className}`}
          defaultValue={text}
          displayValue={() => text}
          onChange={(event) => {
            walked.current = false;
            list(true);
            write(event.target.value, event.target.selectionStart ?? event.target.value.length);
          }}
          onSelect={(event) => setCaret(event.currentTarget.selectionStart ?? 0)}
        />
      </div>
      <ComboboxOptions
        modal={false}
        anchor={{ to: 'bottom start', gap: 4 }}
        className="z-50 [--anchor-max-height:20rem] w-max min-w-(--input-width) max-w-[90vw] overflow-y-auto border border-rule bg-sheet py-1 shadow-lg empty:hidden"
      >
        {choices.map((choice, i) => (
          <ComboboxOption
            key={placeKey(i, choice.term)}
            value={choice}
            className="flex cursor-default items-baseline gap-4 px-3 py-1 text-sm data-focus:bg-well"
          >
            <span className="min-w-0 truncate">{choice.name}</span>
            <span className="ml-auto shrink-0 text-xs text-faint">
              {choice.what}, {choice.screens === 0 ? 'no screen' : counted(choice.screens, 'screen')}
            </span>
          </ComboboxOption>
        ))}
      </ComboboxOptions>
    </Combobox>
  );
}
