import type { Edges } from '../hardware/hardware';

/**
 * Lays out all that is seen on the display: turned clockwise, and as much smaller as the display cuts off at its edges (percent of the display, as it hangs).
 * What isn't drawn on is black.
 */
export function layGlass(glass: HTMLElement, degrees: number, { top, right, bottom, left }: Edges): void {
  const [across, down] = [`${100 - left - right}vw`, `${100 - top - bottom}vh`];
  const isOnItsSide = degrees === 90 || degrees === 270;
  Object.assign(glass.style, {
    left: `${50 + (left - right) / 2}vw`,
    top: `${50 + (top - bottom) / 2}vh`,
    width: isOnItsSide ? down : across,
    height: isOnItsSide ? across : down,
    transform: `translate(-50%, -50%) rotate(${degrees}deg)`,
  });
  const isSmaller = top + right + bottom + left > 0;
  document.documentElement.style.background = isSmaller ? '#000' : '';
  document.body.style.background = isSmaller ? '#000' : '';
}
