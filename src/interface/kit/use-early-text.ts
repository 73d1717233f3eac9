'use client';

import { useLayoutEffect, type RefObject } from 'react';

/**
 * What was written into a field before the page's script ran stands there still: it is taken as if it were written now. `text` is what
 * the field holds for us; undefined for a field that somebody else looks after. An empty field is left alone: it says nothing of what was
 * meant.
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
