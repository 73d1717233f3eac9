import { loudness } from '../../sound/loudness';
import { NO_SOUND, isRefusedSound } from '../../sound/no-sound';
import type { Drawn, FilmPosition } from './drawn';
import { keepInStep } from './in-step';

/** One film is seen while the next is made ready: no more elements are kept. */
const FILMS = 2;

/** How far a film may stand from where it is to begin, in seconds: less is not heard or seen, and to seek takes time. */
const NEAR_S = 0.25;

/**
 * Draws films. Their elements are emptied and used again, because a browser frees a decoded film only when asked to, or much later.
 */
export class Films {
  private readonly idle: HTMLVideoElement[] = [];
  private isToldOfSilence = false;

  /** How to stop holding a film in step with others. */
  private readonly steps = new Map<HTMLVideoElement, () => void>();

  /** `tell` hears what a person should know, once; `isInStep` says whether other displays show the same film beside this one. */
  constructor(
    private readonly tell: (message: string) => void,
    private readonly isInStep: () => boolean = () => false,
  ) {}

  readonly draw = async (url: string, fromMs: number, given?: AbortSignal): Promise<Drawn> => {
    const element = this.idle.pop() ?? document.createElement('video');
    element.muted = true;
    element.playsInline = true;
    element.preload = 'auto';
    const again = (atMs: number, giving?: AbortSignal) =>
      happens(element, 'seeked', () => (element.currentTime = atMs / 1000), giving);
    const free = () => this.empty(element);
    try {
      await happens(element, 'canplay', () => (element.src = url), given);
      if (fromMs > 0) await again(fromMs, given);
    } catch (error) {
      free();
      throw error;
    }
    return {
      element,
      isKept: true,
      begin: (offsetMs, volume) => this.begin(element, offsetMs, volume),
      hush: () => void (element.muted = true),
      rest: () => {
        this.letGo(element);
        element.pause();
      },
      again,
      position: (): FilmPosition => ({ atMs: element.currentTime * 1000, lengthMs: element.duration * 1000 }),
      free,
    };
  };

  private async begin(film: HTMLVideoElement, offsetMs: () => number, volume: number): Promise<void> {
    this.letGo(film);
    const from = offsetMs() / 1000;
    if (Math.abs(film.currentTime - from) > NEAR_S && from < film.duration) film.currentTime = from;
    loudness.apply(film, volume, (now) => (film.volume = now));
    film.muted = volume === 0;
    await film.play().catch((error: unknown) => this.playSilently(film, error));
    if (this.isInStep()) this.steps.set(film, keepInStep(film, offsetMs));
  }

  private letGo(film: HTMLVideoElement): void {
    this.steps.get(film)?.();
    this.steps.delete(film);
  }

  /** If the browser allows no sound before the page is touched, the film still plays, without sound. */
  private async playSilently(film: HTMLVideoElement, error: unknown): Promise<void> {
    if (film.muted || !isRefusedSound(error)) throw error;
    film.muted = true;
    if (!this.isToldOfSilence) this.tell(NO_SOUND);
    this.isToldOfSilence = true;
    await film.play();
  }

  private empty(film: HTMLVideoElement): void {
    this.letGo(film);
    loudness.drop(film);
    film.removeAttribute('src');
    film.pause();
    // Without a source, this empties it.
    film.load();
    if (this.idle.length < FILMS) this.idle.push(film);
  }
}

/** Waits for what a film answers to something that is asked of it. Throws where it can't, or when it is given up. */
async function happens(
  film: HTMLVideoElement,
  answer: 'canplay' | 'seeked',
  ask: () => void,
  given?: AbortSignal,
): Promise<void> {
  const settled = new AbortController();
  const { signal } = settled;
  try {
    await new Promise<void>((resolve, reject) => {
      given?.throwIfAborted();
      given?.addEventListener('abort', () => reject(given.reason as Error), { signal });
      film.addEventListener(answer, () => resolve(), { signal });
      film.addEventListener('error', () => reject(new Error(film.error?.message || 'no reason given')), { signal });
      ask();
    });
  } finally {
    settled.abort();
  }
}
