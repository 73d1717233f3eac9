'use client';

import {
  Description,
  Field as Group,
  Input as HeadlessInput,
  Label,
  Select as HeadlessSelect,
  Textarea as HeadlessTextarea,
} from '@headlessui/react';
import {
  useRef,
  type ChangeEvent,
  type InputHTMLAttributes,
  type ReactNode,
  type Ref,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from 'react';

import { useEarlyText } from '../page/use-early-text';

/** How a control looks. */
export const BOX =
  'w-full border border-rule bg-sheet px-2.5 py-1.5 text-ink aria-invalid:border-brick disabled:bg-well disabled:text-faint';

/** A labelled control, its hint, and what is wrong with it. */
export function Field({
  label,
  hint,
  error,
  children,
  className = '',
}: {
  label: string;
  hint?: ReactNode;
  error?: string | undefined;
  children: ReactNode;
  className?: string;
}) {
  return (
    <Group className={`flex flex-col gap-1 ${className}`}>
      <Label className="text-sm font-semibold">{label}</Label>
      {children}
      {error ? (
        <Description role="alert" className="text-sm text-brick">
          {error}
        </Description>
      ) : hint ? (
        <Description className="text-sm text-faint">{hint}</Description>
      ) : null}
    </Group>
  );
}

export function Input({
  className = '',
  invalid,
  ref,
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { invalid?: boolean; ref?: Ref<HTMLInputElement> }) {
  const own = useRef<HTMLInputElement | null>(null);
  const { value, onChange } = rest;
  useEarlyText(own, value?.toString(), () => {
    if (own.current) onChange?.({ target: own.current, currentTarget: own.current } as ChangeEvent<HTMLInputElement>);
  });
  return (
    <HeadlessInput
      ref={(element: HTMLInputElement | null) => {
        own.current = element;
        if (typeof ref === 'function') ref(element);
        else if (ref) ref.current = element;
      }}
      className={`${BOX} ${className}`}
      {...rest}
      invalid={invalid ?? false}
    />
  );
}

export function Select({
  className = '',
  ref,
  ...rest
}: SelectHTMLAttributes<HTMLSelectElement> & { ref?: Ref<HTMLSelectElement> }) {
  return <HeadlessSelect ref={ref} className={`${BOX} ${className}`} {...rest} />;
}

/** The field that finds things in a place; the key / leads to it. */
export function SearchField({
  label,
  placeholder,
  value,
  onChange,
  className = 'w-full sm:w-72',
}: {
  label: string;
  placeholder: string;
  value: string;
  onChange: (text: string) => void;
  className?: string;
}) {
  return (
    <div className={className}>
      <Input
        data-search
        aria-label={label}
        placeholder={placeholder}
        value={value}
        onChange={({ target }) => onChange(target.value)}
        // Within a form, Enter would save.
        onKeyDown={(event) => event.key === 'Enter' && event.preventDefault()}
      />
    </div>
  );
}

/** A field of several lines. */
export function TextArea({
  className = '',
  invalid = false,
  ...rest
}: TextareaHTMLAttributes<HTMLTextAreaElement> & { invalid?: boolean }) {
  return <HeadlessTextarea className={`${BOX} ${className}`} {...rest} invalid={invalid} />;
}

/** A box to tick, with its words beside it. */
export function Tick({
  label,
  className = '',
  ...rest
}: { label: ReactNode } & InputHTMLAttributes<HTMLInputElement> & { ref?: Ref<HTMLInputElement> }) {
  return (
    <label className={`flex items-center gap-2 ${className}`}>
      <input type="checkbox" className="size-4 shrink-0 accent-dusk" {...rest} /> {label}
    </label>
  );
}
