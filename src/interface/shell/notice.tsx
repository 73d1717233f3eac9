'use client';

import { useEffect } from 'react';
import { useNetwork } from '@/interface/data/provider';

/** How long a sentence stands: some seconds, and a moment for each letter; one that says what is wrong, longer. */
const LEAST_MS = 4000;
const LETTER_MS = 70;
const BAD_TIMES = 2;

/**
 * What happened, or what is wrong, in a sentence. It is in the bar's free middle (on phones over the ruler), where nothing is
 * pressed; beside or below an open sheet, whose title would be under it. It goes when there was time to read it, or when it is pressed.
 */
export function NoticeLine() {
  const { notice, dismiss } = useNetwork('notice', 'dismiss');
  useEffect(() => {
    if (!notice) return;
    const time = (LEAST_MS + notice.text.length * LETTER_MS) * (notice.bad ? BAD_TIMES : 1);
    const timer = setTimeout(dismiss, time);
    return () => clearTimeout(timer);
  }, [notice, dismiss]);
  return (
    <div
      aria-live="polite"
      className="z-50 flex min-w-0 flex-1 items-center justify-center max-sm:pointer-events-none max-sm:fixed max-sm:inset-x-2 max-sm:bottom-12 [html:has([data-sheet])_&]:fixed [html:has([data-sheet])_&]:inset-x-2 [html:has([data-sheet])_&]:bottom-20 lg:[html:has([data-sheet])_&]:right-[38rem]"
    >
      {notice && (
        <button
          type="button"
          tabIndex={-1}
          title="Close this message"
          onClick={dismiss}
          className={`cut-small max-h-full overflow-hidden px-3 py-1 text-left text-sm leading-tight ${notice.bad ? 'bg-brick text-paper' : 'bg-ink text-paper'}`}
        >
          <span role={notice.bad ? 'alert' : 'status'}>{notice.text}</span>
        </button>
      )}
    </div>
  );
}
