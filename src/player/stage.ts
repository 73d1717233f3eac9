import { never, type Asset } from '@/core/playing';

/** One picture or film, loaded and decoded, ready to be seen at once. */
interface Layer {
  readonly media: string;
  readonly element: HTMLImageElement | HTMLVideoElement;
  readonly url: string;
}

/** What is made ready ahead of its turn; `given` ends it. */
interface Prepared {
  readonly media: string;
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
 * Two layers, one seen and one prepared: nothing is shown before it can be drawn, so there is no blank between two. Elements of
 * films are used again, emptied: a browser gives back what a film's element has decoded only when it is told to, or much later.
 */
export class Stage {
  private shown: Layer | null = null;
  private prepared: Prepared | null = null;
  private readonly idle: HTMLVideoElement[] = [];

  constructor(
    private readonly root: HTMLElement,
    private readonly open: (sha256: string) => Promise<Blob | null>,
  ) {}

  /** Loads and decodes an item ahead of its turn. */
  prepare(media: string, asset: Asset): void {
    if (this.prepared?.media === media) return;
    this.drop();
    const given = new AbortController();
    const layer = this.load(media, asset, given.signal);
    layer.catch(() => undefined);
    this.prepared = { media, layer, given };
  }

  /**
   * Shows an item, a film from `offsetMs()` on. Throws where it can't be loaded or decoded; what was seen then stays. Where
   * `wanted` is no longer true once it is loaded, nothing happens.
   */
  async show(media: string, asset: Asset, offsetMs: () => number, wanted: () => boolean): Promise<void> {
    const prepared = this.prepared?.media === media ? this.prepared.layer : null;
    if (prepared) this.prepared = null;
    const layer = await (prepared ?? this.load(media, asset));
    if (wanted()) await this.begin(layer, offsetMs);
    if (!wanted()) return this.remove(layer);
    layer.element.hidden = false;
    const before = this.shown;
    this.shown = layer;
    this.root.dataset.media = media;
    requestAnimationFrame(() => this.remove(before));
  }

  /** Shows nothing of ours: the card or the dark behind is seen. */
  clear(): void {
    delete this.root.dataset.media;
    this.remove(this.shown);
    this.shown = null;
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

  /** Starts a film; a still needs nothing. What can't be started is taken away. */
  private async begin(layer: Layer, offsetMs: () => number): Promise<void> {
    const { element } = layer;
    if (!(element instanceof HTMLVideoElement)) return;
    const from = offsetMs() / 1000;
    if (Math.abs(element.currentTime - from) > 0.25 && from < element.duration) element.currentTime = from;
    try {
      await element.play();
    } catch (error) {
      this.remove(layer);
      throw error;
    }
  }

  private async load(media: string, asset: Asset, given?: AbortSignal): Promise<Layer> {
    const blob = await this.open(asset.sha256);
    if (!blob) throw new Error(`"${media}" is not here yet.`);
    const layer = { media, element: this.elementFor(asset.kind), url: URL.createObjectURL(blob) };
    const { element } = layer;
    element.hidden = true;
    element.className = 'layer';
    try {
      if (element instanceof HTMLVideoElement) await canPlay(element, layer.url, given);
      else {
        element.src = layer.url;
        await element.decode();
      }
    } catch (error) {
      this.remove(layer);
      throw new Error(
        `"${media}" can not be played here: ${error instanceof Error ? error.message : 'no reason given'}`,
        { cause: error },
      );
    }
    this.root.append(element);
    return layer;
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

  private elementFor(kind: Asset['kind']): HTMLImageElement | HTMLVideoElement {
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

/** Loads a film until it can be played. Throws where it can't, or when it is given up. */
async function canPlay(film: HTMLVideoElement, url: string, given?: AbortSignal): Promise<void> {
  const settled = new AbortController();
  const { signal } = settled;
  try {
    await new Promise<void>((resolve, reject) => {
      given?.throwIfAborted();
      given?.addEventListener('abort', () => reject(given.reason as Error), { signal });
      film.addEventListener('canplay', () => resolve(), { signal });
      film.addEventListener('error', () => reject(new Error(film.error?.message || 'no reason given')), { signal });
      film.src = url;
    });
  } finally {
    settled.abort();
  }
}
