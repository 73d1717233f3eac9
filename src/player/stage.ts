import { never, type Asset } from '@/core/playing';

/** One picture or film, loaded and decoded, ready to be seen at once. */
interface Layer {
  readonly media: string;
  readonly element: HTMLElement;
  readonly url: string;
}

/** Two layers, one seen and one prepared: nothing is shown before it can be drawn, so there is no blank between two. */
export class Stage {
  private shown: Layer | null = null;
  private prepared: { media: string; layer: Promise<Layer> } | null = null;

  constructor(
    private readonly root: HTMLElement,
    private readonly open: (sha256: string) => Promise<Blob | null>,
  ) {}

  /** Loads and decodes an item ahead of its turn. */
  prepare(media: string, asset: Asset): void {
    if (this.prepared?.media === media) return;
    this.drop(this.prepared?.layer);
    const layer = this.load(media, asset);
    layer.catch(() => undefined);
    this.prepared = { media, layer };
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
    this.drop(this.prepared?.layer);
    this.prepared = null;
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

  private async load(media: string, asset: Asset): Promise<Layer> {
    const blob = await this.open(asset.sha256);
    if (!blob) throw new Error(`"${media}" is not here yet.`);
    const url = URL.createObjectURL(blob);
    const element = elementFor(asset.kind);
    element.hidden = true;
    element.className = 'layer';
    try {
      if (element instanceof HTMLVideoElement) {
        element.muted = true;
        element.playsInline = true;
        element.preload = 'auto';
        await new Promise<void>((resolve, reject) => {
          element.addEventListener('canplay', () => resolve(), { once: true });
          element.addEventListener('error', () => reject(new Error(element.error?.message ?? 'no reason given')), {
            once: true,
          });
          element.src = url;
        });
      } else {
        element.src = url;
        await element.decode();
      }
    } catch (error) {
      URL.revokeObjectURL(url);
      throw new Error(
        `"${media}" can not be played here: ${error instanceof Error ? error.message : 'no reason given'}`,
        { cause: error },
      );
    }
    this.root.append(element);
    return { media, element, url };
  }

  private remove(layer: Layer | null): void {
    if (!layer) return;
    layer.element.remove();
    URL.revokeObjectURL(layer.url);
  }

  private drop(layer: Promise<Layer> | undefined): void {
    layer?.then((loaded) => this.remove(loaded)).catch(() => undefined);
  }
}

function elementFor(kind: Asset['kind']): HTMLVideoElement | HTMLImageElement {
  switch (kind) {
    case 'video':
      return document.createElement('video');
    case 'image':
      return document.createElement('img');
    default:
      return never(kind);
  }
}
