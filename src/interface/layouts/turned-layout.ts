import { nameAmong } from '@/core/booking';
import { isTall, turnedSize, turnedZones } from '@/core/layouts';
import { added, type Layout } from '@/core/plan';

/** The patch that adds a layout turned, as a proposal for screens of the other orientation: with the same zones. */
export function turnedLayout(layout: Layout, layouts: readonly Layout[]) {
  const { id: _, ...document } = layout;
  const name = nameAmong(
    new Set(layouts.map((one) => one.name)),
    `${layout.name}, ${isTall(layout) ? 'landscape' : 'portrait'}`,
  );
  return added('layout', { ...document, name, ...turnedSize(layout), zones: turnedZones(layout.zones, layout) });
}
