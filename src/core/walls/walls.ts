import type { Screen } from '../plan';

/** Walls: several displays that show one picture, each its own part of it. */

export type Wall = NonNullable<Screen['wall']>;

/** One display of a wall: where it hangs, and which part of the picture it shows, in shares of the whole picture. */
export interface Part {
  /** From 1 on: along the first row from the left, then the next. */
  readonly number: number;
  /** From 1 on, from the top. */
  readonly row: number;
  /** From 1 on, from the left. */
  readonly column: number;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

export const isWall = <S extends Pick<Screen, 'wall'>>(screen: S): screen is S & { readonly wall: Wall } =>
  screen.wall !== undefined;

/** How many displays a screen has: 1 for one that isn't a wall. */
export const partCount = ({ wall }: Pick<Screen, 'wall'>): number => (wall ? wall.rows * wall.columns : 1);

/**
 * A display of a wall by its number, or null if the wall has no such display. The picture goes on behind the frames of the displays, so that
 * straight lines stay straight: what lies behind them isn't seen.
 */
export function partAt({ rows, columns, widthMm, heightMm, betweenMm }: Wall, number: number): Part | null {
  if (!Number.isInteger(number) || number < 1 || number > rows * columns) return null;
  const row = Math.ceil(number / columns);
  const column = number - (row - 1) * columns;
  const across = columns * widthMm + (columns - 1) * betweenMm;
  const down = rows * heightMm + (rows - 1) * betweenMm;
  return {
    ...{ number, row, column },
    left: ((column - 1) * (widthMm + betweenMm)) / across,
    top: ((row - 1) * (heightMm + betweenMm)) / down,
    width: widthMm / across,
    height: heightMm / down,
  };
}

/** All displays of a wall, in the order of their numbers. */
export const partsOf = (wall: Wall): Part[] =>
  Array.from({ length: wall.rows * wall.columns }, (_, i) => partAt(wall, i + 1)).filter((part) => part !== null);

/** "row 2, column 3" */
export const partName = ({ row, column }: Pick<Part, 'row' | 'column'>): string => `row ${row}, column ${column}`;

/** The whole picture of a wall, in pixels, if each display has so many: what lies behind the frames counts too. */
export function shapeOf(
  { rows, columns, widthMm, heightMm, betweenMm }: Wall,
  display: { readonly width: number; readonly height: number },
): { readonly width: number; readonly height: number } {
  return {
    width: Math.round(display.width * (columns + ((columns - 1) * betweenMm) / widthMm)),
    height: Math.round(display.height * (rows + ((rows - 1) * betweenMm) / heightMm)),
  };
}
