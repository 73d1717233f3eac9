'use client';

import { useSyncExternalStore, type ButtonHTMLAttributes, type Ref } from 'react';

const VARIANTS = {
  /** The one thing that a place is for. */
  main: 'bg-dusk text-on-dusk px-4 py-2 font-semibold cut-small hover:opacity-90',
  plain: 'border border-rule bg-sheet px-3 py-1.5 hover:border-ink',
  quiet: 'px-2 py-1 text-tide underline-offset-2 hover:underline',
  grave: 'border border-brick px-3 py-1.5 text-brick hover:bg-brick hover:text-paper',
};

const never = () => () => {};

/** Whether the page's script runs yet: before that, a press would be lost. */
const useReady = () =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );

export function Button({
  variant = 'plain',
  className = '',
  type = 'button',
  disabled = false,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { variant?: keyof typeof VARIANTS; ref?: Ref<HTMLButtonElement> }) {
  const ready = useReady();
  return (
    <button
      type={type}
      disabled={disabled || !ready}
      className={`${VARIANTS[variant]} ${disabled ? 'cursor-not-allowed opacity-50' : ''} ${className}`}
      {...rest}
    />
  );
}
