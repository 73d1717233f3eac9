/** How loud the player is as a whole: a factor for all that sounds, now and later. A person sets it from afar. */
export class Loudness {
  private level = 1;
  private readonly parts = new Map<object, () => void>();

  /** Applies a part's own volume, from 0 to 1, times the factor: now, and whenever the factor changes, until `drop`. */
  apply(part: object, volume: number, set: (volume: number) => void): void {
    const follow = () => set(volume * this.level);
    this.parts.set(part, follow);
    follow();
  }

  drop(part: object): void {
    this.parts.delete(part);
  }

  /** Sets the factor, from 0 to 1. */
  set(level: number): void {
    this.level = level;
    for (const follow of this.parts.values()) follow();
  }
}

/** The loudness of this page. */
export const loudness = new Loudness();
