'use client';

import { useEffect, useEffectEvent } from 'react';

/** Escape leaves what is under way by the pointer, wherever the focus is. */
export function useEscape(isUnderWay: boolean, leave: () => void): void {
  const onEscape = useEffectEvent(leave);
  useEffect(() => {
    if (!isUnderWay) return;
    const onKey = ({ key }: KeyboardEvent) => key === 'Escape' && onEscape();
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [isUnderWay]);
}
