/** Less than this isn't seen between two displays that stand side by side. In milliseconds. */
const NEAR_MS = 4;
/** From here on the film's speed is changed; farther off than `FAR_MS` it jumps. */
const OFF_MS = 6;
const FAR_MS = 400;
/** So much faster or slower at most, and only while it begins: what is left after a second is too little to be seen or heard. */
const MOST = 0.25;
/** What is off is made up for in about so long. */
const WITHIN_MS = 500;

/** How fast a film is to play that is so far behind (or ahead, below 0) of where it should stand. `null`: it is to jump. */
export function speedFor(behindMs: number, before: number): number | null {
  const off = Math.abs(behindMs);
  if (off > FAR_MS) return null;
  if (off <= NEAR_MS) return 1;
  // Between the two it goes on as it was, so that it doesn't change its speed with every frame.
  if (off < OFF_MS && before === 1) return 1;
  return 1 + Math.max(-MOST, Math.min(MOST, behindMs / WITHIN_MS));
}

/**
 * Holds a film that plays to where it should stand, frame by frame, so that displays side by side show the same frame. `dueMs` is where it should stand
 * now, in milliseconds of its own. Returns how to stop.
 */
export function keepInStep(film: HTMLVideoElement, dueMs: () => number): () => void {
  let asked = 0;
  const look = () => {
    const due = dueMs();
    if (due < film.duration * 1000 - FAR_MS) {
      // The film's own clock, since its frames come only as often as the display draws.
      const speed = speedFor(due - film.currentTime * 1000, film.playbackRate);
      if (speed === null) film.currentTime = due / 1000;
      film.playbackRate = speed ?? 1;
    }
    asked = film.requestVideoFrameCallback(look);
  };
  asked = film.requestVideoFrameCallback(look);
  return () => {
    film.cancelVideoFrameCallback(asked);
    film.playbackRate = 1;
  };
}
