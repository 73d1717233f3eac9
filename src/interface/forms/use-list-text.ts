'use client';

import { useLayoutEffect, useRef } from 'react';

/**
 * The field of a list that finds as one types, holding `text`, which it is given as its `defaultValue` too: else the page comes without it.
 * Headless UI writes into it only while nobody types there; what is put back or filled in is to be seen then too.
 */
export function useListText(text: string) {
  const field = useRef<HTMLInputElement | null>(null);
  const begun = useRef(false);
  useLayoutEffect(() => {
    // At first the browser's own text may stand there, written before the script ran.
    if (begun.current && field.current && field.current.value !== text) field.current.value = text;
    begun.current = true;
  }, [text]);
  return field;
}
