/** How far clocks are taken to drift in a time, as a share of it: PHI of RFC 5905, section 7.2. One that drifts more soon contradicts itself. */
const DRIFT = 15e-6;
/** Both clocks tell whole milliseconds. */
const ROUNDING_MS = 1;

/**
 * How far a server's clock is from one's own, as exchanges with it tell: the middle between question and answer is taken for the instant of the
 * answer, as in RFC 5905, section 8. All in milliseconds.
 */
export class ServerClock {
  /** Server time less own clock, by the exchange that could tell it best. */
  offsetMs = 0;
  private best: { readonly offsetMs: number; readonly errorMs: number; readonly at: number } | null = null;

  /**
   * An answer that took long says little, because the way there may have taken any part of it. The better measurement counts, for as long as a
   * clock can't have drifted further; after a jump of the clock it no longer counts. `sent` and `received` are by this device's
   * own clock.
   */
  tell(serverTime: number, sent: number, received: number): void {
    const next = {
      offsetMs: Math.round(serverTime - (sent + received) / 2),
      errorMs: Math.abs(received - sent) / 2,
      at: received,
    };
    const { best } = this;
    const bestErrorMs = best ? best.errorMs + Math.abs(received - best.at) * DRIFT : Infinity;
    const apart = Math.abs(next.offsetMs - (best?.offsetMs ?? 0));
    const contradicts = apart > next.errorMs + bestErrorMs + ROUNDING_MS;
    if (next.errorMs > bestErrorMs && !contradicts) return;
    this.best = next;
    this.offsetMs = next.offsetMs;
  }
}
