/** How a person in front of a screen opens its player's own page: the four corners touched in turn, or arrow keys around, twice. */

const CORNERS = ['top left', 'top right', 'bottom right', 'bottom left'] as const;
const ARROWS = ['ArrowLeft', 'ArrowUp', 'ArrowRight', 'ArrowDown'];
const KEYS = [...ARROWS, ...ARROWS];
/** Between two steps there may be so long. */
const WITHIN_MS = 4000;
/** A corner is so much of the glass's width and height. */
const CORNER = 0.2;

/** The corner at a point of a glass, both in the same pixels; null for none. */
export function cornerAt(x: number, y: number, width: number, height: number): (typeof CORNERS)[number] | null {
  const [left, right] = [x < width * CORNER, x > width * (1 - CORNER)];
  const [top, bottom] = [y < height * CORNER, y > height * (1 - CORNER)];
  if (top) return left ? 'top left' : right ? 'top right' : null;
  if (bottom) return left ? 'bottom left' : right ? 'bottom right' : null;
  return null;
}

/** Follows steps that come one by one; says of each whether it was the last of the whole way. */
class Way {
  private done = 0;
  private last = -Infinity;

  constructor(private readonly steps: readonly string[]) {}

  take(step: string | null, at: number): boolean {
    const late = at - this.last > WITHIN_MS;
    this.last = at;
    if (late || step !== this.steps[this.done]) this.done = step === this.steps[0] ? 1 : 0;
    else this.done++;
    if (this.done < this.steps.length) return false;
    this.done = 0;
    return true;
  }
}

export const cornersInTurn = () => new Way(CORNERS);
export const arrowsAround = () => new Way(KEYS);
