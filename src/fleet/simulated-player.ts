import { MINUTE, SECOND, forecastAt, type ProgramDocument } from '@/core/playing';
import { ProtocolClient } from '@/protocol/client';
import { realWorld } from '@/player/session/world';
import { PlayerSession } from '@/player/session/session';
import { FleetStore } from './store';

/** How a simulated player behaves: like most, on a slow line, silent once it has played, or with a clock that is wrong. */
export type Character = 'steady' | 'slow line' | 'goes dark' | 'wrong clock';

export interface SimulatedPlayerOptions {
  readonly server: string;
  readonly character?: Character;
  /** File that keeps its state over restarts; without it, each start is a new player. */
  readonly statePath?: string;
  /** Called with every code that it shows. */
  readonly onCode?: (code: string) => void;
  readonly onProgram?: (hash: ProgramDocument | null) => void;
}

const SLOW_BYTES_PER_SECOND = 1500;
const CLOCK_SLOW_BY_MS = 4 * MINUTE;
const DARK_AFTER_MS = 5 * SECOND;

/** A player without a display: speaks the real protocol, fetches and verifies the real files, and reports like hardware. */
export class SimulatedPlayer {
  private program: ProgramDocument | null = null;
  private readonly session: PlayerSession;
  private readonly client: ProtocolClient;

  constructor(private readonly options: SimulatedPlayerOptions) {
    const { server, character = 'steady', statePath, onCode, onProgram } = options;
    const now = character === 'wrong clock' ? () => Date.now() - CLOCK_SLOW_BY_MS : Date.now;
    this.client = new ProtocolClient(server, null, now);
    this.session = new PlayerSession(
      this.client,
      new FleetStore(statePath ?? null),
      {
        code: (code) => code && onCode?.(code),
        screen: () => undefined,
        program: (program) => {
          this.program = program;
          onProgram?.(program);
          if (character === 'goes dark' && program) setTimeout(() => this.stop(), DARK_AFTER_MS);
        },
      },
      {
        software: 'simulated player',
        playing: () => this.playing(),
        hardware: () => ({ temperature: 41, memory: 0.4, load: 0.2 }),
        ...(character === 'slow line' ? { bytesPerSecond: SLOW_BYTES_PER_SECOND } : {}),
      },
      { ...realWorld, now },
    );
  }

  run(): Promise<void> {
    return this.session.run();
  }

  stop(): void {
    this.session.stop();
  }

  private playing() {
    if (!this.program) return { state: 'empty' as const, playing: null };
    const { segment, play } = forecastAt(this.program, Math.round(this.session.serverNow()));
    if (segment.source === 'lights-out') return { state: 'resting' as const, playing: null };
    if (!play) return { state: 'empty' as const, playing: null };
    return { state: 'playing' as const, playing: { media: play.media, source: segment.source, id: segment.id } };
  }
}
