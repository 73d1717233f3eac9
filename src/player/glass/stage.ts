import { never, type LoopItem, type ShownAsset } from '@/core/playing';
import { begin, type Running } from './transition';

/** One picture or film, loaded and decoded, ready to be seen at once. */
interface Layer {
  readonly media: string;
  readonly element: HTMLImageElement | HTMLVideoElement;
  readonly url: string;
  readonly sha256: string;
  readonly focus: ShownAsset['focus'];
}

/** How a turn looks and sounds; absent: a cut, whole, silent. */
export type Look = Pick<LoopItem, 'transition' | 'fit' | 'volume'>;

/** What is made ready ahead of its turn; `given` ends it. */
interface Prepared {
  readonly media: string;
  readonly fromMs: number;
  readonly layer: Promise<Layer>;
  readonly given: AbortController;
}

/** What is seen, and where a film stands, in milliseconds of its own. */
export interface Seen {
  readonly media: string;
  readonly film: { readonly atMs: number; readonly lengthMs: number } | null;
}

/** One film is seen while the next is made ready: no more elements are kept. */
const FILMS = 2;

/**
 * Two layers, one shown and one prepared. Nothing is shown before it can be drawn, so the screen is never blank between two. Video
 * elements are emptied and used again, because a browser frees a decoded video only when asked to, or much later.
 */
export class Stage {
  private shown: Layer | null = null;
  private prepared: Prepared | null = null;
  /** The video shown last is kept as it is. If it comes next again, as with two in turn, it needn't be loaded. */
  private kept: Layer | null = null;
  private readonly idle: HTMLVideoElement[] = [];
  /** What goes and what comes, while one gives way to the other. */
  private changing: { readonly running: Running; readonly before: Layer } | null = null;
  private isToldOfSilence = false;

  /** `tell` hears what a person should know, once; `pixels` is how many of the screen's a browser counts as one. */
  constructor(
    private readonly root: HTMLElement,
    private readonly open: (sha256: string) => Promise<Blob | null>,
    private readonly tell: (message: string) => void = () => undefined,
    private readonly pixels = () => window.devicePixelRatio,
  ) {}

  /** Loads and decodes an item ahead of its turn, a film at the moment that it will begin with, in milliseconds of its own. */
  prepare(media: string, asset: ShownAsset, fromMs = 0): void {
    if (this.prepared?.media === media && this.prepared.fromMs === fromMs) return;
    this.drop();
    const given = new AbortController();
    const layer = this.load(media, asset, fromMs, given.signal);
    layer.catch(() => undefined);
    this.prepared = { media, fromMs, layer, given };
  }

  /**
   * Shows an item, a film from `offsetMs()` on; `turnMs()` is how long its turn has been going, in which its transition lies. Throws where it
   * can't be loaded or decoded; what was seen then stays. Where `wanted` is no longer true once it is loaded, nothing happens.
   */
  async show(
    media: string,
    asset: ShownAsset,
    offsetMs: () => number,
    wanted: () => boolean,
    look: Look = {},
    turnMs: () => number = offsetMs,
  ): Promise<void> {
    const prepared = this.prepared?.media === media ? this.prepared.layer : null;
    if (prepared) this.prepared = null;
    const layer = await (prepared ?? this.load(media, asset));
    dress(layer, look, this.pixels());
    if (wanted()) await this.begin(layer, offsetMs, look.volume ?? 0);
    if (!wanted()) return this.remove(layer);
    this.settle();
    layer.element.hidden = false;
    const before = this.shown;
    this.shown = layer;
    this.root.dataset.media = media;
    if (before?.element instanceof HTMLVideoElement) before.element.muted = true;
    this.change(before, layer, look, turnMs());
  }

  /** Lets one give way to the other; what goes stays under what comes until that is all to be seen. */
  private change(before: Layer | null, after: Layer, { transition }: Look, turnMs: number): void {
    const running = before && begin(transition, before.element, after.element, turnMs);
    if (!running) return void requestAnimationFrame(() => this.keep(before));
    const changing = { running, before };
    this.changing = changing;
    running.over.then(
      () => this.changing === changing && this.settle(),
      () => undefined,
    );
  }

  /** Ends a transition that is on its way: what comes is seen, what goes is gone. */
  private settle(): void {
    const { changing } = this;
    if (!changing) return;
    this.changing = null;
    changing.running.end();
    this.keep(changing.before);
  }

  /** Shows nothing of ours: the card or the dark behind is seen. */
  clear(): void {
    this.settle();
    delete this.root.dataset.media;
    this.remove(this.shown);
    this.shown = null;
    this.remove(this.kept);
    this.kept = null;
    this.drop();
  }

  /** What is seen now; null for nothing of ours. */
  seen(): Seen | null {
    if (!this.shown) return null;
    const { media, element } = this.shown;
    return {
      media,
      film:
        element instanceof HTMLVideoElement
          ? { atMs: element.currentTime * 1000, lengthMs: element.duration * 1000 }
          : null,
    };
  }

