'use client';

import { useEffect, useLayoutEffect, useRef } from 'react';

/**
 * The field of a list that finds as you type, holding `text`, which must be its `defaultValue` too: otherwise the page comes without it.
 * Headless UI doesn't write into it during typing, so text that is restored or filled in is written here. Text typed before
 * the page's script ran counts as typed now: the list opens if the focus is still in the field, otherwise `take` receives it.
 */
export function useListText(text: string, take: (written: string) => void) {
  const field = useRef<HTMLInputElement | null>(null);
  const begun = useRef(false);
  useLayoutEffect(() => {
    // At first the field may hold the browser's own text, typed before the script ran.
    if (begun.current && field.current && field.current.value !== text) field.current.value = text;
    begun.current = true;
  }, [text]);
  useEffect(() => {
    const { current } = field;
    const written = current?.value;
    if (!current || !written || written === text) return;
    if (document.activeElement === current) typeAgain(current, text, written);
    else take(written);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, as the script begins to run
  }, []);
  return field;
}

/** React thinks it knows a field's first text, and doesn't notice the same text again: so the field is set back, then written. */
function typeAgain(field: HTMLInputElement, before: string, written: string): void {
  field.value = before;
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set?.call(field, written);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}
