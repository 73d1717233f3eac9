import type { ReactNode } from 'react';

/** How far something is: `share` 0 to 1, in words, and what can be done about it. */
export function Bar({ share, words, children }: { share: number; words: string; children?: ReactNode }) {
  return (
    <div className="flex items-center gap-4">
      <div
        role="progressbar"
        aria-label={words}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(share * 100)}
        className="h-1.5 flex-1 bg-well"
      >
        <div className="h-full bg-tide transition-[width]" style={{ width: `${share * 100}%` }} />
      </div>
      <span className="text-sm text-faint">{words}</span>
      {children}
    </div>
  );
}
