/** Widths of letters at 13 px type, about: those of scripts that are written in squares are twice as wide. */
const LETTER = 6.5;
const SQUARE = 13;
const isSquare = (letter: string) => (letter.codePointAt(0) ?? 0) >= 0x2e80;

/** How wide a name stands, about, in pixels. */
export const nameWidth = (name: string) =>
  [...name].reduce((sum, letter) => sum + (isSquare(letter) ? SQUARE : LETTER), 0);

/**
 * As much of a name as fits in `width` pixels. Cut by letters, not by the browser: thousands of boxes that each clip their
 * text would slow down every frame of a drag.
 */
export function fitted(name: string, width: number): string {
  if (nameWidth(name) <= width) return name;
  let cut = '';
  for (const letter of name) {
    if (nameWidth(cut + letter) > width - LETTER) break;
    cut += letter;
  }
  return cut === '' ? '' : `${cut.trimEnd()}…`;
}
