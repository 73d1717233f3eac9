/** Comparing pictures of the glass by their colours in coarse fields: exact pixels differ with each scaling and each codec. */

/** A picture's bytes: red, green and blue of each pixel, row by row from the top left. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

/** So many fields a picture has across, and down. */
export const FIELDS = 8;

/** The mean colour of each field: red, green and blue from 0 to 255, row by row. */
export type Fields = readonly (readonly [red: number, green: number, blue: number])[];

/** The mean colours of a picture's fields. It must be at least 8 × 8 pixels large: throws RangeError for a smaller one. */
export function fieldsOf({ width, height, data }: Pixels): Fields {
  if (width < FIELDS || height < FIELDS) throw new RangeError(`A picture of ${width} × ${height} has too few pixels.`);
  return Array.from({ length: FIELDS * FIELDS }, (_, field) => {
    const [left, right] = bounds(field % FIELDS, width);
    const [top, bottom] = bounds(Math.floor(field / FIELDS), height);
    const sum = [0, 0, 0] as [number, number, number];
    for (let y = top; y < bottom; y++)
      for (let x = left; x < right; x++)
        for (const c of [0, 1, 2] as const) sum[c] += data[(y * width + x) * 3 + c] ?? 0;
    const pixels = (right - left) * (bottom - top);
    return [sum[0] / pixels, sum[1] / pixels, sum[2] / pixels] as const;
  });
}

/** The fields of a picture that a box within it lies in, in order; all in pixels. */
export function fieldsIn(
  box: { readonly left: number; readonly top: number; readonly width: number; readonly height: number },
  { width, height }: Pick<Pixels, 'width' | 'height'>,
): number[] {
  const within = (from: number, length: number, whole: number) => {
    const first = Math.floor((FIELDS * from) / whole);
    return Array.from({ length: Math.ceil((FIELDS * (from + length)) / whole) - first }, (_, i) => first + i);
  };
  const columns = within(box.left, box.width, width);
  return within(box.top, box.height, height).flatMap((row) => columns.map((column) => row * FIELDS + column));
}

const bounds = (field: number, size: number): [number, number] => [
  Math.floor((field * size) / FIELDS),
  Math.floor(((field + 1) * size) / FIELDS),
];

/**
 * How a picture of the glass compares with what should be there. `unsure`: it was taken during a transition, and
 * looks like neither of the two, nor like a mixture.
 */
export type Verdict = 'alike' | 'differs' | 'black' | 'unsure';

/** A field whose colour is farther away than this shows something else. Scaling, codecs and a second of a video stay below. */
const FAR = 40;
/** So many fields may be far away, since a moving thing may be elsewhere by then: a share of all. */
const FAR_AT_MOST = 1 / 10;
/** The mean distance of all fields that counts as alike. */
const MEAN_AT_MOST = 14;
/** Darker than this, in all fields, is black. */
const BLACK = 14;

/**
 * Compares what was seen with what may be seen at that moment: one picture, or several around a change or within a video. Within a
 * transition (`changing`) each field may have any colour between theirs.
 */
export function verdictOf(seen: Fields, looks: readonly Fields[], changing: boolean): Verdict {
  if (looks.some((look) => isAlike(seen, (field) => distance(seen[field], look[field])))) return 'alike';
  if (changing) return isAlike(seen, (field) => distanceToAny(seen[field], looks, field)) ? 'alike' : 'unsure';
  return isBlack(seen) ? 'black' : 'differs';
}

/** A field that differs more than this is worth looking at, in a picture that differs on the whole. */
const SEEN_TO_DIFFER = 20;

/** The fields in which a picture differs from what was planned, in order: for a mark where to look. */
export const differentFields = (seen: Fields, planned: Fields): number[] =>
  seen.flatMap((colour, field) => (distance(colour, planned[field]) > SEEN_TO_DIFFER ? [field] : []));

/** How far two pictures are from each other: the mean of their fields, from 0 to 255. */
export const distanceOf = (a: Fields, b: Fields): number =>
  a.reduce((sum, colour, field) => sum + distance(colour, b[field]), 0) / a.length;

const isBlack = (fields: Fields) => fields.every((colour) => colour.every((part) => part < BLACK));

function isAlike(seen: Fields, distanceAt: (field: number) => number): boolean {
  const distances = seen.map((_, field) => distanceAt(field));
  const mean = distances.reduce((sum, one) => sum + one, 0) / distances.length;
  return mean <= MEAN_AT_MOST && distances.filter((one) => one > FAR).length <= distances.length * FAR_AT_MOST;
}

type Colour = Fields[number] | undefined;

const distance = (a: Colour, b: Colour): number =>
  a && b ? Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) / Math.sqrt(3) : Infinity;

/** How far a colour is from the nearest mixture of two of the looks, in one field. */
function distanceToAny(seen: Colour, looks: readonly Fields[], field: number): number {
  let least = Infinity;
  for (const [i, first] of looks.entries())
    for (const second of looks.slice(i)) least = Math.min(least, distanceToMixture(seen, first[field], second[field]));
  return least;
}

function distanceToMixture(seen: Colour, a: Colour, b: Colour): number {
  if (!seen || !a || !b) return Infinity;
  const way = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
  const length = way[0] ** 2 + way[1] ** 2 + way[2] ** 2;
  const along = way[0] * (seen[0] - a[0]) + way[1] * (seen[1] - a[1]) + way[2] * (seen[2] - a[2]);
  const share = length === 0 ? 0 : Math.min(1, Math.max(0, along / length));
  return distance(seen, [a[0] + share * way[0], a[1] + share * way[1], a[2] + share * way[2]]);
}
