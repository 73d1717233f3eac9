import type { ScreenState } from '@/services/screens';
import { FLAME, FLAME_EDGE, LANTERN_STROKES } from './lantern-image';

export const STATE_WORDS: Record<ScreenState, string> = {
  lit: 'lit',
  behind: 'behind',
  dark: 'dark',
  resting: 'resting',
  unpaired: 'no player',
};

/** What each state means, in the words of the guide. */
export const STATE_HINTS: Record<ScreenState, string> = {
  lit: 'online and up to date',
  behind: 'online, not up to date yet',
  dark: 'offline',
  resting: 'in its lights-out hours',
  unpaired: 'without a player',
};

/** A screen's state as a lantern. */
export function Lantern({ state, size = 18 }: { state: ScreenState; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" role="img" aria-label={STATE_WORDS[state]} className="shrink-0">
      {state === 'lit' && <circle cx="10" cy="11.5" r="8.2" fill={FLAME} opacity="0.32" />}
      {LANTERN_STROKES[state].map(({ d, fill, dashed }) =>
        fill === 'flame' ? (
          <path key={d} d={d} fill={FLAME} stroke={FLAME_EDGE} strokeWidth="0.6" />
        ) : fill === 'ink' ? (
          <path key={d} d={d} fill="currentColor" />
        ) : (
          <path
            key={d}
            d={d}
            fill="none"
            stroke="currentColor"
            strokeWidth="1.4"
            strokeLinejoin="round"
            strokeLinecap="round"
            strokeDasharray={dashed ? '2.2 1.8' : undefined}
          />
        ),
      )}
    </svg>
  );
}