  /** Starts a video; a picture needs nothing. One that can't be started is removed. */
  private async begin(layer: Layer, offsetMs: () => number, volume: number): Promise<void> {
    const { element } = layer;
    if (!(element instanceof HTMLVideoElement)) return;
    const from = offsetMs() / 1000;
    if (Math.abs(element.currentTime - from) > 0.25 && from < element.duration) element.currentTime = from;
    element.volume = volume;
    element.muted = volume === 0;
    try {
      await element.play().catch((error: unknown) => this.playSilently(element, error));
    } catch (error) {
      this.remove(layer);
      throw error;
    }
  }

  /** If the browser allows no sound before the page is touched, the video still plays, without sound. */
  private async playSilently(film: HTMLVideoElement, error: unknown): Promise<void> {
    if (film.muted || !isRefusedSound(error)) throw error;
    film.muted = true;
    if (!this.isToldOfSilence) this.tell(NO_SOUND);
    this.isToldOfSilence = true;
    await film.play();
  }

  private async load(media: string, asset: ShownAsset, fromMs = 0, given?: AbortSignal): Promise<Layer> {
    const kept = this.takeKept(asset.sha256);
    if (kept) return this.rewound(media, kept, fromMs, given);
    const blob = await this.open(asset.sha256);
    if (!blob) throw new Error(`“${media}” isn’t downloaded yet.`);
    const layer: Layer = {
      ...{ media, sha256: asset.sha256, focus: asset.focus },
      ...{ element: this.elementFor(asset.kind), url: URL.createObjectURL(blob) },
    };
    const { element } = layer;
    element.hidden = true;
    element.className = 'layer';
    try {
      if (element instanceof HTMLVideoElement) {
        await happens(element, 'canplay', () => (element.src = layer.url), given);
        if (fromMs > 0) await happens(element, 'seeked', () => (element.currentTime = fromMs / 1000), given);
      } else {
        element.src = layer.url;
        await element.decode();
      }
    } catch (error) {
      this.remove(layer);
      throw new Error(
        `“${media}” can’t be played here: ${error instanceof Error ? error.message : 'the browser gave no reason'}`,
        { cause: error },
      );
    }
    this.root.append(element);
    return layer;
  }

  /** A film that was kept, if it is this one; any other is given back now, so that no more than two are held. */
  private takeKept(sha256: string): Layer | null {
    const { kept } = this;
    this.kept = null;
    if (kept?.sha256 === sha256) return kept;
    this.remove(kept);
    return null;
  }

  /** A film that was kept, at the moment that it will begin with. */
  private async rewound(media: string, kept: Layer, fromMs: number, given?: AbortSignal): Promise<Layer> {
    const layer: Layer = { ...kept, media };
    const film = kept.element as HTMLVideoElement;
    film.hidden = true;
    try {
      await happens(film, 'seeked', () => (film.currentTime = fromMs / 1000), given);
    } catch (error) {
      this.remove(layer);
      throw error;
    }
    this.root.append(film);
    return layer;
  }

  /** What was seen goes: a film is kept as it is until it is known what comes next. */
  private keep(layer: Layer | null): void {
    if (!(layer?.element instanceof HTMLVideoElement) || this.kept) return this.remove(layer);
    layer.element.pause();
    layer.element.remove();
    this.kept = layer;
  }

  /** Takes a layer away, and gives back at once what it holds: its bytes, and what was decoded of them. */
  private remove(layer: Layer | null): void {
    if (!layer) return;
    const { element, url } = layer;
    element.remove();
    element.removeAttribute('src');
    URL.revokeObjectURL(url);
    if (!(element instanceof HTMLVideoElement)) return;
    element.pause();
    // Without a source, this empties it.
    element.load();
    if (this.idle.length < FILMS) this.idle.push(element);
  }

  private drop(): void {
    const { prepared } = this;
    this.prepared = null;
    prepared?.given.abort(new Error('another is wanted'));
    prepared?.layer.then((loaded) => this.remove(loaded)).catch(() => undefined);
  }

  private elementFor(kind: ShownAsset['kind']): HTMLImageElement | HTMLVideoElement {
    switch (kind) {
      case 'video': {
        const film = this.idle.pop() ?? document.createElement('video');
        film.muted = true;
        film.playsInline = true;
        film.preload = 'auto';
        return film;
      }
      case 'image':
        return document.createElement('img');
      default:
        return never(kind);
    }
  }
}

/** Reported when the browser allows no sound. */
export const NO_SOUND =
  'This browser allows no sound until the page is touched. Allow sound for this page in its settings, or start it with sound allowed.';

export const isRefusedSound = (error: unknown): boolean => error instanceof Error && error.name === 'NotAllowedError';

/** How a browser fits a picture into a box, for each of our fits. */
const OBJECT_FIT = { whole: 'contain', fill: 'cover', stretch: 'fill', exact: 'none' } as const;

/** Places a layer on the whole stage as its turn says. If it is cropped, its focus stays visible. */
function dress({ element, focus: [x, y] = [0.5, 0.5] }: Layer, { fit = 'whole' }: Look, ratio: number): void {
  const { style } = element;
  style.objectFit = OBJECT_FIT[fit];
  style.objectPosition = `${x * 100}% ${y * 100}%`;
  // A pixel of the picture on each of the screen's, however many of these a browser counts as one.
  const pixels = fit === 'exact' ? ratio : 1;
  style.width = style.height = `${pixels * 100}%`;
  style.transformOrigin = '0 0';
  style.scale = String(1 / pixels);
  style.zIndex = '';
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
