import type { LoopItem, ShownAsset } from '@/core/playing';
import type { Drawer, Drawn, FilmPosition } from './drawers/drawn';
import { Films } from './drawers/film';
import { drawPicture } from './drawers/picture';
import { begin, type Running } from './transition';

/**
 * A file, or something else that makes itself ready to be seen; by the name under which it is reported. `version` is all of the program that it is drawn
 * from: if that differs, it is drawn again.
 */
export type Thing =
  | { readonly name: string; readonly version?: undefined; readonly asset: ShownAsset }
  | { readonly name: string; readonly version: string; readonly draw: () => Promise<Drawn> };

/** One thing, loaded and decoded, ready to be seen at once. */
interface Layer {
  readonly media: string;
  readonly drawn: Drawn;
  readonly url: string;
  readonly sha256: string;
  readonly focus: ShownAsset['focus'];
}

/** How a turn looks and sounds; absent: a cut, whole, silent. */
export type Look = Pick<LoopItem, 'transition' | 'fit' | 'volume'>;

/** What is made ready ahead of its turn; `given` ends it. */
interface Prepared {
  readonly media: string;
  readonly version: string | undefined;
  readonly fromMs: number;
  readonly layer: Promise<Layer>;
  readonly given: AbortController;
}

/** What is seen, and where a film stands. */
export interface Seen {
  readonly media: string;
  readonly film: FilmPosition | null;
}

/**
 * Two layers, one shown and one prepared, drawn by the drawer of their kind (`drawers/`). Nothing is shown before it can be drawn, so the
 * screen is never blank between two.
 */
export class Stage {
  private shown: Layer | null = null;
  private prepared: Prepared | null = null;
  /** The film shown last is kept as it is. If it comes next again, as with two in turn, it needn't be loaded. */
  private kept: Layer | null = null;
  /** What goes and what comes, while one gives way to the other. */
  private changing: { readonly running: Running; readonly before: Layer } | null = null;
  private readonly drawers: { readonly [kind in ShownAsset['kind']]: Drawer };

  /** Whether other displays show the same beside this one: films are held to the same frame. */
  isInStep = false;

  /** `tell` hears what a person should know, once; `pixels` is how many of the screen's a browser counts as one. */
  constructor(
    private readonly root: HTMLElement,
    private readonly open: (sha256: string) => Promise<Blob | null>,
    private readonly tell: (message: string) => void = () => undefined,
    private readonly pixels = () => window.devicePixelRatio,
  ) {
    this.drawers = { image: drawPicture, video: new Films(tell, () => this.isInStep).draw };
  }

  /**
   * Loads and decodes an item ahead of its turn, a film at the moment that it will begin with, in milliseconds of its own. Resolves when it
   * is ready, or can't be.
   */
  prepare(thing: Thing, fromMs = 0): Promise<void> {
    const { name: media, version } = thing;
    let { prepared } = this;
    if (prepared?.media !== media || prepared.fromMs !== fromMs || prepared.version !== version) {
      this.drop();
      const given = new AbortController();
      prepared = { media, version, fromMs, layer: this.load(thing, fromMs, given.signal), given };
      this.prepared = prepared;
    }
    return prepared.layer.then(
      () => undefined,
      () => undefined,
    );
  }

  /**
   * Shows an item, a film from `offsetMs()` on; `turnMs()` is how long its turn has been going, in which its transition lies. Throws where it
   * can't be loaded or decoded; what was seen then stays. Where `wanted` is no longer true once it is loaded, nothing happens.
   */
  async show(
    thing: Thing,
    offsetMs: () => number,
    wanted: () => boolean,
    look: Look = {},
    turnMs: () => number = offsetMs,
  ): Promise<void> {
    const { name: media, version } = thing;
    const { prepared } = this;
    const isReady = prepared?.media === media && prepared.version === version;
    if (isReady) this.prepared = null;
    const layer = await (isReady ? prepared.layer : this.load(thing));
    dress(layer, look, this.pixels());
    if (wanted()) await this.start(layer, offsetMs, look.volume ?? 0);
    if (!wanted()) return this.remove(layer);
    this.settle();
    layer.drawn.element.hidden = false;
    const before = this.shown;
    this.shown = layer;
    this.root.dataset.media = media;
    before?.drawn.hush();
    this.change(before, layer, look, turnMs());
  }

