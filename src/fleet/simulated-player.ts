import { MINUTE, SECOND, drawnOnly, forecastAt, withFirings, type ProgramDocument } from '@/core/playing';
import { ProtocolClient, type Enrolment } from '@/protocol/client';
import type { Target } from '@/protocol/schemas';
import { realWorld } from '@/player/session/world';
import type { KeptFiring } from '@/player/session/firings';
import { PlayerSession } from '@/player/session/session';
import { glassAt, plainGlass } from './simulated-glass';
import { SimulatedHardware, type DeviceFault } from './simulated-hardware';
import { FleetStore } from './store';

/** How a simulated player behaves: like most, on a slow line, silent once it has played, or with a clock that is wrong. */
export type Character = 'steady' | 'slow line' | 'goes dark' | 'wrong clock';

export interface SimulatedPlayerOptions {
  readonly server: string;
  readonly character?: Character;
  /** What is wrong with its device. */
  readonly fault?: DeviceFault | undefined;
  /** File that keeps its state over restarts; without it, each start is a new player. */
  readonly statePath?: string;
  /** With an enrolment key it waits to be given a screen. */
  readonly enrolment?: Enrolment | undefined;
  /** Called with every code that it shows. */
  readonly onCode?: (code: string) => void;
  readonly onProgram?: (hash: ProgramDocument | null) => void;
  /** Called when what was fired on its screen changes. */
  readonly onFirings?: (firings: readonly KeptFiring[]) => void;
}

const SLOW_BYTES_PER_SECOND = 1500;
const CLOCK_SLOW_BY_MS = 4 * MINUTE;
const DARK_AFTER_MS = 5 * SECOND;

/** A player without a display: speaks the real protocol, fetches and verifies the real files, and reports like hardware. */
export class SimulatedPlayer {
  private held: ProgramDocument | null = null;
  private firings: readonly KeptFiring[] = [];
  private session: PlayerSession;
  private readonly client: ProtocolClient;
  private readonly store: FleetStore;
  private readonly hardware: SimulatedHardware;
  private readonly now: () => number;
  private restarting = false;
  private size: Pick<Target['screen'], 'width' | 'height' | 'part'> = { width: 1920, height: 1080 };

  constructor(private readonly options: SimulatedPlayerOptions) {
    const { server, character = 'steady', statePath, fault = 'none' } = options;
    this.now = character === 'wrong clock' ? () => Date.now() - CLOCK_SLOW_BY_MS : Date.now;
    this.client = new ProtocolClient(server, null, this.now);
    this.store = new FleetStore(statePath ?? null);
    this.hardware = new SimulatedHardware(
      fault,
      () => this.restart(),
      (colour) => (colour ? plainGlass(this.size, colour) : this.glass()),
    );
    this.session = this.newSession();
  }

  private get program(): ProgramDocument | null {
    return this.held && withFirings(this.held, this.firings);
  }

  private newSession(): PlayerSession {
    const { character = 'steady', onCode, onProgram, onFirings } = this.options;
    return new PlayerSession(
      this.client,
      this.store,
      {
        code: (code) => code && onCode?.(code),
        screen: (screen) => void (this.size = screen ?? this.size),
        program: (program) => {
          this.held = program;
          onProgram?.(program);
          if (character === 'goes dark' && program) setTimeout(() => this.stop(), DARK_AFTER_MS);
        },
        firings: (firings) => {
          this.firings = firings;
          onFirings?.(firings);
        },
      },
      {
        software: 'simulated player',
        playing: () => this.playing(),
        hardware: this.hardware,
        enrolment: this.options.enrolment,
        ...(character === 'slow line' ? { bytesPerSecond: SLOW_BYTES_PER_SECOND } : {}),
      },
      { ...realWorld, now: this.now },
    );
  }

  async run(): Promise<void> {
    do {
      this.restarting = false;
      await this.session.run();
      if (this.restarting) this.session = this.newSession();
    } while (this.restarting);
  }

  stop(): void {
    this.session.stop();
  }

  /** As its device would: all that is in memory goes. */
  private restart(): void {
    this.restarting = true;
    this.session.stop();
  }

  private glass() {
    return glassAt(this.program, this.session.serverNow(), this.size, async (sha256) => {
      const { body } = await this.client.asset(sha256);
      return new Uint8Array(await new Response(body).arrayBuffer());
    });
  }

  private playing() {
    if (!this.program) return { state: 'empty' as const, playing: null };
    const { segment, play } = forecastAt(this.program, Math.round(this.session.serverNow()));
    if (segment.source === 'lights-out') return { state: 'resting' as const, playing: null };
    if (!play) return { state: 'empty' as const, playing: null };
    return { state: 'playing' as const, playing: { ...drawnOnly(play), source: segment.source, id: segment.id } };
  }
}
