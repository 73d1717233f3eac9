'use client';

import type { ShownBoard, ShownButton } from '@/services/cues';
import { spell } from '@/interface/kit/words/format';
import { lastsWords, screensWords } from './words';

/** How each colour of our palette looks, by day as by night: the button's words are on it. */
const COLOUR = {
  dusk: { background: '#34406b', color: '#faf7f0' },
  tide: { background: '#166a78', color: '#faf7f0' },
  brick: { background: '#8f2d1c', color: '#faf7f0' },
  ink: { background: '#1b2330', color: '#faf7f0' },
  paper: { background: '#faf7f0', color: '#1b2330' },
} as const;

/**
 * A board's buttons, large enough for a thumb: what each does in numbers; while it is on it is lit, with the time left and a way to end it.
 * `now` is the server's clock.
 */
export function BoardPad({
  board,
  now,
  busy,
  off = false,
  pictureOf,
  onPress,
}: {
  board: ShownBoard;
  now: number;
  /** The button whose press is on its way. */
  busy: string | null;
  /** Whether this person may not press. */
  off?: boolean;
  pictureOf?: ((media: string) => string | undefined) | undefined;
  onPress: (button: ShownButton, end: boolean) => void;
}) {
  return (
    <ul className="grid items-start grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] gap-3">
      {board.buttons.map((button) => {
        const { id, label, colour, picture, screens, lastsMs, onUntil } = button;
        const left = onUntil === null ? 0 : Date.parse(onUntil) - now;
        const src = picture === null ? undefined : pictureOf?.(picture);
        return (
          <li key={id} className={`flex flex-col border-4 ${left > 0 ? 'border-lamp' : 'border-transparent'}`}>
            <button
              type="button"
              disabled={off || busy === id || lastsMs === null}
              onClick={() => onPress(button, false)}
              style={COLOUR[colour ?? 'dusk']}
              className="flex min-h-28 flex-1 touch-manipulation flex-col justify-end gap-1 border border-rule bg-cover bg-center p-3 text-left select-none disabled:cursor-not-allowed disabled:opacity-55 cut-small"
            >
              {src !== undefined && <img src={src} alt="" className="mb-auto h-14 w-full object-cover" />}
              <span className="text-lg leading-tight font-semibold break-words">{label}</span>
              <span className="text-sm">
                {lastsMs === null ? 'Nothing would show now' : `${screensWords(screens)}, ${lastsWords(lastsMs)}`}
              </span>
            </button>
            {left > 0 && (
              <p className="flex items-center justify-between gap-2 bg-sheet px-2 py-1">
                <span role="timer" aria-label={`${label}: time left`}>
                  {spell(Math.ceil(left / 1000) * 1000)} left
                </span>
                <button
                  type="button"
                  disabled={off || busy === id}
                  onClick={() => onPress(button, true)}
                  className="min-h-9 border border-ink px-3 font-semibold disabled:opacity-55"
                >
                  End<span className="sr-only"> {label}</span>
                </button>
              </p>
            )}
          </li>
        );
      })}
    </ul>
  );
}
