import type { ScreenState } from '@/services/screens';

/** One stroke of a lantern. */
interface Stroke {
  readonly d: string;
  readonly fill?: 'ink' | 'flame';
  readonly dashed?: true;
}

const BODY: Stroke = { d: 'M7 6h6l1.6 11H5.4zM10 2.2V6' };

/** A screen's state as a lantern of its own shape: flame with halo, half flame, empty, crescent, hook without lantern. */
export const LANTERN_STROKES: Record<ScreenState, readonly Stroke[]> = {
  lit: [BODY, { d: 'M10 7.6c2.2 2.4 2.2 3.4 2.2 4.6a2.2 2.2 0 0 1-4.4 0c0-1.2 0-2.2 2.2-4.6z', fill: 'flame' }],
  behind: [BODY, { d: 'M10 7.6v6.8a2.2 2.2 0 0 1-2.2-2.2c0-1.2 0-2.2 2.2-4.6z', fill: 'ink' }],
  dark: [BODY],
  resting: [{ d: 'M13.5 3.5a7.2 7.2 0 1 0 3.2 10.2A6 6 0 0 1 13.5 3.5z' }],
  unpaired: [{ d: 'M10 2.5v4.2a2 2 0 1 1-2 2M4 17.5h12', dashed: true }],
};

export const FLAME = '#e3a008';
export const FLAME_EDGE = '#7a5300';

/** Ink on paper: small marks over pictures look the same by day and by night. */
const [PAPER, INK] = ['#faf7f0', '#1b2330'];

function image(state: ScreenState): string {
  const strokes = LANTERN_STROKES[state].map(({ d, fill, dashed }) =>
    fill === 'flame'
      ? `<path d="${d}" fill="${FLAME}" stroke="${FLAME_EDGE}" stroke-width=".6"/>`
      : fill === 'ink'
        ? `<path d="${d}" fill="${INK}"/>`
        : `<path d="${d}" fill="none" stroke="${INK}" stroke-width="1.4"${dashed ? ' stroke-dasharray="2.2 1.8"' : ''}/>`,
  );
  const halo = state === 'lit' ? `<circle cx="10" cy="11.5" r="8.2" fill="${FLAME}" opacity=".32"/>` : '';
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="-2 -2 24 24"><path fill="${PAPER}" d="M-2-2h24v24h-24z"/>${halo}${strokes.join('')}</svg>`;
  return `url("data:image/svg+xml,${encodeURIComponent(svg)}")`;
}

/**
 * Rules that put each state's lantern as an image after elements of a class with that `data-state`. Rules and not variables: the
 * image is then read once, and not for each of thousands of tiles.
 */
export const lanternRules = (className: string): string =>
  (Object.keys(LANTERN_STROKES) as ScreenState[])
    .map((state) => `.${className}[data-state='${state}']::after{background-image:${image(state)}}`)
    .join('\n');
