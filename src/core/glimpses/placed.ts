import type { Fit } from '../plan/looks';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** A rectangle in a screen's pixels. It may reach beyond the screen. */
export interface Placed extends Size {
  readonly left: number;
  readonly top: number;
}

/** Where players put a file, or a layout, on a screen: whole, filling the screen around its focus, stretched, or pixel for pixel. */
export function placedOn(screen: Size, file: Size, fit: Fit, [x, y]: readonly [number, number] = [0.5, 0.5]): Placed {
  const [across, down] = [screen.width / file.width, screen.height / file.height];
  const whole = Math.min(across, down);
  const fills = Math.max(across, down);
  const [sx, sy] = { whole: [whole, whole], fill: [fills, fills], stretch: [across, down], exact: [1, 1] }[fit] as [
    number,
    number,
  ];
  const [width, height] = [file.width * sx, file.height * sy];
  return { width, height, left: (screen.width - width) * x, top: (screen.height - height) * y };
}

/** The same for a place on a screen, as a zone is. */
export function placedIn(
  { left, top, ...place }: Placed,
  file: Size,
  fit: Fit,
  focus?: readonly [number, number],
): Placed {
  const placed = placedOn(place, file, fit, focus);
  return { ...placed, left: left + placed.left, top: top + placed.top };
}

/** Where players put a zone of a layout in a place on a screen; the zone is in pixels of the layout. */
export function zonePlacedIn(
  place: Placed,
  layout: Size & { readonly fit: Fit },
  zone: Size & { readonly x: number; readonly y: number },
): Placed {
  const { left, top, width, height } = placedIn(place, layout, layout.fit);
  const [across, down] = [width / layout.width, height / layout.height];
  return {
    ...{ left: left + zone.x * across, top: top + zone.y * down },
    ...{ width: zone.width * across, height: zone.height * down },
  };
}
