'use client';

import { useEffect, useRef, type RefObject } from 'react';
import type { Held } from '../gestures/held';
import type { Choice } from '../gestures/use-gesture';
import type { Bar, LayerOfBars } from './layout';
import { nearestBar, type Worked } from './worked';

/** What is worked on by keys: a bar, one in hand, or one that waits for a word on its days. */
type On = Bar | Held | Choice | null;

/**
 * Keeps the focus near, when the bar that had it is drawn again, moved or removed: it goes to the bar that
 * took its place, or else to the nearest. Only if the focus was lost, and not after a press elsewhere.
 */
export function useKeptFocus(field: RefObject<HTMLElement | null>, layers: readonly LayerOfBars[], on: On): void {
  const worked = useRef<Worked | null>(null);
  useEffect(() => {
    const to = workedOn(on);
    if (to) worked.current = to;
  }, [on]);
  useEffect(() => {
    const forget = () => (worked.current = null);
    document.addEventListener('pointerdown', forget);
    return () => document.removeEventListener('pointerdown', forget);
  }, []);
  // After each drawing: bars come and go by what others do, too.
  useEffect(() => {
    if (!worked.current || (document.activeElement && document.activeElement !== document.body)) return;
    const bar = nearestBar(layers, worked.current);
    if (bar) field.current?.querySelector<HTMLElement>(`[data-bar="${CSS.escape(bar.key)}"]`)?.focus();
  });
}

function workedOn(on: On): Worked | null {
  if (!on) return null;
  if ('change' in on) return on.held ? workedOn(on.held) : workedOn(on.bar);
  if ('localOccasion' in on) return { name: on.booking.name, layer: on.layer, start: on.localOccasion.start };
  return on.bar && { name: on.bar.booking.name, layer: on.layer, start: on.start };
}
