import type { Size } from './frame';

/**
 * Whether people can read what a zone shows from some metres away. A letter has to be 16 minutes of arc high at least: from memory, ISO 9241-303
 * (its least height; 20 to 22 are comfortable).
 */
const LEAST_ARC_MINUTES = 16;
/** A capital letter's share of the size of its type: common practice, no source. */
const CAPITALS = 0.7;
/** The smallest writing in pictures that are made for whole screens: a sixteenth of their height. Common practice, no source. */
const SMALL_PRINT = 1 / 16;
/** What is reckoned with where a screen doesn't say how large it is: 43 inches across its corners. Common practice, no source. */
export const USUAL_INCHES = 43;
export const READ_FROM_M = 5;

/** The least height of a capital letter, in millimetres, that is read from so many metres. */
export const leastLetterMm = (metres: number): number =>
  2 * metres * 1000 * Math.tan((LEAST_ARC_MINUTES / 60 / 2) * (Math.PI / 180));

/** Millimetres of a pixel of a screen: by its wall's displays, or as on a display of the usual size. */
export function pixelMm({
  width,
  height,
  wall,
}: Size & { readonly wall?: { readonly columns: number; readonly widthMm: number } | undefined }): number {
  return wall ? (wall.columns * wall.widthMm) / width : (USUAL_INCHES * 25.4) / Math.hypot(width, height);
}

/** How high capitals of a text are when it is as large as all of it fits into a zone, in pixels: an estimate, by letters of average width. */
export function capitalsPx(text: string, { width, height }: Size): number {
  for (let size = height / 3; size >= 1; size *= 0.9) {
    const across = Math.floor((width - 0.8 * size) / (0.52 * size));
    if (across < 1) continue;
    const lines = text.split('\n').reduce((sum, line) => sum + Math.max(1, Math.ceil(line.length / across)), 0);
    if (lines * 1.25 * size + 0.8 * size <= height) return size * CAPITALS;
  }
  return CAPITALS;
}

/** How high the small print of a picture is when it is shown whole in a zone, in pixels. */
export const smallPrintPx = (picture: Size, zone: Size): number =>
  SMALL_PRINT * picture.height * Math.min(zone.width / picture.width, zone.height / picture.height);
