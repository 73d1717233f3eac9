'use client';

import { useCallback, useRef, useState, type RefObject } from 'react';

/**
 * What is held by the pointer or by keys: as it is drawn, and as it is by now. A drop may come before its last move was drawn: it puts down
 * what is held by then.
 */
export function useHeld<T>(): {
  readonly held: T | null;
  readonly newest: RefObject<T | null>;
  hold(next: T | null): void;
} {
  const [held, setHeld] = useState<T | null>(null);
  const newest = useRef<T | null>(null);
  const hold = useCallback((next: T | null) => {
    newest.current = next;
    setHeld(next);
  }, []);
  return { held, newest, hold };
}
