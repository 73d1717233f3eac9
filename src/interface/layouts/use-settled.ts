'use client';

import { useEffect, useMemo, useRef } from 'react';

/** After the last change so long, in milliseconds, it is saved. */
const SETTLED_MS = 700;

/** Keeps what is changed step by step, as by arrow keys, and saves it once it rests: many steps are one act, and one undo. */
export function useSettled<T>(save: (value: T) => void) {
  const newest = useRef(save);
  newest.current = save;
  const settled = useMemo(() => {
    let waiting: { readonly value: T } | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const flush = () => {
      clearTimeout(timer);
      const now = waiting;
      waiting = null;
      if (now) newest.current(now.value);
    };
    return {
      put(value: T) {
        clearTimeout(timer);
        waiting = { value };
        timer = setTimeout(flush, SETTLED_MS);
      },
      flush,
      drop() {
        clearTimeout(timer);
        waiting = null;
      },
    };
  }, []);
  useEffect(() => settled.flush, [settled]);
  return settled;
}
