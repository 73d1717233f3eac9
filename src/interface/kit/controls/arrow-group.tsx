'use client';

import { useState, type FocusEvent, type KeyboardEvent, type ReactNode } from 'react';
import { arrowTo } from './arrows';

/** Buttons that are one stop of the Tab key; arrows, Home and End walk among them. `button` draws one, with what it needs for that. */
export function ArrowGroup<T>({
  label,
  of,
  className,
  button,
}: {
  label: string;
  of: readonly T[];
  className?: string;
  button: (one: T, stop: { tabIndex: number; onFocus: () => void }) => ReactNode;
}) {
  const [chosen, choose] = useState(0);
  const at = Math.min(chosen, of.length - 1);
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const to = arrowTo(event.key, at, of.length);
    if (to === null || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.currentTarget.querySelectorAll<HTMLElement>('button')[to]?.focus();
  };
  // Where the focus leaves, it comes in again.
  const stop = (i: number) => ({ tabIndex: i === at ? 0 : -1, onFocus: (_event?: FocusEvent) => choose(i) });
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- the arrows are for the buttons inside
    <div role="group" aria-label={label} className={className} onKeyDown={onKeyDown}>
      {of.map((one, i) => button(one, stop(i)))}
    </div>
  );
}
