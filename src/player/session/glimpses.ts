import type { ProtocolClient } from '@/protocol/client';
import type { Target } from '@/protocol/schemas';
import type { Hardware } from '../hardware/hardware';

/**
 * Pictures of what is seen: taken when a person asks for one, and as often as the target says. None is taken of a private screen, whoever
 * asks.
 */
export class Glimpses {
  private takenAt = -Infinity;

  constructor(
    private readonly client: ProtocolClient,
    private readonly hardware: Hardware | undefined,
    private readonly target: () => Target | null,
    private readonly program: () => string | null,
    private readonly serverNow: () => number,
  ) {}

  /** Whether the device can take pictures, and may. */
  isAble(): boolean {
    return this.hardware?.picture !== undefined && this.target()?.glimpses?.allowed !== false;
  }

  /** Takes one if the target wants one by now. */
  async takeIfDue(): Promise<void> {
    const every = this.target()?.glimpses?.everyMs;
    const since = this.serverNow() - this.takenAt;
    // A clock that was put back must not stop them.
    if (every !== undefined && this.isAble() && (since >= every || since < 0)) await this.take();
  }

  /** Takes one, and sends it. Throws an error with a sentence for people if that fails. */
  async take(): Promise<void> {
    if (!this.hardware?.picture || !this.isAble()) throw new Error('No pictures may be taken of this screen.');
    const at = this.serverNow();
    this.takenAt = at;
    const program = this.program();
    const { bytes, isCovered } = await this.hardware.picture();
    await this.client.glimpse(bytes, at, isCovered ? null : program);
  }
}
