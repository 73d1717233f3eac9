/** What a session takes from outside itself: the clock, waiting, and chance. A test gives it a world of its own. */
export interface World {
  /** The own clock, milliseconds since 1970; it may be wrong, and may jump. */
  now(): number;
  /** Resolves after so many milliseconds, or when the signal aborts: whichever is first. */
  wait(ms: number, signal: AbortSignal): Promise<void>;
  /** 0 to 1. */
  random(): number;
}

export const realWorld: World = {
  now: () => Date.now(),
  random: () => Math.random(),
  wait: (ms, signal) =>
    new Promise((resolve) => {
      if (signal.aborted) return resolve();
      const timer = setTimeout(done, ms);
      function done() {
        clearTimeout(timer);
        signal.removeEventListener('abort', done);
        resolve();
      }
      signal.addEventListener('abort', done);
    }),
};

const FIRST_MS = 2_000;
const LONGEST_MS = 60_000;

/** How long to wait after so many failures in a row, 0 for the first: twice as long each time, and never in step with others. */
export const backoffMs = (failures: number, { random }: Pick<World, 'random'>): number =>
  Math.min(LONGEST_MS, FIRST_MS * 2 ** Math.min(failures, 10)) * (0.2 + 0.8 * random());

/** About every so many milliseconds: players that were started together drift apart. */
export const about = (ms: number, { random }: Pick<World, 'random'>): number => ms * (0.9 + 0.2 * random());

/** A random UUID (RFC 9562, version 4). Pages without HTTPS have no `crypto.randomUUID`. */
export const uuidFrom = (random: World['random']): string =>
  'xxxxxxxx-xxxx-4xxx-yxxx-xxxxxxxxxxxx'.replace(/[xy]/g, (place) => {
    const digit = Math.floor(random() * 16);
    return (place === 'x' ? digit : (digit % 4) + 8).toString(16);
  });
