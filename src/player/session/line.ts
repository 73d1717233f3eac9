import { MINUTE } from '@/core/playing';
import { ProtocolError, type ProtocolClient } from '@/protocol/client';
import { about, backoffMs, type World } from './world';

type Message = Parameters<Parameters<ProtocolClient['events']>[0]>[0];

/** A token is given up when it was refused twice, at least so far apart, with no other answer between. */
const REFUSED_FOR_MS = 2 * MINUTE;

/**
 * The line to the server, from one token to the next: what is asked of it is asked again until the token is given up, later each time, and
 * at once when the network is back.
 */
export class Line {
  private life = new AbortController();
  /** Ends what waits for the line: it is there again. */
  private back = new AbortController();
  /** Ends what waits to open the event stream. */
  private stream = new AbortController();
  /** Whether the event stream is open. */
  private listening = false;
  private refusedSince: number | null = null;
  /** When the server answered last, by this device's clock; null for not yet. */
  heardAt: number | null = null;

  constructor(
    private readonly client: ProtocolClient,
    private readonly world: World,
  ) {}

  /** Aborts when the token is given up. */
  get signal(): AbortSignal {
    return this.life.signal;
  }

  begin(token: string): void {
    this.client.useToken(token);
    this.life = new AbortController();
    this.refusedSince = null;
  }

  /** Gives the token up: everything ends. */
  end(): void {
    this.life.abort();
  }

  /** Tries everything at once: the device's network is back, or a person is waiting for this player. */
  hurry(): void {
    this.back.abort();
  }

  /** The server was heard: the token is good, and a stream that waits to be opened again need not wait on. */
  heard(): void {
    this.heardAt = this.world.now();
    this.refusedSince = null;
    if (!this.listening) this.stream.abort();
  }

  /** Keeps the event stream open. */
  async listen(hear: (message: Message) => void): Promise<void> {
    for (let failures = 0; !this.signal.aborted; failures++) {
      await this.attempt(() =>
        this.client.events((message) => {
          failures = 0;
          this.listening = true;
          hear(message);
        }, this.signal),
      );
      this.listening = false;
      this.stream = new AbortController();
      const { signal } = this.stream;
      await this.wait(backoffMs(failures, this.world), signal);
    }
  }

  /** Does work again and again, about so many milliseconds apart. */
  async every(ms: number, work: () => Promise<void>): Promise<void> {
    while (!this.signal.aborted) {
      await this.attempt(work);
      await this.wait(about(ms, this.world));
    }
  }

  /** Does work that asks the server. A failure there isn't the player's fault, so it only tries again later. */
  async attempt(work: () => Promise<void>): Promise<void> {
    try {
      await work();
    } catch (error) {
      this.noteRefusal(error);
    }
  }

  /** A token that our server refuses, again and again, is no longer ours; what anything in between answers says nothing. */
  noteRefusal(error: unknown): void {
    if (!(error instanceof ProtocolError) || error.status !== 401 || !error.ours) return;
    const now = this.world.now();
    // The clock was put back: count from now.
    if (this.refusedSince === null || now < this.refusedSince) this.refusedSince = now;
    if (now - this.refusedSince >= REFUSED_FOR_MS) this.end();
  }

  private async wait(ms: number, heard?: AbortSignal): Promise<void> {
    if (this.back.signal.aborted) this.back = new AbortController();
    const ends = [this.signal, this.back.signal, ...(heard ? [heard] : [])];
    await this.world.wait(ms, AbortSignal.any(ends));
  }
}
