import type { SoundAsset } from '@/core/playing';
import { DecodedSound, ElementSound, type Sound } from './sounds';
import { NO_SOUND, isRefusedSound } from './no-sound';

/** A sound's turn: what begins when, on the corrected clock, in milliseconds, and how loud, from 0 to 1. */
export interface Cue {
  readonly media: string;
  readonly start: number;
  readonly volume: number;
}

interface Prepared {
  readonly cue: Cue;
  readonly sound: Promise<Sound>;
  /** What will be heard by itself, because it follows what is heard now. */
  following: DecodedSound | null;
}

/**
 * One sound plays and the next is prepared. A short sound is decoded as a whole and joins the one before to the sample. A long one is played
 * by an element, since it would take a hundred megabytes and more: there a join takes some 20 ms.
 */
export class Speaker {
  private heard: Sound | null = null;
  private prepared: Prepared | null = null;
  private context: AudioContext | null = null;
  private isToldOfSilence = false;

  /** `tell` hears what a person should know, once. */
  constructor(
    private readonly open: (sha256: string) => Promise<Blob | null>,
    private readonly tell: (message: string) => void = () => undefined,
  ) {}

  /** Loads a sound ahead of its turn, and lets it follow what is heard where that ends by then. `untilMs` says how long that is. */
  prepare(cue: Cue, asset: SoundAsset, untilMs: () => number): void {
    if (this.prepared && isSame(this.prepared.cue, cue)) return;
    this.drop();
    const prepared: Prepared = { cue, sound: this.load(cue.media, asset), following: null };
    this.prepared = prepared;
    prepared.sound
      .then((sound) => {
        const { heard } = this;
        if (this.prepared !== prepared || !(sound instanceof DecodedSound && heard instanceof DecodedSound)) return;
        // Positive where what is heard ends after its turn does.
        const lateMs = heard.leftMs() - untilMs();
        if (Math.abs(lateMs) > FAR_MS || heard.leftMs() < 0) return;
        sound.follow(heard, cue.volume, lateMs);
        prepared.following = sound;
      })
      .catch(() => undefined);
  }

  /**
   * Plays a sound from `offsetMs()` on; the sound before it ends. Throws if it can't be loaded or played. If `wanted` is no longer
   * true once it is loaded, nothing happens.
   */
  async play(cue: Cue, asset: SoundAsset, offsetMs: () => number, wanted: () => boolean): Promise<void> {
    const prepared = this.prepared && isSame(this.prepared.cue, cue) ? this.prepared : null;
    if (prepared) this.prepared = null;
    const following = prepared?.following;
    if (following && Math.abs(following.atMs() - offsetMs()) <= FAR_MS) {
      // What was heard ends by itself at the sample with which this one begins.
      this.heard = following;
      return;
    }
    following?.release();
    const sound = await (prepared?.sound ?? this.load(cue.media, asset));
    if (!wanted()) return sound.release();
    try {
      if (sound instanceof DecodedSound) await this.mayBeHeard();
      await sound.begin(cue.volume, offsetMs());
    } catch (error) {
      sound.release();
      if (!isRefusedSound(error)) throw error;
      if (!this.isToldOfSilence) this.tell(NO_SOUND);
      this.isToldOfSilence = true;
      return;
    }
    if (!wanted()) return sound.release();
    this.heard?.release();
    this.heard = sound;
    // What was to follow what was heard before begins at its turn.
    if (this.prepared?.following) this.drop();
  }

  /** What is heard, and where it stands, in milliseconds of its own; null for nothing. */
  playing(): { readonly media: string; readonly atMs: number } | null {
    return this.heard && { media: this.heard.media, atMs: this.heard.atMs() };
  }

  silence(): void {
    this.heard?.release();
    this.heard = null;
    this.drop();
  }

  private async load(media: string, asset: SoundAsset): Promise<Sound> {
    const { heard } = this;
    const blob = await this.open(asset.sha256);
    if (!blob) throw new Error(`“${media}” isn’t downloaded yet.`);
    try {
      const whole = await ElementSound.load(media, blob);
      if (whole.duration > MOST_DECODED_S) return whole;
      whole.release();
      this.context ??= new AudioContext();
      // A sound that follows itself is decoded once.
      const buffer =
        heard instanceof DecodedSound && heard.sha256 === asset.sha256
          ? heard.buffer
          : await this.context.decodeAudioData(await blob.arrayBuffer());
      return new DecodedSound(media, asset.sha256, this.context, buffer);
    } catch (error) {
      throw new Error(`“${media}” can’t be played here: ${error instanceof Error ? error.message : ''}`, {
        cause: error,
      });
    }
  }

  /** Throws as an element does where the page may not sound yet. */
  private async mayBeHeard(): Promise<void> {
    const { context } = this;
    if (!context || context.state === 'running') return;
    // A browser that allows no sound keeps us waiting until a person touches the page.
    await Promise.race([context.resume(), new Promise((passed) => setTimeout(passed, RESUME_MS))]);
    if ((context.state as string) !== 'running')
      throw Object.assign(new Error('This page may not sound.'), { name: 'NotAllowedError' });
  }

  private drop(): void {
    const { prepared } = this;
    this.prepared = null;
    prepared?.following?.release();
    prepared?.sound.then((sound) => sound.release()).catch(() => undefined);
  }
}

const isSame = (a: Cue, b: Cue) => a.media === b.media && a.start === b.start && a.volume === b.volume;

/** Longer sounds are not decoded as a whole: five minutes in stereo take a hundred megabytes. */
const MOST_DECODED_S = 300;
/** Farther apart than this two sounds do not follow each other: the clock was set, or the first is cut off. In milliseconds. */
const FAR_MS = 60;
const RESUME_MS = 1_000;
