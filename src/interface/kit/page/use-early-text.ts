'use client';

import { useLayoutEffect, type RefObject } from 'react';

/**
 * Text typed into a field before the page's script ran is still in it, and counts as typed now. `text` is what
 * the field holds for us; undefined for a field that other code controls. An empty field is left alone, since it says nothing about what
 * the person wanted.
 */
export function useEarlyText(
  field: RefObject<HTMLInputElement | HTMLTextAreaElement | null>,
  text: string | undefined,
  take: (written: string) => void,
): void {
  useLayoutEffect(() => {
    const written = field.current?.value;
    if (text !== undefined && written && written !== text) take(written);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, as the script begins to run
  }, []);
}
