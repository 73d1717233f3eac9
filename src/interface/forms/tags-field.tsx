'use client';

import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { X } from 'lucide-react';
import { useMemo, useState, type KeyboardEvent, type ReactNode } from 'react';
import { useController, type Control, type FieldValues, type Path } from 'react-hook-form';
import { tagOf, tagsOf, type TagCount } from '@/core/plan';
import { ArrowGroup } from '@/interface/kit/controls/arrow-group';
import { Field } from '@/interface/kit/controls/field';
import { placeKey } from '@/interface/kit/controls/place-key';
import { useListText } from './use-list-text';
import { tagsLike, tagsText } from '@/interface/kit/screens/tags';

/**
 * Tags as chips, with suggestions as you type: a comma, Enter, or leaving the field makes one; Backspace in the empty field removes the last
 * one. The form's value is their text, including the one being typed.
 */
export function TagsField<V extends FieldValues, O>({
  control,
  name,
  label = 'Tags',
  hint,
  known,
}: {
  control: Control<V, unknown, O>;
  name: Path<V>;
  label?: string;
  hint: ReactNode;
  /** Tags that are used already. */
  known: readonly TagCount[];
}) {
  const { field, fieldState } = useController({ control, name });
  const [typed, setTyped] = useState('');
  const input = useListText(typed, (early) => onType(early));
  const all = useMemo(() => tagsOf(field.value as string), [field.value]);
  // What is typed is the last of the text, until it is a chip.
  const chips = typed !== '' && all.at(-1) === tagOf(typed) ? all.slice(0, -1) : all;
  const error = fieldState.error?.message;
  const put = (tags: readonly string[], typing = '') => {
    setTyped(typing);
    field.onChange(tagsText([...tags, ...(tagOf(typing) === '' ? [] : [typing.trim()])]));
  };
  const onType = (text: string) => {
    const parts = text.split(/[,;\n]/);
    const rest = parts.pop() ?? '';
    put([...new Set([...chips, ...tagsOf(parts.join(','))])], rest);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Backspace' && typed === '' && chips.length > 0) put(chips.slice(0, -1));
  };
  return (
    <Field label={label} hint={hint} error={error}>
      <div
        className={`flex flex-wrap items-center gap-1 border bg-sheet px-1.5 py-1 focus-within:border-ink ${error ? 'border-brick' : 'border-rule'}`}
      >
        {chips.length > 0 && (
          <ArrowGroup
            label="Tags that are set"
            of={chips}
            className="contents"
            button={(tag, stop) => (
              <span key={tag} className="flex items-center bg-well pl-1.5 text-sm">
                {tag}
                <button
                  type="button"
                  {...stop}
                  aria-label={`Remove tag ${tag}`}
                  onClick={() => {
                    put(
                      chips.filter((one) => one !== tag),
                      typed,
                    );
                    // This button goes: forms save when a field is left, and something must be left.
                    input.current?.focus();
                  }}
                  className="px-1 py-0.5 text-faint hover:text-ink"
                >
                  <X size={12} aria-hidden />
                </button>
              </span>
            )}
          />
        )}
        <Combobox<string | null>
          value={null}
          onChange={(tag) => {
            if (tag !== null) put([...chips, tag]);
          }}
        >
          <ComboboxInput
            ref={(element) => {
              input.current = element;
              field.ref(element);
            }}
            autoComplete="off"
            aria-invalid={error !== undefined || undefined}
            className="min-w-24 flex-1 bg-transparent px-1 py-0.5 outline-none"
            displayValue={() => typed}
            onChange={(event) => onType(event.target.value)}
            onKeyDown={onKeyDown}
            onBlur={() => {
              put(all);
              field.onBlur();
            }}
          />
          <ComboboxOptions
            modal={false}
            anchor={{ to: 'bottom start', gap: 6 }}
            className="z-50 min-w-44 border border-rule bg-sheet py-1 shadow-lg empty:hidden"
          >
            {tagOf(typed) !== '' && <Choice tag={tagOf(typed)} />}
            {typed !== '' &&
              tagsLike(typed, known, chips).map(({ tag, count }, i) => (
                <Choice key={placeKey(i, tag)} tag={tag} count={count} />
              ))}
          </ComboboxOptions>
        </Combobox>
      </div>
    </Field>
  );
}

function Choice({ tag, count }: { tag: string; count?: number }) {
  return (
    <ComboboxOption
      value={tag}
      className="flex cursor-default items-baseline justify-between gap-4 px-3 py-1 text-sm data-focus:bg-well"
    >
      {tag}
      {count !== undefined && <span className="font-code text-[11px] text-faint">{count}</span>}
    </ComboboxOption>
  );
}
