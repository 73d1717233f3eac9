/** How fast something goes, by what it did in the last seconds. */

const WINDOW_MS = 8000;

/** How much was done at a moment, in milliseconds of any clock that does not jump. */
export interface Mark {
  readonly at: number;
  readonly done: number;
}

/** The marks that count once this one is made: the last eight seconds' (or another span's), and no others after a restart. */
export function withMark(marks: readonly Mark[], mark: Mark, windowMs = WINDOW_MS): readonly Mark[] {
  const last = marks.at(-1);
  if (last && (mark.done < last.done || mark.at < last.at)) return [mark];
  const young = marks.filter(({ at }) => mark.at - at <= windowMs);
  return [...young, mark];
}

/** Units a second over the marks; null while there is less than a second to go by. */
export function speedOf(marks: readonly Mark[]): number | null {
  const [first, last] = [marks[0], marks.at(-1)];
  if (!first || !last || last.at - first.at < 1000) return null;
  return ((last.done - first.done) * 1000) / (last.at - first.at);
}

/** How long `left` units take at a speed, in words: "40 s", "3 min", "1 h 20 min"; empty if unknown. */
export function timeLeft(left: number, speed: number | null): string {
  if (speed === null || speed <= 0) return '';
  const seconds = Math.ceil(left / speed);
  if (seconds < 60) return `${Math.max(1, seconds)} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}
