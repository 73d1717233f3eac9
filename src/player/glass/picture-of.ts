/** Draws what is seen into a small picture, for people who are far away. */

/** Its longer side, in pixels. */
const LONGER_SIDE = 640;
const QUALITY = 0.75;

/**
 * What is seen of a stage on its glass, the element around it: its layers as they are at this moment, and what lies over them, the lowest first.
 * Resolves to a JPEG.
 */
export async function pictureOf(stage: HTMLElement, over: readonly HTMLElement[]): Promise<Uint8Array<ArrayBuffer>> {
  const { offsetWidth: width = 0, offsetHeight: height = 0 } = stage.parentElement ?? {};
  const scale = LONGER_SIDE / Math.max(width, height, 1);
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(width * scale));
  canvas.height = Math.max(1, Math.round(height * scale));
  const context = canvas.getContext('2d', { alpha: false });
  if (!context || width === 0) throw new Error('The browser can’t draw a picture of this page.');
  context.scale(scale, scale);
  fill(context, getComputedStyle(stage.parentElement ?? stage).backgroundColor, [0, 0, width, height]);
  // A display of a wall shows a part of a larger stage.
  context.save();
  context.translate(stage.offsetLeft, stage.offsetTop);
  drawStage(context, stage);
  for (const overlay of stage.querySelectorAll<HTMLElement>(':scope > .overlay')) drawStage(context, overlay);
  context.restore();
  for (const element of over) drawCover(context, element);
  return bytesOf(canvas);
}

/** The layers of a stage, of its own and not of the zones within. */
function drawStage(context: CanvasRenderingContext2D, stage: HTMLElement): void {
  const layers = [...stage.querySelectorAll<HTMLElement>(':scope > .layer:not([hidden])')];
  // What comes lies over what goes.
  layers.sort((a, b) => Number(a.style.zIndex) - Number(b.style.zIndex));
  const { offsetWidth: width, offsetHeight: height } = stage;
  for (const layer of layers)
    if (layer.dataset.card !== undefined) drawCover(context, layer);
    else if (layer.dataset.layout !== undefined) drawZones(context, layer, width, height);
    else if (layer.querySelector(':scope > .layer')) drawStage(context, layer);
    else drawLayer(context, layer, width, height);
}

/** A layout: its ground, and what each of its zones shows, within it. */
function drawZones(context: CanvasRenderingContext2D, layer: HTMLElement, width: number, height: number): void {
  context.save();
  context.globalAlpha = Number(getComputedStyle(layer).opacity);
  fill(context, getComputedStyle(layer).backgroundColor, [0, 0, width, height]);
  const box = layer.firstElementChild as HTMLElement;
  // It lies in the middle, whatever its size.
  context.translate((width - box.offsetWidth) / 2, (height - box.offsetHeight) / 2);
  for (const zone of box.querySelectorAll<HTMLElement>(':scope > .zone')) {
    context.save();
    context.translate(zone.offsetLeft, zone.offsetTop);
    context.beginPath();
    context.rect(0, 0, zone.offsetWidth, zone.offsetHeight);
    context.clip();
    drawStage(context, zone);
    context.restore();
  }
  context.restore();
}

function drawLayer(context: CanvasRenderingContext2D, layer: HTMLElement, width: number, height: number): void {
  const style = getComputedStyle(layer);
  const [mediaWidth, mediaHeight] =
    layer instanceof HTMLVideoElement
      ? [layer.videoWidth, layer.videoHeight]
      : layer instanceof HTMLImageElement
        ? [layer.naturalWidth, layer.naturalHeight]
        : [0, 0];
  if (mediaWidth === 0 || mediaHeight === 0) return;
  context.save();
  // Within a transition it is moved, cut or seen through.
  const moved = /^(-?[\d.]+)(%|px)/.exec(style.translate);
  if (moved) context.translate(Number(moved[1]) * (moved[2] === '%' ? width / 100 : 1), 0);
  const cut = /inset\(\S+ \S+ \S+ ([\d.]+)%\)/.exec(style.clipPath);
  const left = cut ? (Number(cut[1]) / 100) * width : 0;
  context.beginPath();
  context.rect(left, 0, width - left, height);
  context.clip();
  context.globalAlpha = Number(style.opacity);
  fill(context, '#000', [0, 0, width, height]);
  // The layer is as large as a picture that is shown pixel for pixel needs it, and scaled back.
  const own = Number(style.scale) || 1;
  const [x, y] = style.objectPosition.split(' ').map((part) => Number.parseFloat(part) / 100) as [number, number];
  const across = width / mediaWidth;
  const down = height / mediaHeight;
  const scales: Readonly<Record<string, readonly [number, number]>> = {
    cover: [Math.max(across, down), Math.max(across, down)],
    fill: [across, down],
    none: [own, own],
  };
  const [sx, sy] = scales[style.objectFit] ?? [Math.min(across, down), Math.min(across, down)];
  const [w, h] = [mediaWidth * sx, mediaHeight * sy];
  context.drawImage(layer as HTMLImageElement | HTMLVideoElement, (width - w) * x, (height - h) * y, w, h);
  context.restore();
}

/** A box over the stage: its colour, and its words in their middle. */
function drawCover(context: CanvasRenderingContext2D, element: HTMLElement): void {
  const style = getComputedStyle(element);
  if (element.hidden || style.display === 'none') return;
  const { offsetLeft: left, offsetTop: top, offsetWidth: width, offsetHeight: height } = element;
  fill(context, style.backgroundColor, [left, top, width, height]);
  const lines = element.innerText.split('\n').filter((line) => line.trim() !== '');
  const size = Math.min(height / (lines.length + 1), width / 12);
  context.fillStyle = style.color;
  context.font = `600 ${size}px sans-serif`;
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  for (const [i, line] of lines.entries())
    context.fillText(line, left + width / 2, top + (height * (i + 1)) / (lines.length + 1), width);
}

function fill(
  context: CanvasRenderingContext2D,
  colour: string,
  [x, y, width, height]: readonly [number, number, number, number],
): void {
  context.fillStyle = colour;
  context.fillRect(x, y, width, height);
}

async function bytesOf(canvas: HTMLCanvasElement): Promise<Uint8Array<ArrayBuffer>> {
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', QUALITY));
  if (!blob) throw new Error('The browser can’t make a picture of this page.');
  return new Uint8Array(await blob.arrayBuffer());
}
