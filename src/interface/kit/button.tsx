'use client';

import type { ButtonHTMLAttributes, Ref } from 'react';
import { useReady } from './use-ready';

const VARIANTS = {
  /** The one thing that a place is for. */
  main: 'bg-dusk text-on-dusk px-4 py-2 font-semibold cut-small hover:opacity-90',
  plain: 'border border-rule bg-sheet px-3 py-1.5 hover:border-ink',
  quiet: 'px-2 py-1 text-tide underline-offset-2 hover:underline',
  grave: 'border border-brick px-3 py-1.5 text-brick hover:bg-brick hover:text-paper',
};

export function Button({
  variant = 'plain',
  className = '',
  type = 'button',
  disabled = false,
  early = false,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & {
  variant?: keyof typeof VARIANTS;
  ref?: Ref<HTMLButtonElement>;
  /** Whether it does its work before the page's script runs: the browser itself sends its form. */
  early?: boolean;
}) {
  const ready = useReady();
  return (
    <button
      type={type}
      disabled={disabled || (!ready && !early)}
      className={`${VARIANTS[variant]} ${disabled ? 'cursor-not-allowed opacity-50' : ''} ${className}`}
      {...rest}
    />
  );
}
