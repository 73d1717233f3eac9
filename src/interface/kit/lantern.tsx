import type { ScreenState } from '@/services/screens';

export const STATE_WORDS: Record<ScreenState, string> = {
  lit: 'lit',
  behind: 'behind',
  dark: 'dark',
  resting: 'resting',
  unpaired: 'no player',
};

/** A screen's state as a lantern of its own shape: flame with halo, half flame, empty, crescent, hook without lantern. */
export function Lantern({ state, size = 18 }: { state: ScreenState; size?: number }) {
  const body = state !== 'unpaired' && state !== 'resting';
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" role="img" aria-label={STATE_WORDS[state]} className="shrink-0">
      {state === 'lit' && <circle cx="10" cy="11.5" r="8.2" fill="#e3a008" opacity="0.32" />}
      {body && (
        <path
          d="M7 6h6l1.6 11H5.4zM10 2.2V6"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.4"
          strokeLinejoin="round"
        />
      )}
      {state === 'lit' && (
        <path
          d="M10 7.6c2.2 2.4 2.2 3.4 2.2 4.6a2.2 2.2 0 0 1-4.4 0c0-1.2 0-2.2 2.2-4.6z"
          fill="#e3a008"
          stroke="#7a5300"
          strokeWidth="0.6"
        />
      )}
      {state === 'behind' && <path d="M10 7.6v6.8a2.2 2.2 0 0 1-2.2-2.2c0-1.2 0-2.2 2.2-4.6z" fill="currentColor" />}
      {state === 'resting' && (
        <path
          d="M13.5 3.5a7.2 7.2 0 1 0 3.2 10.2A6 6 0 0 1 13.5 3.5z"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.4"
          strokeLinejoin="round"
        />
      )}
      {state === 'unpaired' && (
        <path
          d="M10 2.5v4.2a2 2 0 1 1-2 2M4 17.5h12"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.4"
          strokeLinecap="round"
          strokeDasharray="2.2 1.8"
        />
      )}
    </svg>
  );
}
