'use client';

import { startTransition, useEffect, useState } from 'react';

const LANES_A_FRAME = 12;

/**
 * How many of `total` lanes are drawn, from the top: a few more in each frame, so that hundreds of bars never hold up what one
 * does. It begins again when `of` is another.
 */
export function useGrowing(total: number, of: string): number {
  const [grown, grow] = useState({ of, to: LANES_A_FRAME });
  const to = grown.of === of ? grown.to : LANES_A_FRAME;
  useEffect(() => {
    if (to >= total) return;
    const frame = requestAnimationFrame(() => startTransition(() => grow({ of, to: to + LANES_A_FRAME })));
    return () => cancelAnimationFrame(frame);
  }, [to, total, of]);
  return to;
}
