import { MINUTE, SECOND, forecast, musicPlays, placeOf, type Play, type ProgramDocument } from '@/core/playing';
import type { Speaker } from './speaker';

/** How long the plays that were worked out last: then they are worked out again. */
const AHEAD_MS = 10 * MINUTE;
/** How long before its turn a sound is loaded. */
const PREPARE_MS = 10 * SECOND;
/** How often it is looked whether what is heard is what is due. */
const WATCH_MS = SECOND;
/** How far what is heard may be from what is due, in milliseconds: a clock that jumped, a browser that stood still. */
const OFF_MS = 300;
/** What could not be played is tried again after so long. */
const AGAIN_MS = 10 * SECOND;

/** A sound's turn, and its volume from 0 to 1. */
interface SoundTurn extends Play {
  readonly media: string;
  readonly volume: number;
}

/** Holds the speaker to the music beside the loop that shows: its own rounds, from the same start, switched on the instant. */
export class Band {
  private program: ProgramDocument | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private turn = 0;
  private wanted = 0;
  private current: SoundTurn | null = null;
  private isLoading = false;
  private readonly watching: ReturnType<typeof setInterval>;

  /** `now` is the corrected time, in milliseconds; it may jump. It looks after the speaker until `stop`. */
  constructor(
    private readonly speaker: Pick<Speaker, 'prepare' | 'play' | 'playing' | 'silence'>,
    private readonly now: () => number,
    private readonly onFailure: (message: string) => void,
  ) {
    this.watching = setInterval(() => this.watch(), WATCH_MS);
  }

  stop(): void {
    clearInterval(this.watching);
    clearTimeout(this.timer);
    this.turn++;
    this.wanted++;
  }

  play(program: ProgramDocument | null): void {
    this.program = program;
    this.step();
  }

  /** Starts the sound again if the clock has jumped, or if it is not where it should be. */
  private watch(): void {
    const { current } = this;
    const now = this.now();
    if (current && (now < current.from || now >= current.to)) return this.step();
    if (!current || this.isLoading) return;
    const heard = this.speaker.playing();
    if (heard && Math.abs(heard.atMs - (now - current.start)) <= OFF_MS) return;
    // What the browser refused stays silent until its next turn.
    if (!heard) return;
    this.current = null;
    this.step();
  }

  private step(): void {
    clearTimeout(this.timer);
    const { program } = this;
    const turn = ++this.turn;
    if (!program?.music) return this.rest();
    const at = this.now();
    // Farther than to the next step: what begins right after it is to be loaded before.
    const { segments } = forecast(program, at, at + AHEAD_MS + PREPARE_MS);
    const turns = segments.flatMap((segment) => {
      const volume = program.music?.[segment.loop]?.volume ?? 0;
      return musicPlays(program, placeOf(program), segment).map((play): SoundTurn => ({
        ...play,
        media: play.media ?? '',
        volume,
      }));
    });
    const play = turns.find((one) => one.from <= at && at < one.to);
    const next = turns.find((one) => one.from > at);
    const wake = Math.min(play?.to ?? next?.from ?? Infinity, segments[0]?.to ?? Infinity, at + AHEAD_MS);
    this.timer = setTimeout(() => this.step(), Math.max(1, wake - at));
    this.put(play);
    // After what is on now has taken what was prepared of it: one at a time is.
    if (next) this.prepareAt(next, next.from - PREPARE_MS, turn);
  }

  /** Lets what is on be heard; what is heard already goes on. */
  private put(play: SoundTurn | undefined): void {
    if (!play) return this.rest();
    const { media, start, volume } = this.current ?? {};
    const same = media === play.media && start === play.start && volume === play.volume;
    this.current = play;
    if (!same) this.sound(play);
  }

  private sound(turn: SoundTurn): void {
    void this.hear(turn, ++this.wanted);
  }

  private async hear(play: SoundTurn, wanted: number): Promise<void> {
    const asset = this.program?.assets[play.media];
    const isWanted = () => wanted === this.wanted;
    this.isLoading = true;
    try {
      if (asset?.kind !== 'sound') throw new Error(`“${play.media}” is missing in the program.`);
      await this.speaker.play(play, asset, () => this.now() - play.start, isWanted);
    } catch (error) {
      this.onFailure(error instanceof Error ? error.message : String(error));
      const turn = this.turn;
      setTimeout(() => {
        if (turn === this.turn && isWanted()) this.sound(play);
      }, AGAIN_MS);
    } finally {
      if (isWanted()) this.isLoading = false;
    }
  }

  private prepareAt(play: SoundTurn, at: number, turn: number): void {
    const prepare = () => {
      const asset = this.program?.assets[play.media];
      if (turn === this.turn && asset?.kind === 'sound')
        this.speaker.prepare(play, asset, () => play.start - this.now());
    };
    const wait = at - this.now();
    if (wait <= 0) prepare();
    else setTimeout(prepare, wait);
  }

  private rest(): void {
    this.current = null;
    this.wanted++;
    this.isLoading = false;
    this.speaker.silence();
  }
}
