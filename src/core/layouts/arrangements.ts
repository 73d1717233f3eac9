import type { Placed, Size } from './frame';

/** Ways to begin a layout, by what people call them. */
export const ARRANGEMENTS = {
  whole: 'One zone',
  side: 'Main and side',
  foot: 'Main and foot line',
  'head-foot': 'Head, main and foot',
  halves: 'Halves',
  thirds: 'Thirds',
  inset: 'Picture in picture',
  grid: 'Grid of four',
} as const;
export type Arrangement = keyof typeof ARRANGEMENTS;

/** In twelfths of the layout, on screens that are wider than high; `tall` on the others, where it differs. */
type Parts = readonly (readonly [id: string, x: number, y: number, width: number, height: number])[];

const PARTS: Readonly<Record<Arrangement, { readonly wide: Parts; readonly tall?: Parts }>> = {
  whole: { wide: [['main', 0, 0, 12, 12]] },
  side: {
    wide: [
      ['main', 0, 0, 9, 12],
      ['side', 9, 0, 3, 12],
    ],
    tall: [
      ['main', 0, 0, 12, 9],
      ['side', 0, 9, 12, 3],
    ],
  },
  foot: {
    wide: [
      ['main', 0, 0, 12, 10],
      ['foot', 0, 10, 12, 2],
    ],
    tall: [
      ['main', 0, 0, 12, 11],
      ['foot', 0, 11, 12, 1],
    ],
  },
  'head-foot': {
    wide: [
      ['head', 0, 0, 12, 2],
      ['main', 0, 2, 12, 8],
      ['foot', 0, 10, 12, 2],
    ],
    tall: [
      ['head', 0, 0, 12, 1],
      ['main', 0, 1, 12, 10],
      ['foot', 0, 11, 12, 1],
    ],
  },
  halves: {
    wide: [
      ['left', 0, 0, 6, 12],
      ['right', 6, 0, 6, 12],
    ],
    tall: [
      ['top', 0, 0, 12, 6],
      ['bottom', 0, 6, 12, 6],
    ],
  },
  thirds: {
    wide: [
      ['left', 0, 0, 4, 12],
      ['middle', 4, 0, 4, 12],
      ['right', 8, 0, 4, 12],
    ],
    tall: [
      ['top', 0, 0, 12, 4],
      ['middle', 0, 4, 12, 4],
      ['bottom', 0, 8, 12, 4],
    ],
  },
  inset: {
    wide: [
      ['main', 0, 0, 12, 12],
      ['inset', 7.4, 7.4, 4, 4],
    ],
  },
  grid: {
    wide: [
      ['top-left', 0, 0, 6, 6],
      ['top-right', 6, 0, 6, 6],
      ['bottom-left', 0, 6, 6, 6],
      ['bottom-right', 6, 6, 6, 6],
    ],
  },
};

/** The zones of an arrangement in a layout of some size, without content. Those side by side share their borders to a pixel. */
export function arranged(arrangement: Arrangement, { width, height }: Size): Placed[] {
  const { wide, tall } = PARTS[arrangement];
  return (height > width ? (tall ?? wide) : wide).map(([id, left, top, across, down]) => {
    const at = (twelfths: number, whole: number) => Math.round((twelfths * whole) / 12);
    const [x, y] = [at(left, width), at(top, height)];
    return { id, x, y, width: at(left + across, width) - x, height: at(top + down, height) - y };
  });
}
