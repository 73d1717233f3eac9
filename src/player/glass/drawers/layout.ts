import type { ProgramDocument } from '@/core/playing';
import type { Drawn } from './drawn';

type Layout = NonNullable<ProgramDocument['layouts']>[string];
type Fit = NonNullable<ProgramDocument['loops'][number][number]['fit']>;

/** One zone on the glass: its own stage, held to its own timeline. */
export interface Pane {
  /** Makes ready what it shows first. Never throws: what can't be shown leaves the zone as it is. */
  ready(): Promise<void>;
  /** What it shows from now on is seen. Resolves when that is so, or can't be. */
  play(): Promise<void>;
  hush(): void;
  free(): void;
}

/** A zone that takes longer than this to load, or to begin, comes later: no zone waits for another. In milliseconds. */
const READY_MS = 3000;
const BEGIN_MS = 500;

async function atMost(ms: number, work: Promise<void>): Promise<void> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  await Promise.race([work, new Promise<void>((late) => (timer = setTimeout(late, ms)))]);
  clearTimeout(timer);
}

/** Draws a layout: its zones in their places, a later one above an earlier one. `pane` makes what a zone shows, in its element. */
export async function drawLayout(
  layout: Layout,
  fit: Fit,
  pane: (zone: string, root: HTMLElement) => Pane,
): Promise<Drawn> {
  const element = document.createElement('div');
  element.dataset.layout = '';
  element.style.containerType = 'size';
  if (layout.background !== undefined) element.style.background = layout.background;
  const box = element.appendChild(document.createElement('div'));
  Object.assign(box.style, { position: 'absolute', left: '50%', top: '50%', translate: '-50% -50%' });
  sizeBox(box, layout, fit);
  const panes = layout.zones.map(({ id, x, y, width, height }) => {
    const root = box.appendChild(document.createElement('div'));
    root.className = 'zone';
    root.dataset.zone = id;
    const share = (part: number, whole: number) => `${(100 * part) / whole}%`;
    Object.assign(root.style, {
      left: share(x, layout.width),
      top: share(y, layout.height),
      width: share(width, layout.width),
      height: share(height, layout.height),
    });
    return pane(id, root);
  });
  await Promise.all(panes.map((one) => atMost(READY_MS, one.ready())));
  return {
    element,
    isKept: false,
    begin: async () => void (await Promise.all(panes.map((one) => atMost(BEGIN_MS, one.play())))),
    hush: () => panes.forEach((one) => one.hush()),
    rest: () => undefined,
    again: () => Promise.resolve(),
    position: () => null,
    free: () => panes.forEach((one) => one.free()),
  };
}

/** Sizes the layout's box on a screen of any shape: whole within it, filling it, stretched to it, or pixel for pixel. */
function sizeBox({ style }: HTMLElement, { width, height }: Layout, fit: Fit): void {
  if (fit === 'stretch') return void Object.assign(style, { width: '100%', height: '100%' });
  if (fit === 'exact') return void Object.assign(style, { width: `${width}px`, height: `${height}px` });
  const least = fit === 'whole' ? 'min' : 'max';
  Object.assign(style, {
    width: `${least}(100cqw, calc(100cqh * ${width} / ${height}))`,
    height: `${least}(100cqh, calc(100cqw * ${height} / ${width}))`,
  });
}
