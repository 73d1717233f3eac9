'use client';

import { useRef, type MouseEvent, type PointerEvent } from 'react';
import type { Turn } from '@/core/forecast';
import { useHeld } from '@/interface/kit/page/use-held';
import { useEscape } from './use-escape';

/** So far a turn is held before it is carried, in pixels: less is a press. */
const HELD_PX = 6;

/** What is carried along a strip: an item, and the one whose place it is to take. */
export interface Carried {
  readonly pass: number;
  readonly item: number;
  readonly over: number;
}

/** The item whose turn is at a time of a pass; the last one's beyond its end. */
export function itemAt(turns: readonly Turn[], ms: number): number | undefined {
  return (turns.find(({ startMs, durationMs }) => ms < startMs + durationMs) ?? turns.at(-1))?.item;
}

/** Turns of a strip are carried to another's place by the pointer; Escape leaves them. `onMove` is null where they have no order to be given. */
export function useCarry(onMove: ((item: number, over: number) => void) | null) {
  const { held: carried, newest, hold: carry } = useHeld<Carried>();
  const held = useRef<{ readonly x: number; readonly item: number } | null>(null);
  /** The press that ends a carrying is none. */
  const wasCarried = useRef(false);
  const isCarried = carried !== null;
  const leave = () => {
    held.current = null;
    carry(null);
  };
  useEscape(isCarried, leave);
  const handlers = (pass: number, turn: Turn, turns: readonly Turn[], span: number) =>
    onMove && {
      onPointerDown: ({ button, clientX }: PointerEvent) => {
        wasCarried.current = false;
        if (button === 0) held.current = { x: clientX, item: turn.item };
      },
      onPointerMove: (event: PointerEvent<HTMLElement>) => {
        const from = held.current;
        if (!from || (!isCarried && Math.abs(event.clientX - from.x) < HELD_PX)) return;
        const strip = event.currentTarget.closest('[data-strip]')?.getBoundingClientRect();
        if (!strip) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        wasCarried.current = true;
        const over = itemAt(turns, ((event.clientX - strip.left) / strip.width) * span) ?? from.item;
        if (newest.current?.over !== over) carry({ pass, item: from.item, over });
      },
      onPointerUp: () => {
        const carried = newest.current;
        held.current = null;
        carry(null);
        if (carried && carried.over !== carried.item) onMove(carried.item, carried.over);
      },
      onPointerCancel: leave,
      onClickCapture: (event: MouseEvent) => {
        if (wasCarried.current) event.stopPropagation();
        wasCarried.current = false;
      },
    };
  return { carried, handlers };
}
