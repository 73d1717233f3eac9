'use client';

import { useRef, type PointerEvent } from 'react';
import { HOUR } from '@/core/instant';
import type { LocalTime } from '@/core/when';
import { LAYERS, type Bar, type Layer } from '../strata/layout';
import { snap, type TimeScale } from '../strata/scale';
import { stretched, type Held } from './held';
import type { Gesture } from './use-gesture';

const MOVED_PIXELS = 4;

interface Press {
  readonly x: number;
  readonly y: number;
  readonly time: LocalTime;
  readonly bar: Bar | null;
  readonly part: 'whole' | 'start' | 'end';
  readonly layer: Layer;
  moved: boolean;
}

/** The pointer's way to hold bars: press and pull. Alt puts down a copy, Shift goes by the minute. */
export function usePointer(
  scale: TimeScale,
  gesture: Gesture,
  barOf: (key: string) => Bar | undefined,
  edges: readonly LocalTime[],
  onPick: (bar: Bar | null) => void,
) {
  const press = useRef<Press | null>(null);

  const timeAt = (event: PointerEvent<HTMLElement>) => {
    const field = event.currentTarget.getBoundingClientRect();
    return scale.time(event.clientX - field.left);
  };
  const layerAt = (event: PointerEvent<HTMLElement>): Layer | null => {
    const bands = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-layer]')];
    const found = bands.find((band) => {
      const { top, bottom } = band.getBoundingClientRect();
      return event.clientY >= top && event.clientY < bottom;
    });
    return LAYERS.find((layer) => String(layer) === found?.dataset.layer) ?? null;
  };

  return {
    onPointerDown(event: PointerEvent<HTMLElement>) {
      if (event.button !== 0 || gesture.choice) return;
      const target = event.target as HTMLElement;
      const bar = barOf(target.closest<HTMLElement>('[data-bar]')?.dataset.bar ?? '') ?? null;
      const layer = bar?.layer ?? layerAt(event);
      if (layer === null) return;
      const part = (target.dataset.part ?? 'whole') as Press['part'];
      press.current = { x: event.clientX, y: event.clientY, time: timeAt(event), bar, part, layer, moved: false };
      event.currentTarget.setPointerCapture(event.pointerId);
    },
    onPointerMove(event: PointerEvent<HTMLElement>) {
      const from = press.current;
      if (!from) return;
      from.moved ||= Math.hypot(event.clientX - from.x, event.clientY - from.y) > MOVED_PIXELS;
      if (!from.moved) return;
      gesture.hold(held(from, event));
    },
    onPointerUp() {
      const from = press.current;
      press.current = null;
      if (!from) return;
      if (from.moved) gesture.putDown();
      else onPick(from.bar);
    },
    onPointerCancel() {
      press.current = null;
      gesture.letGo();
    },
  };

  function held(from: Press, event: PointerEvent<HTMLElement>): Held {
    const to = timeAt(event);
    const fine = event.shiftKey;
    if (!from.bar) {
      const [a, b] = [from.time, to].map((time) => snap(time, scale, edges, fine)) as [LocalTime, LocalTime];
      const [start, end] = a < b ? [a, b] : [b, a];
      const drawn: Held = { bar: null, start, end: (start + 1) as LocalTime, layer: from.layer, copy: false };
      return stretched(drawn, 'end', end > start ? end : ((start + HOUR) as LocalTime));
    }
    const { start, end } = from.bar.localOccasion;
    const own = edges.filter((edge) => edge !== start && edge !== end);
    const base: Held = {
      bar: from.bar,
      start,
      end,
      layer: from.part === 'whole' ? (layerAt(event) ?? from.layer) : from.layer,
      copy: event.altKey,
    };
    const moved = ((from.part === 'end' ? end : start) + to - from.time) as LocalTime;
    // Carried straight up or down, a bar keeps its time.
    const still = from.part === 'whole' && Math.abs(scale.x(to) - scale.x(from.time)) < MOVED_PIXELS * 2;
    return still ? base : stretched(base, from.part, snap(moved, scale, own, fine));
  }
}