  /** Lets one give way to the other; what goes stays under what comes until that is all to be seen. */
  private change(before: Layer | null, after: Layer, { transition }: Look, turnMs: number): void {
    const running = before && begin(transition, before.drawn.element, after.drawn.element, turnMs);
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

  /** A stage in another element, for a part of what this one shows. */
  another(root: HTMLElement): Stage {
    const stage = new Stage(root, this.open, this.tell, this.pixels);
    stage.isInStep = this.isInStep;
    return stage;
  }

  /** What is seen is no longer heard. */
  hush(): void {
    this.shown?.drawn.hush();
  }

  /** What is seen now; null for nothing of ours. */
  seen(): Seen | null {
    return this.shown && { media: this.shown.media, film: this.shown.drawn.position() };
  }

  /** It comes to be seen. What can't is removed. */
  private async start(layer: Layer, offsetMs: () => number, volume: number): Promise<void> {
    try {
      await layer.drawn.begin(offsetMs, volume);
    } catch (error) {
      this.remove(layer);
      throw error;
    }
  }

  private async load(thing: Thing, fromMs = 0, given?: AbortSignal): Promise<Layer> {
    if ('draw' in thing)
      return this.add({ media: thing.name, drawn: await thing.draw(), url: '', sha256: '', focus: undefined });
    const { name: media, asset } = thing;
    const kept = this.takeKept(asset.sha256);
    if (kept) return this.again(media, kept, fromMs, given);
    const blob = await this.open(asset.sha256);
    if (!blob) throw new Error(`“${media}” isn’t downloaded yet.`);
    const url = URL.createObjectURL(blob);
    try {
      const drawn = await this.drawers[asset.kind](url, fromMs, given);
      return this.add({ media, drawn, url, sha256: asset.sha256, focus: asset.focus });
    } catch (error) {
      URL.revokeObjectURL(url);
      throw new Error(
        `“${media}” can’t be played here: ${error instanceof Error ? error.message : 'the browser gave no reason'}`,
        { cause: error },
      );
    }
  }

  private add(layer: Layer): Layer {
    const { element } = layer.drawn;
    element.hidden = true;
    element.className = 'layer';
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

  /** What was kept, made ready for its next turn. */
  private async again(media: string, kept: Layer, fromMs: number, given?: AbortSignal): Promise<Layer> {
    const layer: Layer = { ...kept, media };
    const { element } = layer.drawn;
    element.hidden = true;
    try {
      await layer.drawn.again(fromMs, given);
    } catch (error) {
      this.remove(layer);
      throw error;
    }
    this.root.append(element);
    return layer;
  }

  /** What was seen goes: a film is kept as it is until it is known what comes next. */
  private keep(layer: Layer | null): void {
    if (!layer?.drawn.isKept || this.kept) return this.remove(layer);
    layer.drawn.rest();
    layer.drawn.element.remove();
    this.kept = layer;
  }

  /** Takes a layer away, and gives back at once what it holds. */
  private remove(layer: Layer | null): void {
    if (!layer) return;
    layer.drawn.element.remove();
    layer.drawn.free();
    if (layer.url !== '') URL.revokeObjectURL(layer.url);
  }

  private drop(): void {
    const { prepared } = this;
    this.prepared = null;
    prepared?.given.abort(new Error('another is wanted'));
    prepared?.layer.then((loaded) => this.remove(loaded)).catch(() => undefined);
  }
}

/** How a browser fits a picture into a box, for each of our fits. */
const OBJECT_FIT = { whole: 'contain', fill: 'cover', stretch: 'fill', exact: 'none' } as const;

/** Places a layer on the whole stage as its turn says. If it is cropped, its focus stays visible. */
function dress(
  { drawn: { element }, focus: [x, y] = [0.5, 0.5] }: Layer,
  { fit = 'whole' }: Look,
  ratio: number,
): void {
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
