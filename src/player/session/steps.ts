import { SECOND } from '@/core/playing';
import type { ProtocolClient } from '@/protocol/client';
import { fetchFile } from './fetch-file';
import type { Holdings } from './holdings';
import { isReady, missingOf, sourceIn, type Step } from './reconcile';
import type { Target } from '@/protocol/schemas';
import type { PlayerStore } from './store';
import type { World } from './world';

export interface StepOptions {
  /** Slows downloads to so many bytes a second: for simulated bad lines. */
  readonly bytesPerSecond?: number;
  /** About so many bytes of a file are kept at a time. */
  readonly pieceBytes?: number;
}

/** News of steps. */
export interface StepEvents {
  /** A file came to be whole: what could not be shown before can be now. */
  file?: ((sha256: string) => void) | undefined;
  /** What is held has changed in a way that the server waits for. */
  report(): void;
}

const PROGRESS_MS = 2 * SECOND;
const PIECE_BYTES = 512 * 1024;
/** Of a file that is smaller the way there and back says more than the line does. */
const MEASURED_BYTES = 50_000;

/** Takes the steps from what is held to what is wanted. */
export class Steps {
  /** How fast files come, by the last that says something; null before one did. */
  bytesPerSecond: number | null = null;

  constructor(
    private readonly client: ProtocolClient,
    private readonly store: PlayerStore,
    private readonly holdings: Holdings,
    private readonly events: StepEvents,
    private readonly options: StepOptions,
    private readonly world: World,
  ) {}

  /** Takes one step towards what is wanted by then, until the signal aborts. Throws where it can't be taken now. */
  async take(step: Step, target: () => Target | null, signal: AbortSignal): Promise<void> {
    const { holdings } = this;
    switch (step.kind) {
      case 'program': {
        const text = await this.client.program(step.hash, signal);
        if (!signal.aborted) holdings.bringNext(step.hash, text, sourceIn(target(), step.hash));
        return;
      }
      case 'ahead': {
        const text = await this.client.program(step.hash, signal);
        if (signal.aborted) return;
        const one = await holdings.bringAhead(step.at, step.hash, text, step.source);
        if (isReady(one, holdings.state)) this.events.report();
        return;
      }
      case 'file':
        return this.fetch(step, signal);
      case 'activate':
        await holdings.activate(step.program, step.edition);
        return this.events.report();
      case 'edition':
        await holdings.renumber(step.edition);
        return this.events.report();
      case 'clear':
        return holdings.discard(step.sha256);
    }
  }

  private async fetch({ asset }: Extract<Step, { kind: 'file' }>, signal: AbortSignal): Promise<void> {
    const { holdings } = this;
    const { bytesPerSecond, pieceBytes = PIECE_BYTES } = this.options;
    let told = this.world.now();
    let before = 0;
    let begin: { readonly at: number; readonly bytes: number } | null = null;
    await fetchFile(asset, {
      client: this.client,
      store: this.store,
      signal,
      pieceBytes,
      onBytes: async (bytes) => {
        holdings.setFile(asset.sha256, { bytes, whole: false });
        if (bytesPerSecond && bytes > before)
          await this.world.wait(((bytes - before) / bytesPerSecond) * SECOND, signal);
        before = bytes;
        begin ??= { at: this.world.now(), bytes };
        this.measure(bytes - begin.bytes, this.world.now() - begin.at);
        if (Math.abs(this.world.now() - told) < PROGRESS_MS) return;
        told = this.world.now();
        this.events.report();
      },
    });
    const held = (await this.store.files()).get(asset.sha256);
    holdings.setFile(asset.sha256, held ?? null);
    if (!held?.whole) return;
    this.events.file?.(asset.sha256);
    // A file that was reported missing has arrived, or a planned program is complete.
    const { state } = holdings;
    if (!missingOf(state) || state.coming.some((one) => isReady(one, state))) this.events.report();
  }

  /** So many bytes came in so many milliseconds: little of either says nothing of the line, and a clock that was put back neither. */
  private measure(bytes: number, ms: number): void {
    if (bytes >= MEASURED_BYTES && ms > 0) this.bytesPerSecond = Math.round((bytes * SECOND) / ms);
  }
}
