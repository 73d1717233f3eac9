import type { SoundAsset } from '@/core/playing';
import { NO_SOUND, isRefusedSound } from './stage';

/** One sound, loaded, ready to be heard at once. */
interface Track {
  readonly media: string;
  readonly element: HTMLAudioElement;
  readonly url: string;
}

/** Two tracks, one heard and one prepared: the next is loaded and decoded before the one that is heard ends, so there is no gap. */
export class Speaker {
  private heard: Track | null = null;
  private prepared: { readonly media: string; readonly track: Promise<Track> } | null = null;
  private isToldOfSilence = false;

  /** `tell` hears what a person should know, once. */
  constructor(
    private readonly open: (sha256: string) => Promise<Blob | null>,
    private readonly tell: (message: string) => void = () => undefined,
  ) {}

  /** Loads a sound ahead of its turn. */
  prepare(media: string, asset: SoundAsset): void {
    if (this.prepared?.media === media) return;
    this.drop();
    const track = this.load(media, asset);
    track.catch(() => undefined);
    this.prepared = { media, track };
  }

  /**
   * Lets a sound be heard from `offsetMs()` on, at a volume from 0 to 1; what was heard ends. Throws where it can't be loaded or played. Where
   * `wanted` is no longer true once it is loaded, nothing happens.
   */
  async play(
    media: string,
    asset: SoundAsset,
    volume: number,
    offsetMs: () => number,
    wanted: () => boolean,
  ): Promise<void> {
    const prepared = this.prepared?.media === media ? this.prepared.track : null;
    if (prepared) this.prepared = null;
    const track = await (prepared ?? this.load(media, asset));
    if (!wanted()) return release(track);
    const { element } = track;
    element.volume = volume;
    const from = offsetMs() / 1000;
    if (Math.abs(element.currentTime - from) > NEAR_S && from < element.duration) element.currentTime = from;
    try {
      await element.play();
    } catch (error) {
      release(track);
      if (!isRefusedSound(error)) throw error;
      if (!this.isToldOfSilence) this.tell(NO_SOUND);
      this.isToldOfSilence = true;
      return;
    }
    if (!wanted()) return release(track);
    release(this.heard);
    this.heard = track;
  }

  /** What is heard, and where it stands, in milliseconds of its own; null for nothing. */
  playing(): { readonly media: string; readonly atMs: number } | null {
    return this.heard && { media: this.heard.media, atMs: this.heard.element.currentTime * 1000 };
  }

  silence(): void {
    release(this.heard);
    this.heard = null;
    this.drop();
  }

  private async load(media: string, asset: SoundAsset): Promise<Track> {
    const blob = await this.open(asset.sha256);
    if (!blob) throw new Error(`"${media}" is not here yet.`);
    const track = { media, element: document.createElement('audio'), url: URL.createObjectURL(blob) };
    const { element } = track;
    element.preload = 'auto';
    try {
      await new Promise<void>((ready, failed) => {
        element.oncanplay = () => ready();
        element.onerror = () => failed(new Error(element.error?.message || 'no reason given'));
        element.src = track.url;
      });
    } catch (error) {
      release(track);
      throw new Error(`"${media}" can not be played here: ${error instanceof Error ? error.message : ''}`, {
        cause: error,
      });
    }
    return track;
  }

  private drop(): void {
    const { prepared } = this;
    this.prepared = null;
    prepared?.track.then(release).catch(() => undefined);
  }
}

/** Where a sound stands so near to where it should, it is left alone, in seconds. */
const NEAR_S = 0.1;

/** Gives back at once what a track holds. */
function release(track: Track | null): void {
  if (!track) return;
  const { element, url } = track;
  element.oncanplay = element.onerror = null;
  element.pause();
  element.removeAttribute('src');
  element.load();
  URL.revokeObjectURL(url);
}
