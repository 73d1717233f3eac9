/** Small pieces of SVG that the demo's pictures are put together from. */

export const INK = '#1B2330';
export const PAPER = '#FAF7F0';
export const DUSK = '#34406B';
export const LAMP = '#E3A008';
export const TIDE = '#1C7C8C';
export const BRICK = '#B4472E';

export interface Palette {
  readonly sky: readonly [string, string];
  readonly sea: string;
  readonly text: string;
  readonly accent: string;
}

export const PALETTES = {
  dawn: { sky: ['#F6C992', '#FBE9CF'], sea: '#4A7F8C', text: INK, accent: BRICK },
  day: { sky: ['#9CCBD6', '#E6F1EE'], sea: TIDE, text: INK, accent: DUSK },
  dusk: { sky: ['#2B3358', '#C77B5B'], sea: '#1F3A52', text: PAPER, accent: LAMP },
  night: { sky: ['#0D1420', '#22355A'], sea: '#0F2233', text: PAPER, accent: '#7FD0B5' },
  storm: { sky: ['#4D4F57', '#8B8F95'], sea: '#33414B', text: PAPER, accent: LAMP },
  paper: { sky: [PAPER, '#EFE9DC'], sea: '#D8D0BF', text: INK, accent: TIDE },
} as const satisfies Record<string, Palette>;

const FONT = 'Noto Sans, DejaVu Sans, sans-serif';
const HEAVY = 'Noto Sans Display, Noto Sans, DejaVu Sans, sans-serif';

const escape = (text: string) =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c] ?? c);

export function text(
  x: number,
  y: number,
  size: number,
  content: string,
  fill: string,
  options: { weight?: number; anchor?: 'start' | 'middle' | 'end'; spacing?: number } = {},
): string {
  const { weight = 400, anchor = 'start', spacing = 0 } = options;
  return `<text x="${x}" y="${y}" font-family="${weight >= 700 ? HEAVY : FONT}" font-weight="${weight}" font-size="${size}" fill="${fill}" text-anchor="${anchor}" letter-spacing="${spacing}">${escape(content)}</text>`;
}

/** Breaks a text into lines of at most `columns` letters. */
export function lines(content: string, columns: number): string[] {
  const result: string[] = [''];
  for (const word of content.split(' ')) {
    const last = result.at(-1) ?? '';
    if (last && last.length + word.length + 1 > columns) result.push(word);
    else result[result.length - 1] = last ? `${last} ${word}` : word;
  }
  return result;
}

export function sky(width: number, height: number, { sky: [top, bottom] }: Palette): string {
  return `<defs><linearGradient id="sky" x2="0" y2="1"><stop stop-color="${top}"/><stop offset="1" stop-color="${bottom}"/></linearGradient></defs><rect width="${width}" height="${height}" fill="url(#sky)"/>`;
}

/** Water from `top` down, with rows of waves. */
export function sea(width: number, height: number, top: number, color: string): string {
  const rows = Array.from({ length: 6 }, (_, i) => {
    const y = top + ((height - top) * (i + 0.4)) / 6;
    const step = width / 9;
    const wave = Array.from({ length: 11 }, () => `q${step / 4} ${-step / 9} ${step / 2} 0 t${step / 2} 0`).join('');
    return `<path d="M${-step + (i % 2) * (step / 2)} ${y}${wave}" fill="none" stroke="#fff" stroke-opacity="${0.1 + i * 0.03}" stroke-width="${height / 240}"/>`;
  });
  return `<rect y="${top}" width="${width}" height="${height - top}" fill="${color}"/>${rows.join('')}`;
}

export function islands(width: number, top: number, size: number, color: string): string {
  const hill = (x: number, w: number, h: number) =>
    `<path d="M${x} ${top}q${w * 0.3} ${-h * 1.6} ${w * 0.55} ${-h * 0.5} t${w * 0.45} ${h * 0.5}z" fill="${color}" fill-opacity=".75"/>`;
  return (
    hill(width * 0.04, width * 0.34, size) +
    hill(width * 0.62, width * 0.42, size * 0.7) +
    hill(width * 0.3, width * 0.22, size * 0.45)
  );
}

/** A ferry of the line, `length` long, its waterline at (x, y). */
export function ferry(x: number, y: number, length: number, hull = DUSK): string {
  const u = length / 100;
  const windows = Array.from(
    { length: 11 },
    (_, i) => `<rect x="${16 + i * 6}" y="-21" width="3.4" height="3" fill="${LAMP}"/>`,
  ).join('');
  return `<g transform="translate(${x} ${y}) scale(${u})">
    <path d="M0 -10h100l-7 14H10z" fill="${hull}"/><path d="M3 -4h94l-1.500 3H4.500z" fill="${BRICK}"/>
    <path d="M8 -18h78l5 8H8z" fill="${PAPER}"/><path d="M12 -25h62l5 7H12z" fill="#E8E1D2"/><path d="M18 -31h30l4 6H18z" fill="${PAPER}"/>
    ${windows}<path d="M58 -37h10l1.500 12H56z" fill="${hull}"/><path d="M57.200 -33h11.800v3H56.800z" fill="${LAMP}"/>
    <path d="M28 -31v-9M28 -40l7 2.500-7 2.500z" stroke="${INK}" stroke-width=".7" fill="${BRICK}"/>
    <path d="M-6 6q6 -4 12 0t12 0 12 0 12 0 12 0 12 0 12 0 12 0 12 0" fill="none" stroke="#fff" stroke-opacity=".6" stroke-width="1.300"/></g>`;
}

/** The line's mark: a tern over a ring. */
export function mark(x: number, y: number, size: number, ink: string, accent: string): string {
  const u = size / 100;
  return `<g transform="translate(${x} ${y}) scale(${u})"><circle r="46" fill="none" stroke="${ink}" stroke-width="6"/><path d="M-38 6C-20 -22 -8 -14 0 -2 8 -16 26 -26 40 -14 24 -12 12 0 4 12L0 26 -4 12C-14 0 -24 2 -38 6z" fill="${accent}"/></g>`;
}

export function lamp(x: number, y: number, size: number): string {
  const u = size / 40;
  return `<g transform="translate(${x} ${y}) scale(${u})"><circle r="30" fill="${LAMP}" opacity=".22"/><path d="M-9 -18h18l4 34h-26zM0 -30v12" fill="none" stroke="${PAPER}" stroke-width="2.500"/><path d="M0 -12c7 8 7 12 7 17a7 7 0 0 1-14 0c0-5 0-9 7-17z" fill="${LAMP}"/></g>`;
}

export function svg(width: number, height: number, ...parts: string[]): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${parts.join('')}</svg>`;
}
