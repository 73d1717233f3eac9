import { loudness } from './loudness';

/** The two ways in which a sound is held and heard: decoded as a whole, to the sample, or by an element that decodes as it goes. */
export interface Sound {
  readonly media: string;
  /** Starts at `offsetMs` of the sound, at a volume from 0 to 1. Throws if the browser doesn't allow sound or can't play it. */
  begin(volume: number, offsetMs: number): Promise<void>;
  /** Where it stands, in milliseconds of its own; below 0 before it begins. */
  atMs(): number;
  /** Ends it, and gives back what it holds. May be called again. */
  release(): void;
}

/** A sound decoded as a whole, that begins exactly where another ends. */
export class DecodedSound implements Sound {
  private node: AudioBufferSourceNode | null = null;
  private gain: GainNode | null = null;
  /** When its own beginning was or will be, on the context's clock; and how fast it goes. */
  private since = 0;
  private rate = 1;

  constructor(
    readonly media: string,
    readonly sha256: string,
    private readonly context: AudioContext,
    readonly buffer: AudioBuffer,
  ) {}

  begin(volume: number, offsetMs: number): Promise<void> {
    this.start(volume, this.context.currentTime, Math.max(0, offsetMs / 1000));
    return Promise.resolve();
  }

  /**
   * Begins where `before` ends, to the sample, and goes so much faster or slower than it was recorded, at most by a thousandth, that it
   * ends `lateMs` earlier than it would.
   */
  follow(before: DecodedSound, volume: number, lateMs: number): void {
    const { duration } = this.buffer;
    const wanted = duration / Math.max(0.001, duration - lateMs / 1000);
    this.rate = Math.abs(lateMs) < UNHEARD_MS ? 1 : Math.min(1 + MOST_BEND, Math.max(1 - MOST_BEND, wanted));
    this.start(volume, before.endsAt, 0);
  }

  atMs(): number {
    return (this.context.currentTime - this.since) * this.rate * 1000;
  }

  /** How long until it ends by itself, in milliseconds. */
  leftMs(): number {
    return (this.endsAt - this.context.currentTime) * 1000;
  }

  release(): void {
    const { node, gain } = this;
    this.node = this.gain = null;
    if (!node || !gain) return;
    node.onended = null;
    node.stop();
    this.end(gain);
  }

  private end(gain: GainNode): void {
    loudness.drop(gain);
    gain.disconnect();
  }

  private get endsAt(): number {
    return this.since + this.buffer.duration / this.rate;
  }

  private start(volume: number, at: number, offset: number): void {
    const node = this.context.createBufferSource();
    const gain = this.context.createGain();
    node.buffer = this.buffer;
    node.playbackRate.value = this.rate;
    loudness.apply(gain, volume, (now) => (gain.gain.value = now));
    node.connect(gain).connect(this.context.destination);
    node.onended = () => this.end(gain);
    node.start(at, offset);
    [this.node, this.gain, this.since] = [node, gain, at - offset / this.rate];
  }
}

/** A sound so little off the clock is left as it was recorded, in milliseconds. */
const UNHEARD_MS = 10;
/** So much faster or slower is not heard: two hundredths of a semitone. */
const MOST_BEND = 0.001;

/** A sound that an element plays: it takes no memory to speak of, and begins within some 20 ms. */
export class ElementSound implements Sound {
  private constructor(
    readonly media: string,
    private readonly element: HTMLAudioElement,
    private readonly url: string,
  ) {}

  /** Loads it until it can be heard. Throws where it can't be decoded. */
  static async load(media: string, blob: Blob): Promise<ElementSound> {
    const sound = new ElementSound(media, document.createElement('audio'), URL.createObjectURL(blob));
    const { element } = sound;
    element.preload = 'auto';
    try {
      await new Promise<void>((ready, failed) => {
        element.oncanplay = () => ready();
        element.onerror = () => failed(new Error(element.error?.message || 'no reason given'));
        element.src = sound.url;
      });
      return sound;
    } catch (error) {
      sound.release();
      throw error;
    }
  }

  /** In seconds. */
  get duration(): number {
    return this.element.duration;
  }

  async begin(volume: number, offsetMs: number): Promise<void> {
    const { element } = this;
    const from = offsetMs / 1000;
    loudness.apply(element, volume, (now) => (element.volume = now));
    if (Math.abs(element.currentTime - from) > NEAR_S && from < element.duration) element.currentTime = from;
    await element.play();
  }

  atMs(): number {
    return this.element.currentTime * 1000;
  }

  release(): void {
    const { element, url } = this;
    loudness.drop(element);
    element.oncanplay = element.onerror = null;
    element.pause();
    element.removeAttribute('src');
    element.load();
    URL.revokeObjectURL(url);
  }
}

/** An element this close to its right position is left alone, in seconds. */
const NEAR_S = 0.1;
