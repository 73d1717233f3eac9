'use client';

import { useEffect, useState, type RefObject } from 'react';

/** Told in such steps, in pixels: what follows from it is drawn again no more often. */
const STEP = 13;

/** Which part of the scrolled content is visible, below a head of `head` pixels that stays; nothing until it is measured. */
export function useInSight(scroll: RefObject<HTMLElement | null>, head: number): { from: number; to: number } {
  const [sight, setSight] = useState({ from: 0, to: 0 });
  useEffect(() => {
    const element = scroll.current;
    if (!element) return;
    const look = () => {
      const from = Math.round(element.scrollTop / STEP) * STEP;
      const to = from + Math.floor((element.clientHeight - head) / STEP) * STEP;
      setSight((known) => (known.from === from && known.to === to ? known : { from, to }));
    };
    const observer = new ResizeObserver(look);
    observer.observe(element);
    element.addEventListener('scroll', look, { passive: true });
    return () => {
      observer.disconnect();
      element.removeEventListener('scroll', look);
    };
  }, [scroll, head]);
  return sight;
}
