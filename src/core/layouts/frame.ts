/** Where a zone is in its layout, in whole pixels of the layout. */
export interface Frame {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A zone, or anything else with a place and an id. A later one of a list lies above an earlier one. */
export interface Placed extends Frame {
  readonly id: string;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** No zone gets narrower or lower than this when it is pulled or split, in pixels. */
export const LEAST_SIDE = 8;

/** `x` is across, `y` is down. */
export type Axis = 'x' | 'y';

/** A frame along one axis: where it begins and ends. */
export const span = ({ x, y, width, height }: Frame, axis: Axis): readonly [from: number, to: number] =>
  axis === 'x' ? [x, x + width] : [y, y + height];

export const otherAxis = (axis: Axis): Axis => (axis === 'x' ? 'y' : 'x');

/** The frame with another begin and end along one axis. */
export const withSpan = <F extends Frame>(frame: F, axis: Axis, from: number, to: number): F =>
  axis === 'x' ? { ...frame, x: from, width: to - from } : { ...frame, y: from, height: to - from };

export const overlap = (one: Frame, other: Frame): boolean =>
  (['x', 'y'] as const).every((axis) => {
    const [from, to] = span(one, axis);
    const [begin, end] = span(other, axis);
    return from < end && begin < to;
  });

/** The least frame that holds both. */
export function around(one: Frame, other: Frame): Frame {
  const x = Math.min(one.x, other.x);
  const y = Math.min(one.y, other.y);
  return {
    ...{ x, y },
    width: Math.max(one.x + one.width, other.x + other.width) - x,
    height: Math.max(one.y + one.height, other.y + other.height) - y,
  };
}

export const area = ({ width, height }: Size): number => width * height;

/** Whether a zone lies over another one, as a picture in a picture does: such a zone moves freely. */
export const isFree = (zones: readonly Placed[], id: string): boolean => {
  const at = zones.findIndex((one) => one.id === id);
  const own = zones[at];
  return own !== undefined && zones.slice(0, at).some((one) => overlap(one, own));
};

/** The zones with one of them changed. */
export const withZone = <Z extends Placed>(zones: readonly Z[], id: string, change: (zone: Z) => Z): Z[] =>
  zones.map((one) => (one.id === id ? change(one) : one));
