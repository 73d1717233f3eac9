import type { ButtonHTMLAttributes } from 'react';

const LOOKS = {
  /** The one thing that a place is for. */
  main: 'bg-dusk text-on-dusk px-4 py-2 font-semibold cut-small hover:opacity-90',
  plain: 'border border-rule bg-sheet px-3 py-1.5 hover:border-ink',
  quiet: 'px-2 py-1 text-tide underline-offset-2 hover:underline',
  grave: 'border border-brick px-3 py-1.5 text-brick hover:bg-brick hover:text-paper',
};

export function Button({
  look = 'plain',
  className = '',
  type = 'button',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: keyof typeof LOOKS }) {
  return (
    <button
      type={type}
      className={`${LOOKS[look]} disabled:cursor-not-allowed disabled:opacity-50 ${className}`}
      {...rest}
    />
  );
}
