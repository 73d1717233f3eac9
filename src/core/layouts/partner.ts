import type { Layout } from '../plan/kinds/layout';
import type { Size } from './frame';

/** Whether something is higher than wide. */
export const isTall = ({ width, height }: Size): boolean => height > width;

/** A layout's partner for screens of the other orientation: one with the same zones, by their names. Undefined where there is none. */
export function partnerOf(layouts: readonly Layout[], layout: Layout): Layout | undefined {
  const names = ({ zones }: Layout) =>
    zones
      .map(({ id }) => id)
      .sort()
      .join(' ');
  const found = layouts.filter(
    (one) => one.id !== layout.id && isTall(one) !== isTall(layout) && names(one) === names(layout),
  );
  // Of several, the one that is called so too.
  return found.find(({ name }) => name.startsWith(layout.name) || layout.name.startsWith(name)) ?? found[0];
}
