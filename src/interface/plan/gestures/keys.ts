import { DAY } from '@/core/instant';
import type { Fix } from '@/core/preflight';
import type { LocalTime } from '@/core/when';
import { LAYERS, type Bar, type LayerOfBars } from '../strata/layout';
import type { TimeScale } from '../strata/scale';
import { stretched } from './held';
import type { Gesture } from './use-gesture';

/** What a key does to a bar that is in hand. Returns whether it was for it. */
export function heldKey(event: KeyboardEvent | React.KeyboardEvent, gesture: Gesture, scale: TimeScale): boolean {
  const { held } = gesture;
  if (!held) return false;
  const part = event.shiftKey ? 'end' : event.ctrlKey || event.metaKey ? 'start' : 'whole';
  const reach = part === 'end' ? held.end : held.start;
  const by = { ArrowLeft: -scale.step, ArrowRight: scale.step, PageUp: -DAY, PageDown: DAY }[event.key];
  const layer = LAYERS.indexOf(held.layer) + (event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0);
  if (by !== undefined)
    gesture.hold(
      stretched(
        held,
        Math.abs(by) === DAY ? 'whole' : part,
        (Math.abs(by) === DAY ? held.start + by : reach + by) as LocalTime,
      ),
    );
  else if (event.key === 'ArrowUp' || event.key === 'ArrowDown')
    gesture.hold({ ...held, layer: LAYERS[layer] ?? held.layer });
  else if (event.key === 'c') gesture.hold({ ...held, copy: !held.copy });
  else if (event.key === 'Enter' || event.key === ' ') gesture.putDown();
  else if (event.key === 'Escape') gesture.letGo();
  else return false;
  return true;
}

/** The bar that an arrow leads to: before and after within the layer, nearest in time in the layer above or below. */
export function neighbour(layers: readonly LayerOfBars[], bar: Bar, key: string): Bar | undefined {
  const at = layers.findIndex((one) => one.layer === bar.layer);
  const own = layers[at]?.bars ?? [];
  const place = own.findIndex((one) => one.key === bar.key);
  if (key === 'ArrowLeft') return own[place - 1];
  if (key === 'ArrowRight') return own[place + 1];
  if (key === 'Home') return own[0];
  if (key === 'End') return own.at(-1);
  const others = key === 'ArrowUp' ? layers.slice(0, at).reverse() : key === 'ArrowDown' ? layers.slice(at + 1) : [];
  const next = others.find((one) => one.bars.length > 0);
  const far = (one: Bar) => Math.abs(one.localOccasion.start - bar.localOccasion.start);
  return [...(next?.bars ?? [])].sort((a, b) => far(a) - far(b))[0];
}

/** What a key does to the bar in focus. Returns whether it was for it. */
export function barKey(
  event: React.KeyboardEvent,
  bar: Bar,
  gesture: Gesture,
  fixes: readonly Fix[],
  onOpen: () => void,
  onFix: (fix: Fix) => void,
): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey) return false;
  const { start, end } = bar.localOccasion;
  const fix = fixes[Number(event.key) - 1];
  if (event.key === ' ' || event.key === 'c')
    gesture.hold({ bar, start, end, layer: bar.layer, copy: event.key === 'c' });
  else if (event.key === 'Enter') onOpen();
  else if (event.key === 'Delete' || event.key === 'Backspace') gesture.remove(bar);
  else if (fix) onFix(fix);
  else return false;
  return true;
}
