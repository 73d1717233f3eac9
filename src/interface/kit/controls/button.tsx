'use client';

import type { ButtonHTMLAttributes, Ref } from 'react';
import { REFUSED, type Permission } from '@/core/roles';
import { useMay } from '@/interface/data/may';
import { useReady } from '../page/use-ready';

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
  needs,
  title,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & {
  variant?: keyof typeof VARIANTS;
  ref?: Ref<HTMLButtonElement>;
  /** Whether it does its work before the page's script runs: the browser itself sends its form. */
  early?: boolean;
  /** The right that a person needs. Without it they see the button with the reason, and can't press it. */
  needs?: Permission;
}) {
  const ready = useReady();
  const may = useMay(needs);
  const off = disabled || !may;
  return (
    <button
      type={type}
      disabled={off || (!ready && !early)}
      title={needs && !may ? REFUSED[needs] : title}
      className={`${VARIANTS[variant]} ${off ? 'cursor-not-allowed opacity-50' : ''} ${className}`}
      {...rest}
    />
  );
}
