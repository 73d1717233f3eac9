'use client';

import { useEffect, useRef } from 'react';
import { Button } from './button';

/** The end of a list that goes on: more is asked for when it comes into sight, or is pressed. */
export function More({ left, onMore }: { left: number; onMore: () => void }) {
  const end = useRef<HTMLDivElement>(null);
  const ask = useRef(onMore);
  useEffect(() => {
    ask.current = onMore;
  });
  useEffect(() => {
    if (!end.current) return;
    const observer = new IntersectionObserver(([entry]) => entry?.isIntersecting && ask.current(), {
      rootMargin: '600px',
    });
    observer.observe(end.current);
    return () => observer.disconnect();
    // Observed again when more has come: it may still be visible.
  }, [left]);
  return (
    <div ref={end} className="py-6 text-center">
      <Button onClick={onMore}>Show more ({left} left)</Button>
    </div>
  );
}
