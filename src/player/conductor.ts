import { MINUTE, forecast, type Play, type ProgramDocument, type Segment } from '@/core/playing';
import type { Report } from '@/protocol/schemas';
import type { Stage } from './stage';

/** How long the plays that were worked out last: then they are worked out again. */
const AHEAD_MS = 10 * MINUTE;
/** How long before its turn an item is loaded. */
const PREPARE_MS = 5_000;

export type Scene = 'playing' | 'resting' | 'empty';

/** Holds the stage to the program's forecast: asks the core what is on, prepares what comes, and switches on the instant. */
export class Conductor {
  private program: ProgramDocument | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private turn = 0;
  /** Counts what was put on the stage: a show that is overtaken while it loads is dropped. */
  private wanted = 0;
  private current: { play: Play; segment: Segment } | null = null;
  private scene: Scene = 'empty';
  /** Whether what is on could not be shown. */
  private failed = false;

  constructor(
    private readonly stage: Pick<Stage, 'prepare' | 'show' | 'clear'>,
    private readonly now: () => number,
    private readonly onScene: (scene: Scene) => void,
    private readonly onFailure: (message: string) => void,
  ) {}

  play(program: ProgramDocument | null): void {
    this.program = program;
    this.step();
  }

  /** Something that could not be shown may be here now. */
  look(): void {
    if (!this.failed) return;
    this.current = null;
    this.step();
  }

  /** What plays, for the heartbeat. */
  playing(): Pick<Report, 'playing' | 'state'> {
    const { current, scene } = this;
    return {
      state: scene,
      playing:
        current && scene === 'playing'
          ? { media: current.play.media, source: current.segment.source, id: current.segment.id }
          : null,
    };
  }

  /** Brings the stage to this instant, and sets the timer for the next change. */
  private step(): void {
    clearTimeout(this.timer);
    const { program } = this;
    const turn = ++this.turn;
    if (!program) return this.rest('empty');
    const at = this.now();
    // Farther than to the next step: what begins right after it is to be prepared before.
    const { segments, plays } = forecast(program, at, at + AHEAD_MS + 2 * PREPARE_MS, { plays: true });
    const segment = segments[0] as Segment;
    const play = plays.find((one) => one.from <= at && at < one.to);
    const next = plays.find((one) => one.from > at);
    const until = Math.min(play?.to ?? next?.from ?? Infinity, segment.to, at + AHEAD_MS);
    this.after(until - at, () => this.step());
    if (next) this.prepareAt(next, next.from - PREPARE_MS, turn);
    if (!play) return this.rest(segment.source === 'lights-out' ? 'resting' : 'empty');
    const same = this.current?.play.media === play.media && this.current.play.start === play.start;
    this.current = { play, segment };
    if (!same) void this.show(play, ++this.wanted);
  }

  private async show(play: Play, wanted: number): Promise<void> {
    const asset = this.program?.assets[play.media];
    try {
      if (!asset) throw new Error(`"${play.media}" is missing in the program.`);
      const current = () => wanted === this.wanted;
      await this.stage.show(play.media, asset, () => this.now() - play.start, current);
      if (!current()) return;
      this.failed = false;
      this.setScene('playing');
    } catch (error) {
      this.failed = true;
      this.onFailure(error instanceof Error ? error.message : String(error));
    }
  }

  private prepareAt(play: Play, at: number, turn: number): void {
    const prepare = () => {
      const asset = this.program?.assets[play.media];
      if (turn === this.turn && asset) this.stage.prepare(play.media, asset);
    };
    const wait = at - this.now();
    if (wait <= 0) prepare();
    else setTimeout(prepare, Math.min(wait, AHEAD_MS));
  }

  private rest(scene: 'resting' | 'empty'): void {
    this.current = null;
    this.wanted++;
    this.stage.clear();
    this.setScene(scene);
  }

  private setScene(scene: Scene): void {
    this.scene = scene;
    this.onScene(scene);
  }

  /** A timer in short strides, so that a clock that is put right meanwhile is noticed. */
  private after(ms: number, work: () => void): void {
    const stride = 30_000;
    const due = this.now() + ms;
    const tick = () => {
      const left = due - this.now();
      if (left <= 0) return work();
      this.timer = setTimeout(tick, Math.min(left, stride));
    };
    tick();
  }
}
