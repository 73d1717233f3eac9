'use client';

import { useCallback, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { DAY } from '@/core/instant';
import type { LocalDate } from '@/core/when';
import { useHeld } from '@/interface/kit/page/use-held';
import type { Bar } from '../strata/layout';
import type { Gesture } from './use-gesture';
import { carriedBy, drawnSpan, type Drawn } from './carried';

const MOVED_PIXELS = 4;
const STEPS: Readonly<Record<string, number>> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 };

interface Press {
  readonly x: number;
  readonly y: number;
  readonly day: LocalDate;
  readonly bar: Bar | null;
  moved: boolean;
}

/**
 * Carrying a booking's occasion to another day of the month, and drawing days for a new one: by pointer or keys. `first` and
 * `last` bound the days; `onDrawn` gets what was drawn.
 */
export function useCarry(
  gesture: Gesture,
  [first, last]: readonly [LocalDate, LocalDate],
  barOf: (key: string) => Bar | undefined,
  onDrawn: (from: LocalDate, to: LocalDate) => void,
) {
  const press = useRef<Press | null>(null);
  const { held: drawn, newest: drawnNow, hold: draw } = useHeld<Drawn>();
  /** A pull that ends is followed by a click of its own, which is not meant. */
  const pulled = useRef(false);
  const grid = useRef<HTMLDivElement>(null);
  const { held } = gesture;

  const focusDay = useCallback(
    (day: LocalDate) => grid.current?.querySelector<HTMLElement>(`[data-open-day="${day}"]`)?.focus(),
    [],
  );
  const finishDrawing = () => {
    if (drawnNow.current) onDrawn(...drawnSpan(drawnNow.current));
    draw(null);
  };
  const within = (day: number) => Math.min(Math.max(day, first), last) as LocalDate;

  /** Takes hold of a bar by key; the day keeps the focus, as the bar's name moves away under it. */
  const take = (bar: Bar, copy: boolean, day: LocalDate) => {
    gesture.hold(carriedBy(bar, 0, copy));
    focusDay(day);
  };

  const heldKey = (key: string): boolean => {
    if (!held?.bar) return false;
    const by = STEPS[key];
    const days = (held.start - held.bar.localOccasion.start) / DAY;
    if (by !== undefined) {
      const day = held.bar.localOccasion.date + days + by;
      if (day < first || day > last) return true;
      gesture.hold(carriedBy(held.bar, days + by, held.copy));
      focusDay(day as LocalDate);
    } else if (key === 'c') gesture.hold({ ...held, copy: !held.copy });
    else if (key === 'Enter' || key === ' ') gesture.putDown();
    else if (key === 'Escape') gesture.letGo();
    else return false;
    return true;
  };

  const drawnKey = (key: string): boolean => {
    if (!drawn) return false;
    const by = STEPS[key];
    if (by !== undefined) {
      const to = within(drawn.to + by);
      draw({ ...drawn, to });
      focusDay(to);
    } else if (key === 'Enter' || key === ' ') finishDrawing();
    else if (key === 'Escape') draw(null);
    else return false;
    return true;
  };

  const dayKey = (key: string, day: LocalDate): boolean => {
    const by = STEPS[key];
    if (by !== undefined) focusDay(within(day + by));
    else if (key === ' ') draw({ anchor: day, to: day });
    else return false;
    return true;
  };

  const barKey = (key: string, bar: Bar, day: LocalDate): boolean => {
    if (key === ' ' || key === 'c') take(bar, key === 'c', day);
    else if (key === 'Delete' || key === 'Backspace') gesture.remove(bar);
    else if (key === 'Escape') focusDay(day);
    else return false;
    return true;
  };

  return {
    grid,
    drawn,
    /** Whether a click is the end of a pull, and so no click. */
    wasPulled: useCallback(() => pulled.current, []),
    on: {
      onKeyDown(event: KeyboardEvent<HTMLElement>) {
        pulled.current = false;
        if (event.ctrlKey || event.metaKey || event.altKey || gesture.choice) return;
        const target = event.target as HTMLElement;
        const day = dayOf(target);
        if (day === null) return;
        const bar = barOf(target.closest<HTMLElement>('[data-carry]')?.dataset.carry ?? '');
        const { key } = event;
        const done = heldKey(key) || drawnKey(key) || (bar ? barKey(key, bar, day) : dayKey(key, day));
        if (!done) return;
        event.preventDefault();
        event.stopPropagation();
      },
      onPointerDown(event: PointerEvent<HTMLElement>) {
        pulled.current = false;
        const target = event.target as HTMLElement;
        const day = dayOf(target);
        if (event.button !== 0 || gesture.choice || day === null) return;
        const bar = barOf(target.closest<HTMLElement>('[data-carry]')?.dataset.carry ?? '') ?? null;
        press.current = { x: event.clientX, y: event.clientY, day, bar, moved: false };
      },
      onPointerMove(event: PointerEvent<HTMLElement>) {
        const from = press.current;
        if (!from) return;
        if (!from.moved) {
          if (Math.hypot(event.clientX - from.x, event.clientY - from.y) <= MOVED_PIXELS) return;
          from.moved = pulled.current = true;
          event.currentTarget.setPointerCapture(event.pointerId);
        }
        const day = dayAt(event.currentTarget, event.clientX, event.clientY);
        if (day === null) return;
        if (from.bar) gesture.hold(carriedBy(from.bar, day - from.day, event.altKey));
        else draw({ anchor: from.day, to: day });
      },
      onPointerUp() {
        const from = press.current;
        press.current = null;
        if (!from?.moved) return;
        if (from.bar) gesture.putDown();
        else finishDrawing();
      },
      onPointerCancel() {
        press.current = null;
        draw(null);
        gesture.letGo();
      },
    },
  };
}

function dayOf(target: HTMLElement): LocalDate | null {
  const cell = target.closest<HTMLElement>('[data-day]');
  return cell ? (Number(cell.dataset.day) as LocalDate) : null;
}

function dayAt(grid: HTMLElement, x: number, y: number): LocalDate | null {
  const cells = [...grid.querySelectorAll<HTMLElement>('[data-day]')];
  const under = cells.find((cell) => {
    const { left, right, top, bottom } = cell.getBoundingClientRect();
    return x >= left && x < right && y >= top && y < bottom;
  });
  return under ? dayOf(under) : null;
}
