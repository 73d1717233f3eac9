import { nameAmong } from '@/core/booking';
import { isTall, turnedSize, turnedZones } from '@/core/layouts';
import type { Layout, Patch, Plan } from '@/core/plan';
import { newId } from './new-id';

/** A layout turned, as a proposal for screens of the other orientation: with the same zones. Its id, and the patch that adds it. */
export function turnedLayout(plan: Plan, layout: Layout): { readonly id: string; readonly patch: Patch<'layout'> } {
  const { id: own, ...document } = layout;
  const shape = isTall(layout) ? 'landscape' : 'portrait';
  const name = nameAmong(new Set(plan.layouts.map((one) => one.name)), `${layout.name}, ${shape}`);
  const id = newId(`${own}-${shape}`, plan.layouts);
  const zones = turnedZones(layout.zones, layout);
  return { id, patch: { kind: 'layout', id, add: { ...document, name, ...turnedSize(layout), zones } } };
}
